import { scatterOf, type Model } from '../../../contract/model';
import { soundCondition, type PlantCondition } from '../unit/faults';
import { servoCylinderFaults } from './faults';
import type { ServoUnit } from './servo';
import { servoCylinderPlant } from './plant';

export const servoCylinderModel: Model<ServoUnit, PlantCondition> = {
  sound: soundCondition,
  faults: servoCylinderFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: servoCylinderPlant,
  truth: () => ({}),
};
