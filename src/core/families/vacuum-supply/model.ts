import { scatterOf, type Model } from '../../contract/model';
import { vacuumSupplyFaults, soundSupply, type SupplyCondition } from './faults';
import type { VacuumSupplyUnit } from './geometry';
import { supplyTruth } from './truth';
import { vacuumSupplyPlant } from './vehicle-stand';

export const vacuumSupplyModel: Model<VacuumSupplyUnit, SupplyCondition> = {
  sound: soundSupply,
  faults: vacuumSupplyFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [scatterOf('speed', 0.05), scatterOf('volume', 0.01)],
  plant: vacuumSupplyPlant,
  truth: supplyTruth,
};
