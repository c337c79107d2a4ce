import { Model } from '../../contract/model';
import { storedPressureFaults, soundStoredPressure, type StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';
import { storedPressurePlant } from './vehicle-stand';

export const storedPressureModel: Model<StoredPressureUnit, StoredPressureCondition> = {
  sound: soundStoredPressure,
  faults: storedPressureFaults,
  scatter: [],
  plant: storedPressurePlant,
  truth: () => ({}),
};
