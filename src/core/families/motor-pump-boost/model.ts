import { Model } from '../../contract/model';
import { motorPumpFaults, soundMotorPump, type MotorPumpCondition } from './faults';
import type { MotorPumpUnit } from './geometry';
import { motorPumpPlant } from './bench-stand';

export const motorPumpModel: Model<MotorPumpUnit, MotorPumpCondition> = {
  sound: soundMotorPump,
  faults: motorPumpFaults,
  scatter: [],
  plant: motorPumpPlant,
  truth: () => ({}),
};
