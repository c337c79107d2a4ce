import { Model } from '../../contract/model';
import { vacuumSupplyFaults, soundSupply, type SupplyCondition } from './faults';
import type { VacuumSupplyUnit } from './geometry';
import { vacuumSupplyPlant } from './vehicle-stand';

export const vacuumSupplyModel: Model<VacuumSupplyUnit, SupplyCondition> = {
  sound: soundSupply,
  faults: vacuumSupplyFaults,
  scatter: [],
  plant: vacuumSupplyPlant,
  truth: () => ({}),
};
