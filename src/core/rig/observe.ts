import type { AnyKind } from '../contract/kind';
import { labelledSeed, type RandomSource } from '../physics/random';
import type { Characteristic } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
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

/**
 * What a step would find of a unit in a condition: the step is run by itself on gauges that show what is there, and analysed
 * as any other. `context.unit` is the unit as its sheet says; `unit` is the one that is mounted, which may differ from it by
 * its scatter. Empty for a look, and for a step that neither a rig nor the stand-in's instruments can do. Deterministic.
 */
export function observe(
  kind: AnyKind,
  step: StepDefinition<unknown>,
  context: StepContext<unknown>,
  mounted: { readonly unit: unknown; readonly condition: unknown },
): readonly Characteristic[] {
  switch (step.kind) {
    case 'measured': {
      const { live } = step.feeds;
      if (!live) return [];
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
      return step.analyse(runByItself(rig, live.guide(context)), context).characteristics;
    }
    case 'typed': {
      const shown = step.feeds.standIn?.({ ...context, unit: mounted.unit }, mounted.condition, silent);
      return shown ? step.feeds.dials.analyse(shown, context).characteristics : [];
    }
    case 'look':
      return [];
  }
}
