import { home, rest, supplyOn } from '../../../toolboxes/vacuum/vacuum-unit-steps';
import type { GuidePhase } from '../../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { HoldWatch } from '../../../procedure/expected';
import { benchVacuum } from '../unit/bench-vacuum';
import { runOutInput } from '../unit/control-valve';
import type { RemoteUnit } from '../unit/remote-unit';

export { rest, supplyOn };

export type Context = StepContext<RemoteUnit>;

/** A step that both layouts have just so. */
export type Measured = MeasuredStep<RemoteUnit>;

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
    hold: 'watched',
    controls: { ...controls, 'input-shut': 1 },
    lever: { to: pressure, seconds: 0 },
    end: { kind: 'seconds', seconds },
  };
}

/** Both vacuum gauges on one tee, the unit shut off. */
export const compareVacuumGauges: GuidePhase = {
  instruction: { code: 'compare-vacuum-gauges', seconds: 5 },
  controls: { ...supplyOn, 'unit-shut': 1 },
  lever: home,
  end: { kind: 'seconds', seconds: 5 },
};

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

/** Share of the held pressure that may be lost per second, with where the figure comes from. */
export function decayShare(context: Context) {
  const percent = context.unit.spec.outputDecayMaxPercentPerMin;
  return limitFrom(
    { field: 'outputDecayMaxPercentPerMin', value: percent === undefined ? undefined : percent / 100 / 60 },
    { key: 'outputDecay', value: context.workshopLimits.outputDecay },
  );
}

/** The pressure that a layout's holds lock in and watch. */
export interface HeldPressure {
  readonly channel: 'output_pressure' | 'input_pressure';
  readonly decay: 'output-decay-rate' | 'input-decay-rate';
}

export function decayWatch(context: Context, seconds: number, { channel }: HeldPressure): HoldWatch {
  return { channel, seconds, limit: (start) => decayShare(context).value * start * seconds };
}

/** Most that may go of what was locked in; of a rate that was typed without it, of the least that a sound unit holds (Pa gauge). */
export function decayLimits(
  analysis: StepAnalysis,
  context: Context,
  { decay, least }: HeldPressure & { readonly least: number },
): Limit[] {
  const from = decayShare(context);
  return [atMost(decay, { ...from, value: from.value * (analysis.held ?? least) }, { expected: 0 })];
}

export function pairLimit(context: Context) {
  const percent = context.unit.spec.pairErrorMaxPercent;
  return limitFrom(
    { field: 'pairErrorMaxPercent', value: percent === undefined ? undefined : percent / 100 },
    { key: 'pairError', value: context.workshopLimits.pairError },
  );
}
