import type { Truth } from '../../../contract/model';
import type { StepContext } from '../../../procedure/step-context';
import { highHoldSeconds, lowHoldSeconds, lowPressure } from '../steps/pressure-hold-steps';
import { appliedInput } from '../steps/step-parts';
import { letGoSeconds, settles } from '../../../toolboxes/analysis/let-go';
import { airTruth } from '../truth/air-truth';
import { balances, breathes, meanDecay } from '../truth/pressure-truth';
import { assistOn, leverLag, wornHysteresis } from '../unit/air-side';
import { benchVacuum } from '../unit/bench-vacuum';
import { chamberDifference, runOutInput } from '../unit/control-valve';
import type { PlantCondition } from '../unit/faults';
import { closesAt, opensAt } from '../unit/stop-lamp';
import { residualLimit } from './residual-limit';
import { forceAt, fullForce, pullBegins, type ServoUnit } from './servo';

type Context = StepContext<ServoUnit>;

/** The cylinder as its condition makes it: what its balance is made of. */
function worn(unit: ServoUnit, { efficiencyFactor, springFactor }: PlantCondition): ServoUnit {
  return {
    ...unit,
    efficiency: unit.efficiency * efficiencyFactor,
    forceGain: unit.forceGain * efficiencyFactor,
    springForce: unit.springForce * springFactor,
  };
}

/** What a perfect measurement would say of a servo cylinder. */
export function servoTruth(sound: ServoUnit, condition: PlantCondition, context: Context): Truth {
  const unit = worn(sound, condition);
  const leak = condition.inputLeak + condition.outputLeak;
  const stays = condition.residualShare * fullForce(sound, sound.ratedVacuum);
  return {
    ...airTruth(sound, condition, context),
    'switch-close-pressure': closesAt + condition.switchShift,
    'switch-open-pressure': opensAt + condition.switchShift,
    ...(condition.controlStick > 0
      ? {}
      : {
          'servo-slope': unit.forceGain,
          'cut-in-pressure': pullBegins(unit),
          // What leaks through the valve holds the control chamber off before it moves.
          ...(condition.vacuumValveLeak > 0 ? {} : { 'valve-opening-pressure': unit.valveOpening }),
        }),
    ...fullPullTruth(unit, condition, context),
    'low-pressure-hold: input-decay-rate': meanDecay(lowPressure, leak, lowHoldSeconds),
    'pressure-hold: input-decay-rate': meanDecay(appliedInput(context), leak, highHoldSeconds),
    ...letGoTruth(unit, condition, { context, stays }),
  };
}

function fullPullTruth(unit: ServoUnit, condition: PlantCondition, { ambient }: Context): Truth {
  if (!balances(condition) || !breathes(condition)) return {};
  const vacuum = benchVacuum(unit, ambient);
  const runOut = runOutInput(unit, vacuum);
  return {
    'run-out-input': runOut,
    'run-out-servo-force': forceAt(unit, runOut, vacuum),
    'servo-force': forceAt(unit, unit.referenceInput, vacuum),
    // What comes back slowly lags like a wider hysteresis.
    ...(condition.releaseLag > settles ? {} : { hysteresis: wornHysteresis(unit, condition) }),
    'control-remainder': 0,
  };
}

interface LettingGo {
  readonly context: Context;
  /** Force that stays, N. */
  readonly stays: number;
}

function letGoTruth(unit: ServoUnit, condition: PlantCondition, { context, stays }: LettingGo): Truth {
  // What comes back slowly is still falling when it is read.
  const residual: Truth = condition.releaseLag > settles ? {} : { 'servo-residual': stays };
  if (!balances(condition) || !breathes(condition)) return residual;
  const vacuum = benchVacuum(unit, context.ambient);
  const seconds = letGoSeconds({
    held: appliedInput(context),
    leverLag,
    balance: (input) => Math.max(forceAt(unit, input, vacuum, 'way-back'), stays),
    lag: (input) =>
      chamberDifference(unit, input, vacuum) > assistOn
        ? Math.max(condition.releaseLag, condition.assistReleaseLag)
        : condition.releaseLag,
    gone: residualLimit(context).value,
  });
  return { ...residual, ...(seconds === null ? {} : { 'release-time': seconds }) };
}
