import { scatterOf, type Model } from '../../../contract/model';
import { vacuumRemoteFaults, soundCondition, type PlantCondition } from '../unit/faults';
import type { InLineUnit } from './geometry';
import { vacuumRemotePlant } from './plant';
import { inLineTruth } from './truth';

export const inLineSlaveModel: Model<InLineUnit, PlantCondition> = {
  sound: soundCondition,
  faults: vacuumRemoteFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('valveOpening', 0.08),
    scatterOf('controlRatio', 0.03),
    scatterOf('efficiency', 0.02),
    scatterOf('springForce', 0.05),
    scatterOf('hysteresis', 0.15),
  ],
  plant: vacuumRemotePlant,
  truth: inLineTruth,
};
