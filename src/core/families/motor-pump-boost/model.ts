import { aroundStores, storeTruth } from '../../toolboxes/store/model/store-truth';
import { masterPressure, pressureSlope } from '../../toolboxes/servo/servo-law';
import { storeScatter } from '../../toolboxes/store/model/store-scatter';
import { scatterOf, type Model, type Truth } from '../../contract/model';
import { motorPumpFaults, soundMotorPump, type MotorPumpCondition } from './faults';
import { loadedFrom, motorLoad, type MotorPumpUnit } from './geometry';
import { motorPumpPlant } from './bench-stand';

/** What the supply loses under that load; nothing is stated of a pump that does not get there, or does not stop. */
function supplyDrop(unit: MotorPumpUnit, condition: MotorPumpCondition): Truth {
  const stops = 1 + condition.cutOutShift / unit.store.cutOut;
  if (condition.dead || condition.stuck || condition.gas <= 0) return {};
  if (stops < loadedFrom + 0.02 || stops > condition.reliefShare) return {};
  const load = motorLoad(unit, condition.current, (loadedFrom + stops) / 2);
  return { 'supply-drop': load * condition.resistance };
}

export const motorPumpModel: Model<MotorPumpUnit, MotorPumpCondition> = {
  sound: soundMotorPump,
  faults: motorPumpFaults,
  // Assumed, not measured: a third of the workshop's tolerance where it has one, else what castings and springs are made to.
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
  truth: (unit, condition, context) => ({
    ...storeTruth({ store: unit.store, condition, place: '', around: aroundStores(context) }),
    ...supplyDrop(unit, condition),
    'run-current': motorLoad(unit, condition.current, 1),
    'lamp-pressure': unit.store.lamp + condition.lampShift,
    'cut-in-force': unit.cutInForce,
    'jump-in-output': masterPressure(unit, unit.jumpInForce),
    'force-slope': pressureSlope(unit, unit.servoRatio),
    'force-hysteresis': unit.hysteresis,
    'unassisted-slope': pressureSlope(unit, 1),
  }),
};
