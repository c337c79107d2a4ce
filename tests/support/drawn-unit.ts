import type { AnyKind } from '@/core/contract/kind';
import { conditionWith } from '@/core/contract/model';
import { lookFinds } from '@/core/diagnosis/chances';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import type { StepContext } from '@/core/procedure/step-context';
import { liveFeed, type MeasuredStep, type StepDefinition } from '@/core/procedure/step-definition';
import { runByItself } from '@/core/rig/run-by-itself';
import { mountedFor } from '@/core/rig/run-step';
import { ordinaryNoise, standInRig } from '@/core/rig/stand-in-rig';

/** What is the matter with a drawn unit. */
export type DrawnFault =
  | { readonly kind: 'sound' }
  | { readonly kind: 'fault'; readonly fault: string; readonly severity: number }
  /** One of the ways in which sound units differ, far beyond what they do. */
  | { readonly kind: 'unlisted'; readonly scatter: string; readonly z: number };

export interface DrawnUnit {
  readonly truth: DrawnFault;
  readonly unit: unknown;
  readonly condition: unknown;
}

/** A unit of a sheet with a fault, off from its sheet as units are. Deterministic by the source. */
export function drawUnit(
  kind: AnyKind,
  context: StepContext<unknown>,
  truth: DrawnFault,
  random: RandomSource,
): DrawnUnit {
  const scattered = kind.model.scatter.reduce((unit: unknown, each) => {
    const z = truth.kind === 'unlisted' && truth.scatter === each.id ? truth.z : random.normal();
    return each.apply(unit, Math.max(-2.5, Math.min(2.5, z)) === z || truth.kind === 'unlisted' ? z : 0) as unknown;
  }, context.unit);
  const faults = truth.kind === 'fault' ? [{ id: truth.fault, severity: truth.severity }] : [];
  return { truth, unit: scattered, condition: conditionWith(kind.model, scattered, faults) };
}

/** Runs the steps of a plan on the noisy rig with a drawn unit mounted, and judges them. */
export function benchTest(
  kind: AnyKind,
  context: StepContext<unknown>,
  drawn: DrawnUnit,
  { seed, steps, rate }: { readonly seed: number; readonly steps: readonly string[]; readonly rate?: number },
): readonly StepEvaluation[] {
  const random = randomSource(labelledSeed(seed, 'looks'));
  const evidence = steps.flatMap((id): StepEvidence[] => {
    const step: StepDefinition<unknown> = kind.steps.find((each) => each.id === id)!;
    switch (step.kind) {
      case 'measured':
        return [{ kind: 'mixed', step: id, given: [{ analysed: (here) => step.analyse(traceOf(step, here), here) }] }];
      case 'typed': {
        const readings = step.feeds.standIn?.({ ...context, unit: drawn.unit }, drawn.condition, random);
        return readings ? [{ kind: 'mixed', step: id, given: [{ readings, standIn: true }] }] : [];
      }
      case 'look':
        return [{ kind: 'findings', step: id, findings: lookedAt(kind, step, drawn.truth, random) }];
    }
  });
  function traceOf(step: MeasuredStep<unknown>, here: StepContext<unknown>) {
    const rig = standInRig({
      ...mountedFor(kind, step, here, drawn),
      instruments: here.instruments,
      benchSeed: seed,
      runSeed: labelledSeed(seed, step.id),
      sampleRate: Math.min(rate ?? 100, liveFeed(step).rate ?? Infinity, 200),
      noise: ordinaryNoise,
      pairError: 0,
    });
    return runByItself(rig, liveFeed(step).guide(here));
  }
  const plan = kind.plans.find((each) => each.id === context.plan)!;
  return evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' }).steps;
}

/** What a technician finds at every point: what the fault shows there, most of the time. */
function lookedAt(
  kind: AnyKind,
  step: Extract<StepDefinition<unknown>, { kind: 'look' }>,
  truth: DrawnFault,
  random: RandomSource,
): Record<string, string> {
  const appearance =
    kind.model.faults.find((each) => truth.kind === 'fault' && each.id === truth.fault)?.appearance ?? {};
  const { points, options } = step.feeds.look;
  const inOrder = options.find((each) => each.effect === 'pass') ?? options[0];
  return Object.fromEntries(
    points.map((point) => {
      const shows = appearance[point.id];
      return [point.id, shows !== undefined && random.uniform() < lookFinds ? shows : inOrder.id];
    }),
  );
}
