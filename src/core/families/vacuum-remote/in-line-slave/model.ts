import { scatterOf, type Model } from '../../../contract/model';
import { vacuumRemoteFaults, soundCondition, type PlantCondition } from '../unit/faults';
import type { InLineUnit } from './geometry';
import { vacuumRemotePlant } from './plant';

export const inLineSlaveModel: Model<InLineUnit, PlantCondition> = {
  sound: soundCondition,
  faults: vacuumRemoteFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: vacuumRemotePlant,
  truth: () => ({}),
};
