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
import type { InLineUnit } from './geometry';
import { outputAt } from './quasi-static';
import { residualLimit } from './residual-limit';

type Context = StepContext<InLineUnit>;

const holdSteps = 600;

/** The unit as its condition makes it: what its balance is made of. */
function worn(unit: InLineUnit, { efficiencyFactor, springFactor }: PlantCondition): InLineUnit {
  return {
    ...unit,
    efficiency: unit.efficiency * efficiencyFactor,
    b: unit.b * efficiencyFactor,
    f: unit.f * springFactor,
  };
}

/** What a perfect measurement would say of a unit in the brake line. */
export function inLineTruth(sound: InLineUnit, condition: PlantCondition, context: Context): Truth {
  const unit = worn(sound, condition);
  return {
    ...airTruth(sound, condition, context),
    'switch-close-pressure': closesAt + condition.switchShift,
    'switch-open-pressure': opensAt + condition.switchShift,
    ...lineTruth(unit, condition),
    ...fullPullTruth(unit, condition, context),
    ...lowHoldTruth(condition),
    ...highHoldTruth(unit, condition, context),
    ...letGoTruth(unit, condition, context),
  };
}

/** Of a piston that sticks, or a check that lets boost by, the line is none of the balance's. */
function lineTruth(unit: InLineUnit, condition: PlantCondition): Truth {
  if (condition.controlStick > 0 || condition.checkSlip > 0 || condition.bypassBlocked) return {};
  return {
    'boost-slope': unit.a + unit.b,
    'cut-in-pressure': (unit.b * unit.valveOpening + unit.f) / (unit.a + unit.b - 1),
    // A leak holds the control chamber off before the valve moves.
    ...(condition.atmosphereValveLeak > 0 ? {} : { 'valve-opening-pressure': unit.valveOpening }),
  };
}

function fullPullTruth(unit: InLineUnit, condition: PlantCondition, { ambient }: Context): Truth {
  if (!balances(condition) || !breathes(condition)) return {};
  const vacuum = benchVacuum(unit, ambient);
  const runOut = runOutInput(unit, vacuum);
  const { referenceInput: reference, a, b } = unit;
  return {
    'run-out-input': runOut,
    'run-out-output': outputAt(unit, runOut, vacuum),
    'boost-ratio': outputAt(unit, reference, vacuum) / reference,
    // What comes back slowly lags like a wider hysteresis.
    ...(condition.releaseLag > settles ? {} : { hysteresis: (wornHysteresis(unit, condition) * b) / (a + b) }),
    'control-remainder': 0,
  };
}

/** Held without vacuum input and output are one. */
function lowHoldTruth({ inputLeak, outputLeak, bypassBlocked }: PlantCondition): Truth {
  if (bypassBlocked) return {};
  return { 'low-pressure-hold: output-decay-rate': meanDecay(lowPressure, inputLeak + outputLeak, lowHoldSeconds) };
}

/** Held at full assist the boost slips back to the input, and both leak out. */
function highHoldTruth(unit: InLineUnit, condition: PlantCondition, context: Context): Truth {
  if (condition.bypassBlocked || condition.controlStick > 0) return {};
  const held = appliedInput(context);
  const boosted = outputAt(unit, held, benchVacuum(unit, context.ambient));
  const before = { input: held, output: held + (boosted - held) * (1 - condition.checkSlip) };
  let { input, output } = before;
  const dt = highHoldSeconds / holdSteps;
  for (let i = 0; i < holdSteps; i++) {
    const slip = condition.slaveBypass * (output - input);
    input += dt * (slip / 2 - condition.inputLeak * input);
    output += dt * (-slip - condition.outputLeak * output);
  }
  return {
    'pressure-hold: output-decay-rate': (before.output - output) / highHoldSeconds,
    'input-creep': (input - before.input) / highHoldSeconds,
  };
}

function letGoTruth(unit: InLineUnit, condition: PlantCondition, context: Context): Truth {
  // What comes back slowly is still falling when it is read.
  const residual: Truth = condition.releaseLag > settles ? {} : { 'residual-output': condition.residual };
  if (!balances(condition) || !breathes(condition)) return residual;
  const vacuum = benchVacuum(unit, context.ambient);
  const seconds = letGoSeconds({
    held: appliedInput(context),
    leverLag,
    balance: (input) => Math.max(outputAt(unit, input, vacuum, 'way-back'), condition.residual),
    lag: (input) =>
      chamberDifference(unit, input, vacuum) > assistOn
        ? Math.max(condition.releaseLag, condition.assistReleaseLag)
        : condition.releaseLag,
    gone: residualLimit(context).value,
  });
  return { ...residual, ...(seconds === null ? {} : { 'release-time': seconds }) };
}
