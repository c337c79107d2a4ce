import { Model } from '../../../contract/model';
import { vacuumRemoteFaults, soundCondition, type PlantCondition } from '../unit/faults';
import type { InLineUnit } from './geometry';
import { vacuumRemotePlant } from './plant';

export const inLineSlaveModel: Model<InLineUnit, PlantCondition> = {
  sound: soundCondition,
  faults: vacuumRemoteFaults,
  scatter: [],
  plant: vacuumRemotePlant,
  truth: () => ({}),
};
