import { scatterOf, type Model } from '../../../contract/model';
import { soundCondition, type PlantCondition } from '../unit/faults';
import { servoCylinderFaults } from './faults';
import type { ServoUnit } from './servo';
import { servoCylinderPlant } from './plant';
import { servoTruth } from './truth';

export const servoCylinderModel: Model<ServoUnit, PlantCondition> = {
  sound: soundCondition,
  faults: servoCylinderFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: servoCylinderPlant,
  truth: servoTruth,
};
