import { atMost, limitFrom } from '../common/limits';

export { home, rest, supplyOn } from '../common/vacuum-unit-steps';
import type { GuidePhase } from '../guide-phase';
import type { Limit } from '../limit';
import type { StepAnalysis } from '../step-analysis';
import type { StepContext } from '../step-context';
import type { HoldWatch, MeasuredStep } from '../step-definition';
import { benchVacuum } from './bench-vacuum';
import type { VacuumRemoteUnit } from './geometry';
import { runOutInput } from './quasi-static';

export type Context = StepContext<VacuumRemoteUnit>;

export type Measured = MeasuredStep<VacuumRemoteUnit>;

export function pullAndShut(pressure: number, seconds: number, controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'pull-to-hold', channel: 'input_pressure', level: pressure, seconds: 1 },
    controls,
    lever: { to: pressure, seconds },
    end: { kind: 'input-held', level: pressure, tolerance: Math.max(80_000, 0.08 * pressure), seconds: 1.2 },
  };
}

export function waitShut(pressure: number, seconds: number, controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'shut-input-and-wait', seconds },
    controls: { ...controls, 'input-shut': 1 },
    lever: { to: pressure, seconds: 0 },
    end: { kind: 'seconds', seconds },
  };
}

export function letBack(controls: GuidePhase['controls']): GuidePhase {
  return {
    instruction: { code: 'let-back-slowly', channel: 'input_pressure' },
    controls,
    lever: { to: 0, seconds: 2 },
    end: { kind: 'input-below', level: 30_000 },
  };
}

export function vacuumNow(context: Context): number {
  return benchVacuum(context.unit, context.ambient);
}

/** Input at which the applied steps are held: clear beyond run-out. */
export function appliedInput(context: Context): number {
  return runOutInput(context.unit, vacuumNow(context)) * 1.2;
}

export function releaseLimit(context: Context) {
  const { spec } = context.unit;
  return limitFrom(
    { field: 'residualMaxKpa', value: spec.residualMaxKpa === undefined ? undefined : spec.residualMaxKpa * 1e3 },
    { key: 'residual', value: context.workshopLimits.residual },
  );
}

/** Share of the held pressure that may be lost per second, with where the figure comes from. */
function decayShare(context: Context) {
  const percent = context.unit.spec.outputDecayMaxPercentPerMin;
  return limitFrom(
    { field: 'outputDecayMaxPercentPerMin', value: percent === undefined ? undefined : percent / 100 / 60 },
    { key: 'outputDecay', value: context.workshopLimits.outputDecay },
  );
}

/** A held output pressure as it is watched. */
export function decayWatch(context: Context, seconds: number): HoldWatch {
  return { channel: 'output_pressure', seconds, limit: (start) => decayShare(context).value * start * seconds };
}

export function decayLimits(analysis: StepAnalysis, context: Context): Limit[] {
  const from = decayShare(context);
  const held = analysis.held;
  return held === undefined
    ? []
    : [atMost('output-decay-rate', { ...from, value: from.value * held }, { expected: 0 })];
}

export function pairLimit(context: Context) {
  const percent = context.unit.spec.pairErrorMaxPercent;
  return limitFrom(
    { field: 'pairErrorMaxPercent', value: percent === undefined ? undefined : percent / 100 },
    { key: 'pairError', value: context.workshopLimits.pairError },
  );
}
