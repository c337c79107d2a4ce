import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model } from '../../contract/model';
import { motorPumpFaults, soundMotorPump, type MotorPumpCondition } from './faults';
import type { MotorPumpUnit } from './geometry';
import { motorPumpPlant } from './bench-stand';

export const motorPumpModel: Model<MotorPumpUnit, MotorPumpCondition> = {
  sound: soundMotorPump,
  faults: motorPumpFaults,
  // A sheet's tolerance is three standard deviations of what a maker lets out.
  scatter: [
    ...storeScatter<MotorPumpUnit>(
      'store',
      (unit) => unit.store,
      (unit, store) => ({ ...unit, store }),
    ),
    scatterOf('servoRatio', 0.05),
    scatterOf('cutInForce', 0.1),
    scatterOf('jumpInForce', 0.15),
    scatterOf('ratedCurrent', 0.05),
  ],
  plant: motorPumpPlant,
  truth: () => ({}),
};
