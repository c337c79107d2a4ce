import type { AnyKind } from '../contract/kind';
import { conditionWith } from '../contract/model';
import type { Prevalences } from '../contract/prevalence';
import type { StepEvaluation } from '../judging/evaluate-unit';
import { coverageFactor } from '../instruments/coverage-factor';
import { lockOf } from '../procedure/interlock';
import type { StepContext } from '../procedure/step-context';
import type { ShownAs } from '../quantities/shown-as';
import { isBorneOut } from './borne-out';
import { evidenceOf } from './evidence';
import { faultsOf, hypothesisId, type Hypothesis } from './hypothesis';
import { nextTest, type NextTest } from './next-test';
import { rank, severityOf, type Ranked, type SeverityShare, type Weighed } from './rank';
import type { SignatureTable } from './signature-table';
import { unseenBy } from './unseen';

/** How much of a fault there is, as its figure; SI. */
export interface FaultExtent {
  readonly fault: string;
  readonly title: string;
  readonly as: ShownAs;
  /** Whether `value` is about what there is of it, or what there is more, or less, of: at the end of what was tried nobody knows how much. */
  readonly tells: 'about' | 'more-than' | 'less-than';
  readonly value: number;
  /** U, about 95 %; of what is only known to be more or less, of nothing. */
  readonly expanded: number;
  /** What a sound unit of the sheet has. */
  readonly sound: number;
}

/** One line of the ledger. */
export interface LedgerRow {
  readonly id: string;
  readonly hypothesis: Hypothesis;
  readonly probability: number;
  /** Of each fault that has a figure. */
  readonly extents: readonly FaultExtent[];
  /** Severity that is likeliest, of each of its faults. */
  readonly severities: readonly number[];
  readonly weighed: readonly Weighed[];
}

/** What may be the matter with a unit, what speaks for and against each, and what to do next. Plain data. */
export interface Ledger {
  /** Likeliest first. */
  readonly rows: readonly LedgerRow[];
  /** Two faults at once were tried, because none by itself explains what was found. */
  readonly pairsTried: boolean;
  readonly next: NextTest;
  /** Steps, points and words that spoke. */
  readonly findings: number;
  /** Faults that no step of the plan would show, whatever was done. */
  readonly unseen: readonly string[];
  /** How likely things are said to be was held against units of other physics on this plan. */
  readonly borneOut: boolean;
}

export interface LedgerAsked {
  readonly context: StepContext<unknown>;
  readonly steps: readonly StepEvaluation[];
  /** Of the kind's list; the driver's own words are for people. */
  readonly symptoms: readonly string[];
  /** What the workshop says of its faults, over the kind's own. */
  readonly prevalences?: Prevalences;
  /** Faults whose part was mended in this job: as likely as new parts fail. */
  readonly mended?: readonly string[];
  /** Step that opens one that is shut, where the job's runs say so; by the order of the plan where nothing is known of them. */
  readonly openers?: ReadonlyMap<string, string>;
}

/** Ledger of a unit from everything that is known of it. Deterministic. */
export function ledgerOf(kind: AnyKind, table: SignatureTable, asked: LedgerAsked): Ledger {
  const { context, steps, symptoms, prevalences = {}, mended = [] } = asked;
  const evidence = evidenceOf(kind, table, steps, context, symptoms);
  const ranking = rank(kind, table, evidence, { ...kind.prevalence, ...prevalences }, mended);
  const done = new Set(steps.flatMap(({ step, verdict }) => (verdict === 'not-run' ? [] : [step])));
  const optional = new Set(steps.flatMap((step) => (step.optional ? [step.step] : [])));
  return {
    rows: ranking.ranked.map((each) => rowOf(kind, context.unit, each)),
    pairsTried: ranking.pairsTried,
    next: nextTest(kind, table, ranking, { plan: context.plan, done, optional, firstOf: firstOf(kind, asked) }),
    findings: ranking.ranked[0].weighed.length,
    unseen: unseenBy(kind, table),
    borneOut: isBorneOut(kind, context.plan),
  };
}

function firstOf(kind: AnyKind, { steps, openers, context }: LedgerAsked) {
  const plan = kind.plans.find((each) => each.id === context.plan)?.steps ?? [];
  return (id: string): string | null => (openers ? openers.get(id) : lockOf(kind.steps, plan, id, steps)?.step) ?? null;
}

/** Faults below this probability, and after so many, are not worth a fit. */
const worthFitting = 0.05;
const mostFitted = 3;

/** The single faults that are likeliest: those whose severity is worth fitting to what was measured. */
export function leadingFaults({ rows }: Ledger): readonly string[] {
  return rows
    .flatMap(({ hypothesis, probability }) =>
      hypothesis.kind === 'fault' && probability >= worthFitting ? [hypothesis.fault] : [],
    )
    .slice(0, mostFitted);
}

function rowOf(kind: AnyKind, unit: unknown, ranked: Ranked): LedgerRow {
  const { hypothesis, probability, severities, weighed } = ranked;
  const faults = faultsOf(hypothesis);
  const likeliest = severities.toSorted((a, b) => b.share - a.share).at(0);
  return {
    id: hypothesisId(hypothesis),
    hypothesis,
    probability,
    extents: faults.flatMap((fault, at) => extentOf(kind, unit, fault, severities, at) ?? []),
    severities: likeliest?.severities ?? [],
    weighed,
  };
}

/** Spread of severities of which nothing is known but that they lie between the least and the most, and the share of it from which a figure is given. */
const unknownSpread = 0.26;
const narrowEnough = 0.75;

/** Whether anything that was measured says how severe it is; of one that shows the same at every severity nothing can. */
function narrowed(severities: readonly SeverityShare[], at: number): boolean {
  const found = severityOf({ severities }, at);
  return severities.length > 1 && found !== null && found.standard < narrowEnough * unknownSpread;
}

/** The figure of a fault over its severities, by how likely each is; null for one that is there or is not, and while nothing that was measured says how much of it there is. */
export function extentOf(
  kind: AnyKind,
  unit: unknown,
  id: string,
  severities: readonly SeverityShare[],
  at: number,
): FaultExtent | null {
  const fault = kind.model.faults.find((each) => each.id === id);
  if (fault?.extent.kind !== 'figure') return null;
  if (!narrowed(severities, at)) return null;
  const { title, as, of } = fault.extent;
  const figures = severities.map((each) => ({
    share: each.share,
    value: of(conditionWith(kind.model, unit, [{ id, severity: each.severities[at] }]), unit),
  }));
  const sound = of(kind.model.sound(unit), unit);
  const beyond = beyondTried(severities, at);
  if (beyond !== null) {
    const value = figures[beyond].value;
    const tells = value > sound ? 'more-than' : 'less-than';
    return { fault: id, title, as, tells, value, expanded: 0, sound };
  }
  const value = figures.reduce((sum, each) => sum + each.share * each.value, 0);
  const variance = figures.reduce((sum, each) => sum + each.share * (each.value - value) ** 2, 0);
  // Between two severities that were tried nothing is known better than the distance between them.
  const values = figures.map((each) => each.value);
  const apart = (Math.max(...values) - Math.min(...values)) / Math.max(1, values.length - 1);
  const expanded = coverageFactor * Math.sqrt(variance + apart ** 2 / 12);
  return { fault: id, title, as, tells: 'about', value, expanded, sound };
}

/** What is as severe as the last tenth of what was tried, more likely than not, may as well be more severe than all of it. */
const lastTenth = 0.1;
const atItsEnd = 0.5;
/** It is more severe than this share of what it may be. */
const surelyBelow = 0.05;

/** Place in the list of the severity that a fault is surely more severe than, where it lies at the end of what was tried; else null. */
function beyondTried(severities: readonly SeverityShare[], at: number): number | null {
  const of = (each: SeverityShare) => each.severities[at];
  const [least, most] = [Math.min(...severities.map(of)), Math.max(...severities.map(of))];
  const last = severities.filter((each) => of(each) >= most - lastTenth * (most - least));
  if (most === least || last.reduce((sum, each) => sum + each.share, 0) < atItsEnd) return null;
  let passed = 0;
  const inOrder = [...severities.keys()].toSorted((a, b) => of(severities[a]) - of(severities[b]));
  return inOrder.find((each) => (passed += severities[each].share) >= surelyBelow) ?? null;
}
