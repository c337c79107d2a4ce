import type { Truth } from '../../contract/model';
import type { StepContext } from '../../procedure/step-context';
import { letGoSeconds, settles } from '../../toolboxes/analysis/let-go';
import { masterPressure, pressureSlope } from '../../toolboxes/servo/servo-law';
import { leakDown, steadyLoss } from '../../toolboxes/vacuum/leak-down';
import { middleGap } from './steps/rod-gap-step';
import {
  appliedForce,
  residualLimit,
  rodForceAt,
  reserveLevel,
  vacuumLossSeconds,
  vacuumNow,
} from './steps/step-parts';
import { moderate } from './steps/vehicle-steps';
import { hoseVolume, rodLag } from './unit/bench-stand';
import type { InlineCondition } from './unit/faults';
import type { VacuumInlineUnit } from './unit/geometry';
import { outputAt, runOutForce } from './unit/quasi-static';
import { assistedCount, predictReserve, travelAt } from './unit/reserve-prediction';

type Context = StepContext<VacuumInlineUnit>;

/** Strokes that a reserve is followed for. */
const strokes = 8;

/** The unit as its condition makes it: what its servo law is made of. */
function worn(unit: VacuumInlineUnit, { servoFactor, jumpIn, springFactor }: InlineCondition): VacuumInlineUnit {
  return {
    ...unit,
    servoRatio: unit.servoRatio * servoFactor,
    jumpInForce: jumpIn ? unit.jumpInForce : 0,
    springForce: unit.springForce * springFactor,
  };
}

/** Whether the whole of the source's vacuum is on the diaphragm when the unit is held, and stays there. */
function keepsVacuum(condition: InlineCondition): boolean {
  const { checkLeak, diaphragmLeak, vacuumValveLeak, atmosphereValveLeak, checkArea, hoseWhileDrawing } = condition;
  return (
    checkLeak + diaphragmLeak + vacuumValveLeak + atmosphereValveLeak === 0 && checkArea === 1 && hoseWhileDrawing === 1
  );
}

/** What a perfect measurement would say of a pedal-operated vacuum unit. */
export function inlineTruth(sound: VacuumInlineUnit, condition: InlineCondition, context: Context): Truth {
  const unit = worn(sound, condition);
  const slow = condition.releaseLag > settles;
  const creeps = condition.masterBypass > 0;
  const gap = middleGap(context);
  return {
    // What cannot breathe lags behind the push. Without the disc the output leaves zero evenly, and of one that creeps the first of it is lost: there is no jump to be found.
    ...(condition.jumpIn && !creeps && condition.inlet === 1
      ? { 'cut-in-force': unit.cutInForce, 'jump-in-output': masterPressure(unit, unit.jumpInForce) }
      : {}),
    // One that creeps gives less the further it is pushed.
    ...(creeps ? {} : { 'force-slope': pressureSlope(unit, unit.servoRatio) }),
    // What the chambers cannot breathe through a blocked check valve pushes back.
    ...(condition.checkArea < 1 || creeps ? {} : { 'unassisted-slope': pressureSlope(unit, 1) }),
    // What comes back slowly lags behind the rod like a wider hysteresis, and is still falling when it is read.
    ...(slow ? {} : { 'residual-output': condition.residual }),
    ...(slow || creeps ? {} : { 'force-hysteresis': unit.hysteresis }),
    'rod-gap': gap + condition.rodGapShift,
    ...holdTruth(unit, condition, context),
    ...(creeps || !keepsVacuum(condition) ? {} : assistTruth(unit, condition, context)),
    ...(context.plan === 'vehicle' ? vehicleTruth(unit, condition, context) : letGoTruth(unit, condition, context)),
  };
}

/** Vacuum lost with the source shut off, at rest and applied, back through the check valve, and over a soak. */
function holdTruth(unit: VacuumInlineUnit, condition: InlineCondition, context: Context): Truth {
  const { ambient, airTemperature: temperature, benchVolume } = context;
  if (benchVolume === null) return {};
  const vacuum = vacuumNow(context) * (context.plan === 'vehicle' ? condition.sourceFactor : 1);
  const leaked = (volume: number, leak: number, over: number) =>
    leakDown({ volume: volume + benchVolume, vacuum, leak, ambient: ambient.pressure, temperature }, over);
  const seconds = vacuumLossSeconds(context);
  const { atmosphereValveLeak, checkLeak, diaphragmLeak, vacuumValveLeak } = condition;
  // Shut off, the hose as far as the source's valve goes with the shell.
  const atRest = leaked(unit.shellVolume + hoseVolume, atmosphereValveLeak, seconds);
  const applied = leaked(unit.appliedVolume + hoseVolume, diaphragmLeak + vacuumValveLeak, seconds);
  const back = leaked(unit.shellVolume, checkLeak, seconds);
  const soaked = leaked(unit.shellVolume, atmosphereValveLeak + checkLeak, context.workshopLimits.soakSeconds);
  return {
    ...(steadyLoss(atRest, vacuum)
      ? { 'vacuum-hold-rest: vacuum-loss': atRest.loss, 'vacuum-hold-rest: leak-flow': atRest.flow }
      : {}),
    ...(steadyLoss(applied, vacuum) && condition.inlet === 1
      ? { 'vacuum-hold-applied: vacuum-loss': applied.loss, 'vacuum-hold-applied: leak-flow': applied.flow }
      : {}),
    // What leaks in by another way leaves less for the valve to hold back.
    ...(steadyLoss(back, vacuum) && atmosphereValveLeak === 0 ? { 'reverse-leak': back.loss } : {}),
    ...(steadyLoss(soaked, vacuum) ? { 'soak-loss': soaked.loss } : {}),
  };
}

/** What the servo law gives with all of its vacuum: run-out, and the strokes of the reserve. */
function assistTruth(unit: VacuumInlineUnit, condition: InlineCondition, context: Context): Truth {
  const vacuum = vacuumNow(context) * (context.plan === 'vehicle' ? condition.sourceFactor : 1);
  const knee = runOutForce(unit, vacuum);
  const reserve = predictReserve(
    unit,
    {
      ambient: context.ambient.pressure,
      vacuum,
      benchVolume: context.benchVolume ?? 0,
      rodForce: rodForceAt(context, reserveLevel(context)),
    },
    strokes,
  );
  return {
    ...(knee === null || condition.inlet < 1
      ? {}
      : { 'run-out-force': knee, 'run-out-output': outputAt(unit, knee, vacuum) }),
    // Of a stroke's vacuum a part is heat of the air let in, which only motion settles.
    ...(condition.inlet < 1 ? {} : { 'reserve: assisted-applications': assistedCount(reserve) }),
  };
}

/** What is read under a foot: the source's vacuum, and what it does for a moderate force. */
function vehicleTruth(unit: VacuumInlineUnit, condition: InlineCondition, context: Context): Truth {
  if (!keepsVacuum(condition)) return {};
  const vacuum = vacuumNow(context) * condition.sourceFactor;
  const rod = rodForceAt(context, moderate);
  const [without, assisted] = [outputAt(unit, rod, 0), outputAt(unit, rod, vacuum)];
  return {
    'idle-vacuum': vacuum,
    'held-vacuum': vacuum,
    ...(condition.masterBypass > 0 || condition.inlet < 1
      ? {}
      : {
          'vehicle-ratio': assisted / without,
          'pedal-sink': (travelAt(context.unit, assisted) - travelAt(context.unit, without)) * unit.pedalRatio,
        }),
  };
}

function letGoTruth(unit: VacuumInlineUnit, condition: InlineCondition, context: Context): Truth {
  if (!keepsVacuum(condition) || condition.masterBypass > 0) return {};
  const vacuum = vacuumNow(context);
  const seconds = letGoSeconds({
    held: appliedForce(context),
    leverLag: rodLag,
    balance: (rod) => Math.max(outputAt(unit, rod, vacuum, 'way-back'), condition.residual),
    lag: () => condition.releaseLag,
    gone: residualLimit(context).value,
  });
  return seconds === null ? {} : { 'release-time': seconds };
}
