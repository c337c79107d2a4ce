import { scatterOf, type Model } from '../../contract/model';
import { motorBoostPlant } from './bench-stand';
import { motorBoostFaults, soundMotorBoost, type MotorBoostCondition } from './faults';
import type { MotorBoostUnit } from './geometry';
import { motorBoostTruth } from './truth';

export const motorBoostModel: Model<MotorBoostUnit, MotorBoostCondition> = {
  sound: soundMotorBoost,
  faults: motorBoostFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings, springs and motors are made to.
  scatter: [
    scatterOf('servoRatio', 0.03),
    scatterOf('cutInForce', 0.08),
    scatterOf('jumpInForce', 0.1),
    scatterOf('motorForce', 0.04),
    scatterOf('hysteresis', 0.15),
  ],
  plant: motorBoostPlant,
  truth: motorBoostTruth,
};
