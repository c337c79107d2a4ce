import type { AnyKind } from '@/core/contract/kind';
import { conditionWith } from '@/core/contract/model';
import { lookFinds, lookFindsAnyway } from '@/core/diagnosis/chances';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import type { StepContext } from '@/core/procedure/step-context';
import { liveFeed, type MeasuredStep, type StepDefinition } from '@/core/procedure/step-definition';
import { leverByItself } from '@/core/procedure/guide';
import { runByItself, type Hand } from '@/core/rig/run-by-itself';
import { mountedFor } from '@/core/rig/run-step';
import { ordinaryNoise, standInRig } from '@/core/rig/stand-in-rig';
import type { Trace } from '@/core/traces/trace';
import { studyRate } from './study-rate';
import { dice, type Dice } from './second-writer/logger';
import { writtenAgain } from './second-writer/written-again';

/** What is the matter with a drawn unit. */
export type DrawnFault =
  | { readonly kind: 'sound' }
  | { readonly kind: 'fault'; readonly fault: string; readonly severity: number }
  /** Something that no fault of the list does. */
  | { readonly kind: 'unlisted' };

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
    const z = random.normal();
    return each.apply(unit, Math.abs(z) <= 2.5 ? z : 0) as unknown;
  }, context.unit);
  const faults = truth.kind === 'fault' ? [{ id: truth.fault, severity: truth.severity }] : [];
  return { truth, unit: scattered, condition: conditionWith(kind.model, scattered, faults) };
}

/** Who records: the rig with its ordinary noise, or other tools and hands, of which the rig knows nothing. */
export type Writer = 'rig' | 'another';

/** Of a bench whose gauges show what is there. */
const hardlyAny = Object.fromEntries(
  Object.entries(ordinaryNoise).map(([id, noise]) => [id, noise / 100]),
) as unknown as typeof ordinaryNoise;

/** A hand that is neither even nor as quick as the rig's own. */
function unsteady(luck: Dice): Hand {
  const [wobble, beat, phase] = [luck.between(0, 0.012), luck.between(0.3, 1.2), luck.between(0, 6)];
  return {
    lever: (phases, state) =>
      leverByItself(phases, state) * (1 + wobble * Math.sin(phase + 2 * Math.PI * beat * state.elapsed)),
    longest: 3 * 3600,
  };
}

/** Runs the steps of a plan on the noisy rig with a drawn unit mounted, and judges them. */
export function benchTest(
  kind: AnyKind,
  context: StepContext<unknown>,
  drawn: DrawnUnit,
  { seed, steps, writer }: { readonly seed: number; readonly steps: readonly string[]; readonly writer: Writer },
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
  // One log is read by every step that reads one.
  let drive: Trace | null = null;
  function logOf(here: StepContext<unknown>): Trace {
    const { log } = kind.model;
    if (!log) throw new Error(`nothing records a ${kind.family}`);
    const of = (sensors: 'ordinary' | 'right') => log(drawn.unit, drawn.condition, { seed, sensors });
    if (writer === 'rig') return of('ordinary');
    return writtenAgain(of('right'), here.instruments, {}, dice(labelledSeed(seed, 'log again')));
  }
  function traceOf(step: MeasuredStep<unknown>, here: StepContext<unknown>) {
    if (!step.feeds.live) return (drive ??= logOf(here));
    const live = liveFeed(step);
    const common = {
      ...mountedFor(kind, step, here, drawn),
      instruments: here.instruments,
      benchSeed: seed,
      runSeed: labelledSeed(seed, step.id),
      sampleRate: studyRate(step),
      pairError: 0,
    };
    if (writer === 'rig') return runByItself(standInRig({ ...common, noise: ordinaryNoise }), live.guide(here));
    const luck = dice(labelledSeed(seed, `${step.id} again`));
    const rig = standInRig({ ...common, noise: hardlyAny, trueGauges: true });
    return writtenAgain(runByItself(rig, live.guide(here), unsteady(luck)), here.instruments, step.feeds.log, luck);
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
  const noted = options.filter((each) => each.effect === 'note');
  return Object.fromEntries(
    points.map((point) => {
      const shows = appearance[point.id];
      if (shows !== undefined) return [point.id, random.uniform() < lookFinds ? shows : inOrder.id];
      // There is something to note now and then where nothing is wrong.
      const note = noted.length > 0 && random.uniform() < lookFindsAnyway.note;
      return [point.id, note ? noted[Math.floor(random.uniform() * noted.length)].id : inOrder.id];
    }),
  );
}
