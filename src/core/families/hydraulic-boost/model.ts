import { scatterOf, type Model } from '../../contract/model';
import { hydraulicBoostFaults, soundHydraulicBoost, type HydraulicBoostCondition } from './faults';
import type { HydraulicBoostUnit } from './geometry';
import { hydraulicBoostPlant } from './vehicle-stand';

export const hydraulicBoostModel: Model<HydraulicBoostUnit, HydraulicBoostCondition> = {
  sound: soundHydraulicBoost,
  faults: hydraulicBoostFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
  scatter: [
    scatterOf('relief', 0.015),
    scatterOf('pumpFlow', 0.05),
    scatterOf('servoRatio', 0.05),
    scatterOf('cutInForce', 0.1),
    scatterOf('jumpInForce', 0.15),
    scatterOf('hysteresis', 0.15),
  ],
  plant: hydraulicBoostPlant,
  truth: () => ({}),
};
