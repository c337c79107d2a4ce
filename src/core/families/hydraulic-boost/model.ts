import { Model } from '../../contract/model';
import { hydraulicBoostFaults, soundHydraulicBoost, type HydraulicBoostCondition } from './faults';
import type { HydraulicBoostUnit } from './geometry';
import { hydraulicBoostPlant } from './vehicle-stand';

export const hydraulicBoostModel: Model<HydraulicBoostUnit, HydraulicBoostCondition> = {
  sound: soundHydraulicBoost,
  faults: hydraulicBoostFaults,
  scatter: [],
  plant: hydraulicBoostPlant,
  truth: () => ({}),
};
