import { pressureSlope } from '../../toolboxes/servo/servo-law';
import { scatterOf, type Model } from '../../contract/model';
import { hydraulicBoostFaults, soundHydraulicBoost, type HydraulicBoostCondition } from './faults';
import type { HydraulicBoostUnit } from './geometry';
import { hydraulicBoostPlant, returnAtIdle } from './vehicle-stand';

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
  truth: (unit, condition) => ({
    // Against a dead end a belt slips as much as it ever does.
    'relief-pressure': unit.relief * condition.relief * (1 - condition.slip),
    'return-pressure': returnAtIdle * condition.returnFactor,
    ...(condition.selfApply > 0
      ? {}
      : {
          'cut-in-force': unit.cutInForce / unit.pedalRatio,
          'force-slope': pressureSlope(unit, unit.servoRatio) * unit.pedalRatio,
          'force-hysteresis': (unit.hysteresis * condition.hysteresis) / unit.pedalRatio,
        }),
  }),
};
