import { scatterOf, type Model } from '../../contract/model';
import { hydraulicBoostFaults, soundHydraulicBoost, type HydraulicBoostCondition } from './faults';
import type { HydraulicBoostUnit } from './geometry';
import { hydraulicBoostTruth } from './truth';
import { hydraulicBoostPlant } from './vehicle-stand';

export const hydraulicBoostModel: Model<HydraulicBoostUnit, HydraulicBoostCondition> = {
  sound: soundHydraulicBoost,
  faults: hydraulicBoostFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
  scatter: [
    scatterOf('relief', 0.015),
    scatterOf('pumpFlow', 0.05),
    scatterOf('servoRatio', 0.05),
    scatterOf('cutInForce', 0.1),
    scatterOf('jumpInForce', 0.15),
    scatterOf('hysteresis', 0.15),
  ],
  plant: hydraulicBoostPlant,
  truth: hydraulicBoostTruth,
};
