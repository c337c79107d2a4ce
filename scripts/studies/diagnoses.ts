import { everyKind, kindNamed } from '@/core/families';
import type { AnyKind } from '@/core/contract/kind';
import { minutesOfSteps } from '@/core/contract/one-log';
import { chanceOf, chanceOfNoFault, chanceOfUnlisted } from '@/core/diagnosis/chances';
import { evidenceOf } from '@/core/diagnosis/evidence';
import { hypothesisId } from '@/core/diagnosis/hypothesis';
import { extentOf, type FaultExtent } from '@/core/diagnosis/ledger';
import { movesAnything, unseenBy } from '@/core/diagnosis/unseen';
import { beginsWith, nextTest } from '@/core/diagnosis/next-test';
import { priorsOf, rank, type Ranking } from '@/core/diagnosis/rank';
import { cellsAt, statesOf } from '@/core/diagnosis/states';
import type { SignatureTable } from '@/core/diagnosis/signature-table';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import { conditionWith } from '@/core/contract/model';
import { labelledSeed, randomSource, type RandomSource } from '@/core/physics/random';
import { lockOf } from '@/core/procedure/interlock';
import type { StepAnalysis } from '@/core/procedure/step-analysis';
import type { PlanId, StepContext } from '@/core/procedure/step-context';
import { benchTest, drawUnit, type DrawnFault, type Writer } from '../../tests/support/drawn-unit';
import { shownEvidence, tableOf } from '../../tests/support/tables';
import { testWholeUnit, wholeUnits } from '../../tests/support/second-writer/whole-units';
import type { WholeUnit } from '../../tests/support/second-writer/whole-units/whole-unit';
import { exampleBench, variedBench } from '../../tests/support/varied-bench';

/*
 * Units of other sizes than those that the tables were made of, with faults of random severity, tested whole, ranked, and ranked again
 * step by step. Prints JSON:
 *   node --import tsx scripts/studies/diagnoses.ts <rig|another|other-physics> <units of each fault> <first plan> <every>
 */

/** One unit and what the ranking made of it. */
export interface RankedUnit {
  readonly plan: string;
  readonly truth: DrawnFault['kind'];
  readonly fault: string;
  /** Whether any step or look of the plan shows the fault; what only a look shows, looks may miss. */
  readonly seen: 'shown' | 'not-shown' | 'overlooked';
  readonly severity: number | null;
  /** Place of the truth, from 1; of faults that the plan does not tell apart, that of the first of them. */
  readonly place: number;
  /** The same with a third of the steps not done, which ones by chance. */
  readonly placeWithout: number;
  readonly head: string;
  /** Of the leader, with what the plan does not tell from it. */
  readonly probability: number;
  /** How common such a unit is, by what the ranking begins with. */
  readonly prior: number;
  /** The figure of the fault as it is and as it was found with its U; null where it has none. */
  readonly extent: {
    readonly true: number;
    readonly tells: FaultExtent['tells'];
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
/** Many sizes where there are many units; a look at a few units is no reason to draw so many. */
const geometriesFor = (perFault: number) => (perFault < 2 ? 4 : 12);

/** Share of the steps that are left out, to see what a part of a plan tells. */
const leftOut = 1 / 3;

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
  // Where one log answers all there is no order.
  if (plan.oneLog) return null;
  const sure = (done: ReadonlySet<string>) => rankOf(tested, symptoms, done).ranked[0].probability >= certain;
  const inOrder = new Set<string>();
  let planned = 0;
  for (const id of plan.steps) {
    if (sure(inOrder)) break;
    planned += minutesOfSteps(kind, context.plan, [id], inOrder);
    inOrder.add(id);
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
    const step = beginsWith(next.worth);
    if (done.has(step)) break;
    led += minutesOfSteps(kind, context.plan, [step], done);
    done.add(step);
  }
  // One that never becomes certain takes the whole plan either way.
  return { plan: planned, next: led };
}

/** Whether anything of what was found could show what is the matter. */
function seenAs({ kind, table, steps }: Tested, truth: DrawnFault): RankedUnit['seen'] {
  if (truth.kind !== 'fault') return 'shown';
  if (unseenBy(kind, table).includes(truth.fault)) return 'not-shown';
  if (movesAnything(table, truth.fault)) return 'shown';
  const { appearance } = kind.model.faults.find((each) => each.id === truth.fault)!;
  const found = steps.some(({ findings }) =>
    Object.entries(appearance).some(([point, option]) => findings?.[point] === option),
  );
  return found ? 'shown' : 'overlooked';
}

function priorOf({ kind, table }: Tested, truth: DrawnFault): number {
  switch (truth.kind) {
    case 'sound':
      return chanceOfNoFault;
    case 'unlisted':
      return chanceOfUnlisted;
    case 'fault':
      return priorsOf(table, kind.prevalence).get(truth.fault) ?? 0;
  }
}

function studied(
  tested: Tested,
  truth: DrawnFault,
  twins: PlanStudied['twins'],
  random: RandomSource,
  plan: string,
): RankedUnit {
  const { kind, context } = tested;
  const { unit } = context;
  const whole = rankOf(tested, []);
  const { ranked } = whole;
  const id = truth.kind === 'fault' ? truth.fault : truth.kind === 'sound' ? 'no-fault' : 'not-in-this-list';
  const alikeTo = (one: string) => [one, ...twins.flatMap(([a, b]) => (a === one ? [b] : b === one ? [a] : []))];
  const alike = alikeTo(id);
  const head = hypothesisId(ranked[0].hypothesis);
  const some = new Set(tested.steps.filter(() => random.uniform() > leftOut).map(({ step }) => step));
  const placeIn = (ranking: Ranking) =>
    1 + ranking.ranked.findIndex((each) => alike.includes(hypothesisId(each.hypothesis)));
  const own = ranked.find((each) => hypothesisId(each.hypothesis) === id);
  const found = truth.kind === 'fault' && own ? extentOf(kind, unit, truth.fault, own.severities, 0) : null;
  const fault = kind.model.faults.find((each) => each.id === id);
  const seen = seenAs(tested, truth);
  return {
    plan,
    truth: truth.kind,
    fault: id,
    seen,
    severity: truth.kind === 'fault' ? truth.severity : null,
    place: placeIn(whole),
    placeWithout: placeIn(rankOf(tested, [], some)),
    head,
    probability: ranked
      .filter((each) => alikeTo(head).includes(hypothesisId(each.hypothesis)))
      .reduce((sum, each) => sum + each.probability, 0),
    prior: priorOf(tested, truth),
    extent:
      found && fault?.extent.kind === 'figure' && truth.kind === 'fault'
        ? {
            true: fault.extent.of(conditionWith(kind.model, unit, [{ id, severity: truth.severity }]), unit),
            tells: found.tells,
            found: found.value,
            expanded: found.expanded,
            sound: found.sound,
          }
        : null,
    minutes:
      truth.kind === 'fault' && seen === 'shown' ? minutesTo(tested, complaintOf(kind, truth.fault, random)) : null,
  };
}

/** An analysis with every figure off, each in a way of its own: far beyond its limit or back from it, or by a good share. */
function madeStrange(step: StepEvaluation, analysis: StepAnalysis, random: RandomSource): StepAnalysis {
  const characteristics = analysis.characteristics.map((each) => {
    if (each.kind !== 'measured') return each;
    const limit = step.checks.find((check) => check.characteristic === each.id)?.limit;
    const reach = Math.max(
      ...[limit?.low, limit?.high].flatMap((side) => (side == null ? [] : [Math.abs(side - each.estimate.value)])),
      0.2 * Math.abs(each.estimate.value),
    );
    const by = (random.uniform() < 0.5 ? -1 : 1) * (2 + 4 * random.uniform()) * reach;
    return { ...each, estimate: { ...each.estimate, value: each.estimate.value + by } };
  });
  return { ...analysis, characteristics };
}

/** What was found of a unit, but of two of its steps, which are off in ways that no fault of the list made; judged anew. */
function strangely(
  kind: AnyKind,
  context: StepContext<unknown>,
  steps: readonly StepEvaluation[],
  random: RandomSource,
): readonly StepEvaluation[] {
  const measured = steps.filter((step) => step.characteristics.some((each) => each.kind === 'measured'));
  const chosen = new Set([0, 1].map(() => measured[Math.floor(random.uniform() * measured.length)]?.step));
  const evidence = steps.flatMap((step): StepEvidence[] => {
    if (step.findings) return [{ kind: 'findings', step: step.step, findings: step.findings }];
    const given = step.analyses.map((analysis) => {
      const strange = chosen.has(step.step) ? madeStrange(step, analysis, random) : analysis;
      return { analysed: () => strange };
    });
    return given.length > 0 ? [{ kind: 'mixed', step: step.step, given }] : [];
  });
  const order = steps.map(({ step }) => step);
  return evaluateUnit(kind, order, evidence, { context, policy: 'guarded' }).steps;
}

const fails = (steps: readonly StepEvaluation[]) => steps.some((step) => step.verdict === 'fail');

/** Figures this near to what a fault does to them, as a share of that and at least, are what it does. */
const nearlyAsItDoes = 0.3;

/** Whether all that a step found is what some fault of the list does to it: then what is the matter is in the list, if twice. */
function inTheList(kind: AnyKind, table: SignatureTable, context: StepContext<unknown>, step: StepEvaluation): boolean {
  const { figures } = evidenceOf(kind, table, [step], context, []);
  return statesOf(table).some(({ hypothesis, cells }) =>
    figures.every(({ figure, seen }) => {
      if (hypothesis.kind === 'no-fault' || seen.kind === 'absent') return hypothesis.kind !== 'no-fault';
      const moved = Math.abs(cells[figure].at - table.figures[figure].sound.at);
      return Math.abs(seen.at - cells[figure].at) <= Math.max(nearlyAsItDoes, nearlyAsItDoes * moved);
    }),
  );
}

/** Units are drawn this often until one is what it is to be. */
const mostDraws = 6;

/** Tests a unit of which something is the matter on all steps of a plan. Something unlisted begins with a sound one. */
type TestUnit = (truth: DrawnFault, seed: number) => readonly StepEvaluation[];

/**
 * A drawn unit, tested whole. One that is to be sound and does not pass is none, and neither is one that is to be strange and
 * passes, or fails as faults of the list do: another is drawn.
 */
function tested(
  kind: AnyKind,
  context: StepContext<unknown>,
  truth: DrawnFault,
  { seed, test, table }: { readonly seed: number; readonly test: TestUnit; readonly table: SignatureTable },
): readonly StepEvaluation[] {
  for (let more = 1; ; more++) {
    const own = labelledSeed(seed, String(more));
    const random = randomSource(labelledSeed(own, 'strange'));
    const found = test(truth.kind === 'unlisted' ? { kind: 'sound' } : truth, own);
    if (truth.kind === 'fault' || more === mostDraws) return found;
    if (truth.kind === 'sound' && !fails(found)) return found;
    if (truth.kind !== 'unlisted') continue;
    // Of the same unit other steps may be off.
    for (let other = 0; other < mostDraws; other++) {
      const strange = strangely(kind, context, found, random);
      const failing = strange.filter((step) => step.verdict === 'fail');
      if (failing.some((step) => !inTheList(kind, table, context, step))) return strange;
    }
  }
}

/** Who records: the rig, other tools and hands on what the rig does, or another who has units of their own. */
type StudyWriter = Writer | 'other-physics';

/** Units of a plan: their benches, and the faults that they are given. */
interface Units {
  readonly kind: AnyKind;
  readonly plan: PlanId;
  readonly contexts: readonly StepContext<unknown>[];
  readonly faults: readonly string[];
  readonly testOn: (context: StepContext<unknown>) => TestUnit;
}

const ofRig = (kind: AnyKind, plan: PlanId, writer: Writer, geometries: number): Units => {
  const { steps } = kind.plans.find((each) => each.id === plan)!;
  return {
    kind,
    plan,
    contexts: Array.from({ length: geometries }, (_, g) => variedBench(kind, plan, heldOut + g).context),
    faults: kind.model.faults.map(({ id }) => id),
    testOn: (context) => (truth, seed) =>
      benchTest(kind, context, drawUnit(kind, context, truth, randomSource(seed)), { seed, steps, writer }),
  };
};

const ofOthers = (whole: WholeUnit): Units => {
  const kind = kindNamed(whole.family);
  // What no step of a plan sees is a sound unit to it, whoever made it: without such units those that seem sound would be sound too often.
  const unseen = unseenBy(kind, tableOf(kind, whole.plan)).filter((fault) => !whole.faults.includes(fault));
  return {
    kind,
    plan: whole.plan,
    contexts: [exampleBench(kind, whole.plan).context],
    faults: [...whole.faults, ...unseen],
    testOn: (context) => (truth, seed) => {
      const told = truth.kind === 'fault' && !unseen.includes(truth.fault);
      const fault = told ? { fault: truth.fault, severe: (truth.severity - 0.2) / 0.8 } : null;
      return testWholeUnit(whole, kind, context, { fault, seed });
    },
  };
};

function unitsBy(writer: StudyWriter, perFault: number): readonly (() => Units)[] {
  if (writer === 'other-physics') return wholeUnits.map((whole) => () => ofOthers(whole));
  return everyKind.flatMap((kind) =>
    kind.plans.map((plan) => () => ofRig(kind, plan.id, writer, geometriesFor(perFault))),
  );
}

function study({ kind, plan, contexts, faults, testOn }: Units, writer: StudyWriter, perFault: number): PlanStudied {
  const name = `${kind.sheet.example.name}, ${plan}`;
  const table = tableOf(kind, plan);
  const twins = twinsOf(kind, table);
  const random = randomSource(labelledSeed(heldOut, `${name} ${writer}`));
  const whole = Math.floor(perFault);
  const drawnFaults: DrawnFault[] = faults.flatMap((fault) =>
    Array.from({ length: whole + (random.uniform() < perFault - whole ? 1 : 0) }, () => ({
      kind: 'fault' as const,
      fault,
      severity: 0.2 + 0.8 * random.uniform(),
    })),
  );
  const others = Math.max(1, Math.round(perFault * 6));
  const drawn: DrawnFault[] = [
    ...drawnFaults,
    ...Array.from({ length: others }, (): DrawnFault[] => [{ kind: 'sound' }, { kind: 'unlisted' }]).flat(),
  ];
  const units = drawn.map((truth, n) => {
    // Neither what comes every other time nor what comes every fourth is to meet one size only.
    const context = contexts[(n + Math.floor(n / contexts.length)) % contexts.length];
    const seed = labelledSeed(heldOut + n, `${name} ${writer}`);
    const steps = tested(kind, context, truth, { seed, test: testOn(context), table });
    const unit = studied({ kind, table, context, steps }, truth, twins, random, name);
    // Another's severities are none of the family's.
    return writer === 'other-physics' ? { ...unit, extent: null } : unit;
  });
  return { plan: name, unseen: unseenBy(kind, table), twins, units };
}

const [writer, units, from, every] = process.argv.slice(2);
const [by, perFault] = [writer as StudyWriter, Number(units)];
const chosen = unitsBy(by, perFault).filter((_, at) => at % Number(every ?? 1) === Number(from ?? 0));
process.stdout.write(JSON.stringify(chosen.map((each) => study(each(), by, perFault))));
