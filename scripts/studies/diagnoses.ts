import { everyKind } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import { chanceOf } from '@/core/diagnosis/chances';
import { evidenceOf } from '@/core/diagnosis/evidence';
import { hypothesisId } from '@/core/diagnosis/hypothesis';
import { extentOf, unseenBy } from '@/core/diagnosis/ledger';
import { nextTest } from '@/core/diagnosis/next-test';
import { rank, type Ranking } from '@/core/diagnosis/rank';
import { cellsAt } from '@/core/diagnosis/states';
import type { SignatureTable } from '@/core/diagnosis/signature-table';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import { conditionWith } from '@/core/contract/model';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import { lockOf } from '@/core/procedure/interlock';
import type { StepContext } from '@/core/procedure/step-context';
import { benchTest, drawUnit, type DrawnFault, type Writer } from '../../tests/support/drawn-unit';
import { shownEvidence, tableOf } from '../../tests/support/tables';
import { variedBench } from '../../tests/support/varied-bench';

/*
 * Units of other sizes than those that the tables were made of, with faults of random severity, tested whole, ranked, and ranked again
 * step by step. Prints JSON:
 *   node --import tsx scripts/studies/diagnoses.ts <rig|another> <units of each fault> <first plan> <every>
 */

/** One unit and what the ranking made of it. */
export interface RankedUnit {
  readonly plan: string;
  readonly truth: DrawnFault['kind'];
  readonly fault: string;
  /** Whether any step or look of the plan shows the fault at all. */
  readonly seen: boolean;
  readonly severity: number | null;
  /** Place of the truth, from 1; of faults that the plan does not tell apart, that of the first of them. */
  readonly place: number;
  readonly head: string;
  readonly probability: number;
  /** The figure of the fault as it is and as it was found with its U; null where it has none. */
  readonly extent: {
    readonly true: number;
    readonly found: number;
    readonly expanded: number;
    readonly sound: number;
  } | null;
  /** Bench minutes until something is 90 % likely: in the plan's order, and following the next best test from the complaint. */
  readonly minutes: { readonly plan: number; readonly next: number } | null;
}

export interface PlanStudied {
  readonly plan: string;
  readonly unseen: readonly string[];
  /** Faults that the whole plan does not tell apart. */
  readonly twins: readonly (readonly [string, string])[];
  readonly units: readonly RankedUnit[];
}

/** Geometries are drawn by other seeds than those of the tables. */
const heldOut = 5000;
const geometries = 4;

/** Share of a rival from which two faults count as not told apart by a plan. */
const notToldApart = 0.25;

const certain = 0.9;

/** Pairs of faults that look alike to every step of a plan, by its table. */
function twinsOf(kind: AnyKind, table: SignatureTable): readonly (readonly [string, string])[] {
  const pairs = new Map<string, readonly [string, string]>();
  for (const fault of Object.keys(table.faults))
    for (const severity of [0.35, 0.65]) {
      const { ranked } = rank(kind, table, shownEvidence(table, cellsAt(table, fault, severity)));
      const own = ranked.find((each) => hypothesisId(each.hypothesis) === fault)?.probability ?? 0;
      for (const { hypothesis, probability } of ranked)
        if (hypothesis.kind === 'fault' && hypothesis.fault !== fault && probability > notToldApart && own > 0.02) {
          const pair = [fault, hypothesis.fault].sort() as [string, string];
          pairs.set(pair.join(), pair);
        }
    }
  return [...pairs.values()];
}

/** What a driver would say of a fault, by how often it brings each symptom. */
function complaintOf(kind: AnyKind, fault: string, random: RandomSource): readonly string[] {
  return kind.symptoms.flatMap((symptom) =>
    symptom.of[fault] && random.uniform() < chanceOf[symptom.of[fault]] ? [symptom.id] : [],
  );
}

interface Tested {
  readonly kind: AnyKind;
  readonly table: SignatureTable;
  readonly context: StepContext<unknown>;
  readonly steps: readonly StepEvaluation[];
}

function rankOf(
  { kind, table, context, steps }: Tested,
  symptoms: readonly string[],
  only?: ReadonlySet<string>,
): Ranking {
  const known = only ? steps.filter(({ step }) => only.has(step)) : steps;
  return rank(kind, table, evidenceOf(kind, table, known, context, symptoms));
}

/** Minutes until something is certain: the plan's order against the next best test's, each with its steps for safety. */
function minutesTo(tested: Tested, symptoms: readonly string[]): RankedUnit['minutes'] {
  const { kind, table, context, steps } = tested;
  const plan = kind.plans.find((each) => each.id === context.plan)!;
  const minutesOf = (id: string) => kind.steps.find((step) => step.id === id)!.minutes;
  const sure = (done: ReadonlySet<string>) => rankOf(tested, symptoms, done).ranked[0].probability >= certain;
  const inOrder = new Set<string>();
  let planned = 0;
  for (const id of plan.steps) {
    if (sure(inOrder)) break;
    inOrder.add(id);
    planned += minutesOf(id);
  }
  const done = new Set<string>();
  let led = 0;
  for (;;) {
    const recorded = steps.filter(({ step }) => done.has(step));
    const ranking = rankOf(tested, symptoms, done);
    if (ranking.ranked[0].probability >= certain) break;
    const firstOf = (id: string) => lockOf(kind.steps, plan.steps, id, recorded)?.step ?? null;
    const next = nextTest(kind, table, ranking, { plan: context.plan, done, firstOf });
    if (next.kind !== 'test') break;
    const step = next.worth.first ?? next.worth.step;
    if (done.has(step)) break;
    done.add(step);
    led += minutesOf(step);
  }
  // One that never becomes certain takes the whole plan either way.
  return { plan: planned, next: led };
}

function studied(
  tested: Tested,
  truth: DrawnFault,
  twins: PlanStudied['twins'],
  random: RandomSource,
  plan: string,
): RankedUnit {
  const { kind, table, context } = tested;
  const { unit } = context;
  const { ranked } = rankOf(tested, []);
  const id = truth.kind === 'fault' ? truth.fault : truth.kind === 'sound' ? 'no-fault' : 'not-in-this-list';
  const alike = [id, ...twins.flatMap(([a, b]) => (a === id ? [b] : b === id ? [a] : []))];
  const own = ranked.find((each) => hypothesisId(each.hypothesis) === id);
  const found = truth.kind === 'fault' && own ? extentOf(kind, unit, truth.fault, own.severities, 0) : null;
  const fault = kind.model.faults.find((each) => each.id === id);
  const seen = !unseenBy(kind, table).includes(id);
  return {
    plan,
    truth: truth.kind,
    fault: id,
    seen,
    severity: truth.kind === 'fault' ? truth.severity : null,
    place: 1 + ranked.findIndex((each) => alike.includes(hypothesisId(each.hypothesis))),
    head: hypothesisId(ranked[0].hypothesis),
    probability: ranked[0].probability,
    extent:
      found && fault?.extent.kind === 'figure' && truth.kind === 'fault'
        ? {
            true: fault.extent.of(conditionWith(kind.model, unit, [{ id, severity: truth.severity }]), unit),
            found: found.value,
            expanded: found.expanded,
            sound: found.sound,
          }
        : null,
    minutes: truth.kind === 'fault' && seen ? minutesTo(tested, complaintOf(kind, truth.fault, random)) : null,
  };
}

/** A unit that no fault of the list made: two of its steps are off, each figure in a way of its own. */
function madeStrange(steps: readonly StepEvaluation[], random: RandomSource): readonly StepEvaluation[] {
  const measured = steps.filter((step) => step.characteristics.some((each) => each.kind === 'measured'));
  const chosen = new Set([0, 1].map(() => measured[Math.floor(random.uniform() * measured.length)]?.step));
  return steps.map((step) => {
    if (!chosen.has(step.step)) return step;
    const characteristics = step.characteristics.map((each) => {
      if (each.kind !== 'measured') return each;
      const limit = step.checks.find((check) => check.characteristic === each.id)?.limit;
      const reach = Math.max(
        ...[limit?.low, limit?.high].flatMap((side) => (side == null ? [] : [Math.abs(side - each.estimate.value)])),
        0.2 * Math.abs(each.estimate.value),
      );
      const by = (random.uniform() < 0.5 ? -1 : 1) * (2 + 4 * random.uniform()) * reach;
      return { ...each, estimate: { ...each.estimate, value: each.estimate.value + by } };
    });
    return { ...step, characteristics };
  });
}

/** A drawn unit, tested whole. One that is to be sound and does not pass is none: another is drawn. */
function tested(
  kind: AnyKind,
  context: StepContext<unknown>,
  truth: DrawnFault,
  { seed, ...how }: { readonly seed: number; readonly steps: readonly string[]; readonly writer: Writer },
): readonly StepEvaluation[] {
  for (let more = 0; ; more++) {
    const own = labelledSeed(seed, String(more));
    const unit = drawUnit(kind, context, truth.kind === 'unlisted' ? { kind: 'sound' } : truth, randomSource(own));
    const found = benchTest(kind, context, unit, { seed: own, ...how });
    if (truth.kind !== 'sound' || more === 5 || found.every((step) => step.verdict !== 'fail')) return found;
  }
}

const everyPlan = everyKind.flatMap((kind) => kind.plans.map((plan) => ({ kind, plan: plan.id })));

function study(at: number, writer: Writer, perFault: number): PlanStudied {
  const { kind, plan } = everyPlan[at];
  const name = `${kind.sheet.example.name}, ${plan}`;
  const table = tableOf(kind, plan);
  const twins = twinsOf(kind, table);
  const random = randomSource(labelledSeed(heldOut, `${name} ${writer}`));
  const benches = Array.from({ length: geometries }, (_, g) => variedBench(kind, plan, heldOut + g));
  const { steps } = kind.plans.find((each) => each.id === plan)!;
  const whole = Math.floor(perFault);
  const drawnFaults: DrawnFault[] = kind.model.faults.flatMap((fault) =>
    Array.from({ length: whole + (random.uniform() < perFault - whole ? 1 : 0) }, () => ({
      kind: 'fault' as const,
      fault: fault.id,
      severity: 0.2 + 0.8 * random.uniform(),
    })),
  );
  const others = Math.max(1, Math.round(perFault * 6));
  const drawn: DrawnFault[] = [
    ...drawnFaults,
    ...Array.from(
      { length: 2 * others },
      (_, n): DrawnFault => ({ kind: n % 2 === 0 ? 'sound' : 'unlisted', scatter: '', z: 0 }) as DrawnFault,
    ),
  ];
  const units = drawn.map((truth, n) => {
    const { context } = benches[n % geometries];
    const seed = labelledSeed(heldOut + n, `${name} ${writer}`);
    const found = tested(kind, context, truth, { seed, steps, writer });
    const shown = truth.kind === 'unlisted' ? madeStrange(found, random) : found;
    return studied({ kind, table, context, steps: shown }, truth, twins, random, name);
  });
  return { plan: name, unseen: unseenBy(kind, table), twins, units };
}

const [writer, perFault, from, every] = process.argv.slice(2);
const chosen = everyPlan.map((_, at) => at).filter((at) => at % Number(every ?? 1) === Number(from ?? 0));
process.stdout.write(JSON.stringify(chosen.map((at) => study(at, writer as Writer, Number(perFault)))));
