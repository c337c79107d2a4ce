import type { Truth } from '../../contract/model';
import { advanceAccumulator, settledAccumulator } from '../../physics/gas-accumulator';
import type { StepContext } from '../../procedure/step-context';
import { kneeForce, masterPressure, pressureSlope } from '../../toolboxes/servo/servo-law';
import type { HydraulicBoostCondition } from './faults';
import { assistForce, boostWanted, outputAt, reserveAccumulator, type HydraulicBoostUnit } from './geometry';
import { holdForce } from './pump-steps';
import { dropForce } from './reserve-steps';
import { airOf } from './step-parts';
import { idling, returnAtIdle } from './vehicle-stand';

type Context = StepContext<HydraulicBoostUnit>;

const soakStep = 5;

/** What a perfect measurement would say of a booster on the steering pump. */
export function hydraulicBoostTruth(
  unit: HydraulicBoostUnit,
  condition: HydraulicBoostCondition,
  context: Context,
): Truth {
  return {
    // Against a dead end a belt slips as much as it ever does.
    'relief-pressure': unit.relief * condition.relief * (1 - condition.slip),
    'pump-flow': unit.pumpFlow * condition.flow * (1 - (condition.slip * idling) / unit.relief),
    'return-pressure': returnAtIdle * condition.returnFactor,
    // A booster that applies by itself follows no foot, and a belt that slips the more it is asked of follows no line.
    ...(condition.selfApply > 0 || condition.slip > 0 ? {} : pedalTruth(unit, condition)),
    // Of its strokes the model says how many only for one pace: between them the gas warms again. And without gas there is no soak.
    ...(condition.reserveGas < 1 ? {} : { 'store-soak-loss': soakLoss(unit, condition, context) }),
  };
}

/** Boost (Pa gauge) that the pump has for a foot that asks for so much, with its share of the steering taken off. */
function boostLeft(
  unit: HydraulicBoostUnit,
  condition: HydraulicBoostCondition,
  { asked, steering }: { readonly asked: number; readonly steering: number },
): number {
  const relief = unit.relief * condition.relief;
  const slips = condition.slip * Math.min(1, asked / relief);
  return Math.min(asked, relief * (1 - steering) * (1 - slips) * (1 - condition.spoolLeak));
}

function pedalTruth(unit: HydraulicBoostUnit, condition: HydraulicBoostCondition): Truth {
  const most = boostLeft(unit, condition, { asked: Infinity, steering: 0 });
  const knee = kneeForce(unit, assistForce(unit, most));
  const asked = boostWanted(unit, holdForce(unit) * unit.pedalRatio);
  const at = (steering: number) => boostLeft(unit, condition, { asked, steering });
  const [without, assisted] = [outputAt(unit, dropForce(unit), 0), outputAt(unit, dropForce(unit), most)];
  return {
    'cut-in-force': unit.cutInForce / unit.pedalRatio,
    'jump-in-output': masterPressure(unit, unit.jumpInForce),
    'force-slope': pressureSlope(unit, unit.servoRatio) * unit.pedalRatio,
    'force-hysteresis': (unit.hysteresis * condition.hysteresis) / unit.pedalRatio,
    // What a return line holds back stands behind the piston and pushes with it.
    ...(knee === null || condition.returnFactor > 1
      ? {}
      : { 'run-out-force': knee / unit.pedalRatio, 'run-out-output': outputAt(unit, knee / unit.pedalRatio, most) }),
    ...(condition.returnFactor > 1
      ? {}
      : { 'pedal-sink': (unit.pedalTravel * (assisted - without)) / outputAt(unit, unit.reserveForce, unit.relief) }),
    'boost-sag': at(0) - at(condition.steeringTakes),
  };
}

/** What a reserve in a condition loses over its soak, Pa. */
function soakLoss(unit: HydraulicBoostUnit, condition: HydraulicBoostCondition, context: Context): number {
  const air = airOf(context);
  const spec = reserveAccumulator(unit, air.ambient, condition.reserveGas);
  const state = settledAccumulator(spec, unit.reserve.charged + air.ambient, air);
  const before = state.pressure;
  for (let time = 0; time < unit.spec.soakSeconds; time += soakStep) {
    const leaking = (unit.reserve.leak * condition.reserveLeak * (state.pressure - air.ambient)) / unit.reserve.charged;
    advanceAccumulator(spec, state, soakStep, -leaking * soakStep, air);
  }
  return before - state.pressure;
}
