import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model } from '../../contract/model';
import { storedPressureFaults, soundStoredPressure, type StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';
import { storedPressureTruth } from './truth';
import { storedPressurePlant } from './vehicle-stand';

export const storedPressureModel: Model<StoredPressureUnit, StoredPressureCondition> = {
  sound: soundStoredPressure,
  faults: storedPressureFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    ...storeScatter<StoredPressureUnit>(
      'first',
      (unit) => unit.first,
      (unit, first) => ({ ...unit, first }),
    ),
    ...storeScatter<StoredPressureUnit>(
      'second',
      (unit) => unit.second,
      (unit, second) => ({ ...unit, second }),
    ),
    scatterOf('meteringSlope', 0.03),
    scatterOf('cutInForce', 0.1),
  ],
  plant: storedPressurePlant,
  truth: storedPressureTruth,
};
