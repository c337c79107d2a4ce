import type { AnyKind } from '../contract/kind';
import { labelledSeed, type RandomSource } from '../physics/random';
import type { StepAnalysis } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import type { MeasuredStep, StepDefinition } from '../procedure/step-definition';
import type { Trace } from '../traces/trace';
import { runByItself } from './run-by-itself';
import { mountedFor } from './run-step';
import { ordinaryNoise, standInRig, type BenchNoise } from './stand-in-rig';

/** Samples a second are enough for a trace without noise; hours are watched as slowly as ever. */
const observedRate = 50;

/** So little noise that it moves no figure, and enough that no channel looks stuck. */
const hardlyAny = Object.fromEntries(
  Object.entries(ordinaryNoise).map(([id, noise]) => [id, noise / 50]),
) as unknown as BenchNoise;

const silent: RandomSource = { uniform: () => 0.5, normal: () => 0, snapshot: () => [], restore: () => undefined };

/** A unit as it stands on the bench: the unit itself, which may differ from its sheet by its scatter, and its condition. */
export interface Mounted {
  readonly unit: unknown;
  readonly condition: unknown;
}

/** Logs of mounted units: all steps that read one read the same. */
const logs = new WeakMap<Mounted, Trace>();

/** What sensors without error would log of a mounted unit that no bench runs; null where nothing writes one. */
function observedLog({ model }: AnyKind, mounted: Mounted): Trace | null {
  const before = logs.get(mounted);
  if (before) return before;
  const log = model.log?.(mounted.unit, mounted.condition, { seed: 1, sensors: 'right' });
  if (log) logs.set(mounted, log);
  return log ?? null;
}

/** What gauges without error would record of a step that is run by itself, or log where no bench runs it; null where neither is. */
export function observedTrace(
  kind: AnyKind,
  step: MeasuredStep<unknown>,
  context: StepContext<unknown>,
  mounted: Mounted,
): Trace | null {
  const { live } = step.feeds;
  if (!live) return observedLog(kind, mounted);
  const rig = standInRig({
    ...mountedFor(kind, step, context, mounted),
    instruments: context.instruments,
    trueGauges: true,
    benchSeed: 1,
    runSeed: labelledSeed(1, step.id),
    sampleRate: Math.min(Math.max(observedRate, step.feeds.log.leastRate ?? 0), live.rate ?? Infinity),
    noise: hardlyAny,
    pairError: 0,
  });
  return runByItself(rig, live.guide(context));
}

/**
 * What a step would find of a unit in a condition: the step is run by itself on gauges that show what is there, and analysed
 * as any other. `context.unit` is the unit as its sheet says. Null for a look, and for a step that neither a rig nor the
 * stand-in's instruments can do. Deterministic.
 */
export function observe(
  kind: AnyKind,
  step: StepDefinition<unknown>,
  context: StepContext<unknown>,
  mounted: Mounted,
): StepAnalysis | null {
  switch (step.kind) {
    case 'measured': {
      const trace = observedTrace(kind, step, context, mounted);
      return trace && step.analyse(trace, context);
    }
    case 'typed': {
      const shown = step.feeds.standIn?.({ ...context, unit: mounted.unit }, mounted.condition, silent);
      return shown ? step.feeds.dials.analyse(shown, context) : null;
    }
    case 'look':
      return null;
  }
}
