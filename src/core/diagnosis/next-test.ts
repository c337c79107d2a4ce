import type { AnyKind } from '../contract/kind';
import { planOf } from '../contract/kind';
import { minutesOfSteps } from '../contract/one-log';
import { labelledSeed, randomSource, type RandomSource } from '../physics/random';
import { touchesHazard } from '../procedure/interlock';
import type { LookStep } from '../procedure/look-step';
import type { PlanId } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import { faultsOf, hypothesisId, type Hypothesis } from './hypothesis';
import { lookChance } from './look-chance';
import type { Ranking, StateShare } from './rank';
import type { Cell, FigureSignature, SignatureTable } from './signature-table';

const { exp, log2, max, sqrt, PI } = Math;

/** What one more step would be worth. */
export interface Worth {
  readonly step: string;
  /** Steps that have to be done before it, for safety, first first; empty where it is open. */
  readonly before: readonly string[];
  /** Bench time with all that has to be done before it, minutes. */
  readonly minutes: number;
  /** Expected drop of what is left open, bits. */
  readonly gain: number;
  /** What it would settle best. */
  readonly between: readonly [Hypothesis, Hypothesis];
}

/** What to do next. */
export type NextTest =
  | { readonly kind: 'test'; readonly worth: Worth; readonly others: readonly Worth[] }
  /** One is so likely that no more bench time is worth it. */
  | { readonly kind: 'certain'; readonly hypothesis: Hypothesis }
  /** Nothing points to a fault: what is left of the plan is done for the release, in its order. */
  | { readonly kind: 'finish-plan'; readonly step: string; readonly minutes: number }
  /** Nothing that is left would tell these apart: the unit has to be opened. */
  | {
      readonly kind: 'open-it';
      readonly between: readonly [Hypothesis, Hypothesis];
      readonly parts: readonly string[];
    };

/** What of a job decides which steps can still be done. */
export interface StepsLeft {
  readonly plan: PlanId;
  /** Steps that are done. */
  readonly done: ReadonlySet<string>;
  /** Those that a release can do without. */
  readonly optional?: ReadonlySet<string>;
  /** Step that opens one that is shut; null where it is open. */
  readonly firstOf: (step: string) => string | null;
}

/** What is done first to do a step. */
export const beginsWith = ({ before: [first], step }: Worth): string => first ?? step;

/** Probability from which one is certain enough to act on. */
export const certainEnough = 0.95;

/** Bits below which a step tells nothing worth its time. */
const leastGain = 0.03;

/** Outcomes that are drawn of every step. */
const draws = 48;

/** Minutes that a risk counts for: something under pressure, moving or charged is handled. */
const riskMinutes = 2;

/** Shares of probability that states keep apart for a draw. */
const worthDrawing = 0.002;

/** What the steps left would be worth, best first by bits a minute. Deterministic. */
export function worthOf(kind: AnyKind, table: SignatureTable, ranking: Ranking, left: StepsLeft): readonly Worth[] {
  const steps = planOf(kind, left.plan).steps.filter((id) => !left.done.has(id));
  const states = ranking.states.filter(({ share }) => share > worthDrawing);
  return steps
    .flatMap((id): Worth[] => {
      const step = kind.steps.find((each) => each.id === id);
      if (!step) return [];
      const before = stepsBefore(left, id);
      const minutes = minutesOfSteps(kind, left.plan, [...before, id], left.done);
      const { gain, between } = expectedGain(kind, step, table, states);
      return between ? [{ step: id, before, minutes, gain, between }] : [];
    })
    .toSorted((a, b) => rate(kind, b) - rate(kind, a));
}

/** The one to do next, or why there is none. */
export function nextTest(kind: AnyKind, table: SignatureTable, ranking: Ranking, left: StepsLeft): NextTest {
  const [likeliest, rival] = ranking.ranked;
  if (likeliest.probability >= certainEnough) return finished(kind, likeliest.hypothesis, left);
  const [worth, ...others] = worthOf(kind, table, ranking, left).filter((each) => each.gain > leastGain);
  if (worth) return { kind: 'test', worth, others };
  // A unit of which nothing speaks against being sound is not opened to be surer of it.
  if (likeliest.hypothesis.kind === 'no-fault') return finished(kind, likeliest.hypothesis, left);
  const between = [likeliest.hypothesis, rival.hypothesis] as const;
  const faults = between.flatMap(faultsOf);
  const parts = kind.parts.filter((part) => part.faults.some((fault) => faults.includes(fault)));
  return { kind: 'open-it', between, parts: parts.map((part) => part.id) };
}

/** What is left once one is certain enough: of a unit with nothing wrong, the rest of its plan. */
function finished(kind: AnyKind, hypothesis: Hypothesis, left: StepsLeft): NextTest {
  const open = planOf(kind, left.plan).steps.find((id) => !left.done.has(id) && !left.optional?.has(id));
  if (hypothesis.kind !== 'no-fault' || open === undefined) return { kind: 'certain', hypothesis };
  const [first = open] = stepsBefore(left, open);
  return { kind: 'finish-plan', step: first, minutes: minutesOfSteps(kind, left.plan, [first], left.done) };
}

function rate(kind: AnyKind, { gain, minutes, step }: Worth): number {
  const definition = kind.steps.find((each) => each.id === step);
  const risk = definition && touchesHazard(definition) ? riskMinutes : 0;
  return gain / max(0.5, minutes + risk);
}

/** Steps that have to be done before one, first first. */
function stepsBefore({ firstOf }: StepsLeft, id: string): readonly string[] {
  const before: string[] = [];
  for (let first = firstOf(id); first !== null && !before.includes(first); first = firstOf(first))
    before.unshift(first);
  return before;
}

function entropyOf(shares: Iterable<number>): number {
  let sum = 0;
  for (const share of shares) if (share > 0) sum -= share * log2(share);
  return sum;
}

/** Mean drop of entropy over outcomes drawn from what is believed now, and the two likeliest that it parts best. */
function expectedGain(
  kind: AnyKind,
  step: StepDefinition<unknown>,
  table: SignatureTable,
  states: readonly StateShare[],
): { readonly gain: number; readonly between: readonly [Hypothesis, Hypothesis] | null } {
  const groups = [...new Set(states.map(({ state }) => hypothesisId(state.hypothesis)))];
  const groupOf = states.map(({ state }) => groups.indexOf(hypothesisId(state.hypothesis)));
  const total = states.reduce((sum, { share }) => sum + share, 0);
  const before = new Float64Array(groups.length);
  states.forEach(({ share }, at) => (before[groupOf[at]] += share / total));
  const model = step.kind === 'look' ? lookModel(kind, step, states) : figureModel(step, table, states);
  if (!model || groups.length < 2) return { gain: 0, between: null };
  const random = randomSource(labelledSeed(7, step.id));
  // How much of each hypothesis, once it is the one, still goes to each other: what is least mixed up is settled best.
  const taken = groups.map(() => new Float64Array(groups.length));
  let after = 0;
  const shares = new Float64Array(groups.length);
  for (let draw = 0; draw < draws; draw++) {
    const at = drawn(states, ((draw + 0.5) / draws) * total);
    const outcome = model.draw(at, random);
    shares.fill(0);
    let sum = 0;
    states.forEach(({ share }, other) => {
      const both = share * model.chance(other, outcome);
      shares[groupOf[other]] += both;
      sum += both;
    });
    if (sum <= 0) continue;
    for (let each = 0; each < shares.length; each++) {
      shares[each] /= sum;
      taken[groupOf[at]][each] += shares[each];
    }
    after += entropyOf(shares) / draws;
  }
  return { gain: max(0, entropyOf(before) - after), between: bestParted(states, groups, before, taken) };
}

function drawn(states: readonly StateShare[], upTo: number): number {
  let sum = 0;
  for (let at = 0; at < states.length; at++) {
    sum += states[at].share;
    if (sum >= upTo) return at;
  }
  return states.length - 1;
}

/** The two hypotheses of whose probability the step separates most. */
function bestParted(
  states: readonly StateShare[],
  groups: readonly string[],
  before: Float64Array,
  taken: readonly Float64Array[],
): readonly [Hypothesis, Hypothesis] | null {
  const hypothesis = (group: number) =>
    states.find(({ state }) => hypothesisId(state.hypothesis) === groups[group])!.state.hypothesis;
  let best: readonly [number, number] | null = null;
  let most = -1;
  for (let a = 0; a < groups.length; a++)
    for (let b = a + 1; b < groups.length; b++) {
      const [ofA, ofB] = [taken[a].reduce((s, x) => s + x, 0), taken[b].reduce((s, x) => s + x, 0)];
      const mixed =
        (ofA > 0 ? taken[a][b] / ofA : 0) / max(before[b], 1e-9) +
        (ofB > 0 ? taken[b][a] / ofB : 0) / max(before[a], 1e-9);
      const parted = before[a] * before[b] * max(0, 2 - mixed);
      if (parted > most) [best, most] = [[a, b], parted];
    }
  if (!best) return null;
  const [a, b] = before[best[0]] >= before[best[1]] ? best : [best[1], best[0]];
  return [hypothesis(a), hypothesis(b)];
}

/** What a step may come to: a number for each figure or point; NaN where nothing is found. */
interface OutcomeModel {
  readonly draw: (state: number, random: RandomSource) => Float64Array;
  readonly chance: (state: number, outcome: Float64Array) => number;
}

/** Outcomes that are no value: known to lie above, below, or nothing found. */
const [aboveIt, belowIt] = [Infinity, -Infinity];

/** Floor of every chance: a step may go wrong. */
const floor = 0.02;

/** Doubt of the model in what a fault moves a figure by, as in the ranking. */
const doubt = 0.2;

function figureModel(
  step: StepDefinition<unknown>,
  table: SignatureTable,
  states: readonly StateShare[],
): OutcomeModel | null {
  const figures = table.figures.flatMap((figure, at) => (figure.step === step.id ? [{ figure, at }] : []));
  if (figures.length === 0) return null;
  const cells = states.map(({ state }) => figures.map(({ at }) => state.cells[at]));
  const widths = cells.map((row) => row.map((cell, at) => widthOf(cell, figures[at].figure)));
  return {
    draw: (state, random) =>
      Float64Array.from(cells[state], (cell, at) => {
        const kind = random.uniform();
        if (kind < cell.measured) return cell.at + widths[state][at] * random.normal();
        if (kind < cell.measured + cell.above) return aboveIt;
        return kind < cell.measured + cell.above + cell.below ? belowIt : Number.NaN;
      }),
    chance: (state, outcome) => {
      let product = 1;
      for (let at = 0; at < outcome.length; at++)
        product *= outcomeChance(cells[state][at], widths[state][at], outcome[at]);
      return product;
    },
  };
}

function widthOf(cell: Cell, { sound, standard, scatter }: FigureSignature): number {
  const differ = scatter.reduce((sum, each) => sum + each * each, 0);
  return max(0.02, sqrt(standard ** 2 + cell.spread ** 2 + differ + (doubt * (cell.at - sound.at)) ** 2));
}

function outcomeChance(cell: Cell, width: number, value: number): number {
  if (Number.isNaN(value)) return floor + max(0, 1 - cell.measured - cell.above - cell.below);
  if (value === aboveIt) return floor + cell.above;
  if (value === belowIt) return floor + cell.below;
  const off = (value - cell.at) / width;
  return floor * 0.1 + (cell.measured * exp(-(off * off) / 2)) / (width * sqrt(2 * PI));
}

/** Points of a look that some likely fault shows at; what one would see is in order, or what the fault looks like. */
function lookModel(kind: AnyKind, step: LookStep, states: readonly StateShare[]): OutcomeModel | null {
  const { points, options } = step.feeds.look;
  const shownBy = states.map(({ state }) => appearances(state.hypothesis));
  function appearances(hypothesis: Hypothesis): readonly number[] {
    return points.map((point) => {
      const shown = looksOf(hypothesis, point.id);
      return options.findIndex((option) => option.id === shown);
    });
  }
  function looksOf(hypothesis: Hypothesis, point: string): string | undefined {
    const faults = faultsOf(hypothesis);
    return kind.model.faults.find((fault) => faults.includes(fault.id) && point in fault.appearance)?.appearance[point];
  }
  if (!shownBy.some((row) => row.some((each) => each >= 0))) return null;
  // Row 0: nothing is wrong there; below it, what is shown.
  const chances = [undefined, ...options].map((shown) => options.map(({ id }) => lookChance(options, id, shown?.id)));
  const chanceAt = (shown: number, seen: number) => chances[shown + 1][seen];
  const drawAt = (shown: number, random: RandomSource): number => {
    let left = random.uniform();
    const seen = options.findIndex((_, at) => (left -= chanceAt(shown, at)) < 0);
    return seen < 0 ? 0 : seen;
  };
  return {
    draw: (state, random) => Float64Array.from(shownBy[state], (shown) => drawAt(shown, random)),
    chance: (state, outcome) => outcome.reduce((product, seen, at) => product * chanceAt(shownBy[state][at], seen), 1),
  };
}
