import type { Truth } from '../../contract/model';
import { airGasConstant, nozzleFlow } from '../../physics/nozzle';
import type { StepContext } from '../../procedure/step-context';
import { leakDown, steadyLoss } from '../../toolboxes/vacuum/leak-down';
import type { SupplyCondition } from './faults';
import { settledVacuum, thresholds, type VacuumSupplyUnit } from './geometry';
import { checkSeconds, restSeconds } from './reservoir-steps';

type Context = StepContext<VacuumSupplyUnit>;

/** What a perfect measurement would say of a vacuum source. */
export function supplyTruth(unit: VacuumSupplyUnit, condition: SupplyCondition, context: Context): Truth {
  return {
    ...(condition.dead ? {} : { ...switchTruth(unit, condition, context), ...pumpTruth(unit, condition, context) }),
    ...leakTruth(unit, condition, context),
  };
}

/** Where the pump starts and stops (Pa vacuum): the switch acts on what its sensor tells it. Null for a source without a switch. */
function switched(unit: VacuumSupplyUnit, condition: SupplyCondition, { ambient }: Context) {
  const here = unit.electric ? thresholds(unit, ambient) : null;
  return (
    here && {
      cutIn: here.cutIn + condition.cutInShift - condition.sensorShift,
      cutOut: here.cutOut + condition.cutOutShift - condition.sensorShift,
    }
  );
}

function switchTruth(unit: VacuumSupplyUnit, condition: SupplyCondition, context: Context): Truth {
  const here = switched(unit, condition, context);
  return here === null ? {} : { 'pump-cut-in': here.cutIn, 'pump-cut-out': here.cutOut };
}

/** Where pumping and leaking balance: S·(p − p_u) = R·T·m(p), Pa absolute. */
function balancedPressure(unit: VacuumSupplyUnit, condition: SupplyCondition, context: Context): number {
  const { ambient, airTemperature: temperature } = context;
  const ultimate = (ambient.pressure - settledVacuum(unit, ambient)) * condition.ultimateFactor;
  const speed = unit.speed * condition.speedFactor;
  let [low, high]: [number, number] = [Math.min(ultimate, ambient.pressure), ambient.pressure];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    const leaking = airGasConstant * temperature * nozzleFlow(condition.leak, ambient.pressure, middle, temperature);
    if (leaking > speed * (middle - ultimate)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

function pumpTruth(unit: VacuumSupplyUnit, condition: SupplyCondition, context: Context): Truth {
  return {
    // What leaks in while it draws makes it look slower.
    ...(condition.leak > 0 ? {} : { 'pump-speed': unit.speed * condition.speedFactor }),
    'ultimate-pressure': balancedPressure(unit, condition, context),
  };
}

/** What comes in while nothing pumps, from where the pump last stopped. */
function leakTruth(unit: VacuumSupplyUnit, condition: SupplyCondition, context: Context): Truth {
  const { ambient, airTemperature: temperature, benchVolume } = context;
  const here = switched(unit, condition, context);
  const sheets = thresholds(unit, ambient);
  if (benchVolume === null || here === null || condition.dead) return {};
  const space = { volume: unit.volume + benchVolume, vacuum: here.cutOut, ambient: ambient.pressure, temperature };
  const leaked = (leak: number, seconds: number) => leakDown({ ...space, leak }, seconds);
  const atRest = leaked(condition.leak + condition.checkLeak, restSeconds);
  const back = leaked(condition.checkLeak, checkSeconds);
  return {
    ...(steadyLoss(atRest, here.cutOut) ? { 'leak-flow': atRest.flow } : {}),
    ...(steadyLoss(back, here.cutOut) && condition.leak === 0 ? { 'reverse-leak': back.loss } : {}),
    // A stroke begins where the sheet's switch stopped the pump; what leaks beside it counts with it.
    ...(condition.leak + condition.checkLeak > 0 || sheets === null
      ? {}
      : { 'vacuum-per-application': (sheets.cutOut * unit.applicationVolume) / space.volume }),
  };
}
