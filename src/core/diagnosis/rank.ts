import type { AnyKind } from '../contract/kind';
import type { Prevalences } from '../contract/prevalence';
import type { HowOften } from '../contract/symptom';
import { chanceOfNoFault, chanceOfUnlisted, newPartsFail, weightOf } from './chances';
import type { Evidence } from './evidence';
import { faultsOf, hypothesisId, type Hypothesis } from './hypothesis';
import { layOut, type Finding, type LaidOut } from './laid-out';
import { likelihoodOf, type StateLikelihood } from './likelihood';
import type { SignatureTable } from './signature-table';
import { unlistedLikelihood } from './unlisted-likelihood';
import { unseenBy } from './unseen';
import { pairStates, statesOf, type State } from './states';

const { exp, log, max, sqrt, LN10 } = Math;

/** What one finding says for a hypothesis (above zero) or against it, against everything else that it could be. */
export interface Weighed {
  readonly finding: Finding;
  readonly decibans: number;
}

/** How likely one severity of a hypothesis is, given that it is the one. */
export interface SeverityShare {
  readonly severities: readonly number[];
  readonly share: number;
}

export interface Ranked {
  readonly hypothesis: Hypothesis;
  readonly probability: number;
  /** Empty where there is nothing to be severe. */
  readonly severities: readonly SeverityShare[];
  /** Every finding of the evidence, in the order of the plan, looks and the driver's words. */
  readonly weighed: readonly Weighed[];
}

export interface Ranking {
  /** Likeliest first; all of them, with what is in no list. */
  readonly ranked: readonly Ranked[];
  /** Two faults at once were tried, because none by itself explains what was found. */
  readonly pairsTried: boolean;
  /** What is left open, bits. */
  readonly entropy: number;
  /** Every state that is not as good as ruled out, with its share of all probability. */
  readonly states: readonly StateShare[];
}

/** A state and how likely it is. */
export interface StateShare {
  readonly state: State;
  readonly share: number;
}

/** Share of units with a fault that have two. */
const chanceOfTwo = 0.04;

/** Probability of something unlisted from which pairs are tried. */
const unexplained = 0.25;

/** Single faults whose pairs are tried. */
const pairedFaults = 8;

interface Tried {
  readonly hypothesis: Hypothesis;
  /** Log of prior times likelihood, all severities together. */
  readonly weight: number;
  readonly prior: number;
  readonly states: readonly { readonly state: State; readonly likelihood: StateLikelihood }[];
}

/** Prior probability of every fault of a kind, of those that a table knows. */
export function priorsOf(
  table: SignatureTable,
  prevalences: Prevalences,
  mended: readonly string[] = [],
): ReadonlyMap<string, number> {
  const faults = Object.keys(table.faults);
  const weights = faults.map(
    (fault) => weightOf[prevalences[fault] ?? 'ordinary'] * (mended.includes(fault) ? newPartsFail : 1),
  );
  const total = weights.reduce((sum, each) => sum + each, 0);
  const left = 1 - chanceOfNoFault - chanceOfUnlisted;
  return new Map(faults.map((fault, at) => [fault, (left * weights[at]) / total]));
}

function logSum(logs: readonly number[]): number {
  const peak = max(...logs);
  return peak + log(logs.reduce((sum, each) => sum + exp(each - peak), 0));
}

function tried(laid: LaidOut, states: readonly State[], prior: number): Tried {
  const all = states.map((state) => ({ state, likelihood: likelihoodOf(laid, state) }));
  const weight = log(prior) - log(states.length) + logSum(all.map(({ likelihood }) => likelihood.total));
  return { hypothesis: states[0].hypothesis, weight, prior, states: all };
}

function byHypothesis(states: readonly State[]): readonly (readonly State[])[] {
  const groups = new Map<string, State[]>();
  for (const state of states) {
    const id = hypothesisId(state.hypothesis);
    groups.set(id, [...(groups.get(id) ?? []), state]);
  }
  return [...groups.values()];
}

/**
 * Ranks what may be the matter with a unit: prior times the likelihood of everything that was found, severities integrated
 * out. Deterministic; nothing of it depends on who wrote the logs.
 */
export function rank(
  kind: AnyKind,
  table: SignatureTable,
  evidence: Evidence,
  prevalences: Prevalences = kind.prevalence,
  mended: readonly string[] = [],
): Ranking {
  const laid = layOut(kind, table, evidence, mended);
  const states = spokenOf(kind, table, evidence);
  const priors = priorsOf(table, prevalences, mended);
  const singles = byHypothesis(states).map((group) => {
    const [fault] = faultsOf(group[0].hypothesis);
    return tried(laid, group, fault === undefined ? chanceOfNoFault : (priors.get(fault) ?? 0));
  });
  const unlisted = triedUnlisted(laid, states[0]);
  const first = [...singles, unlisted];
  const pairsTried = sharesOf(first)[first.length - 1] > unexplained || leavesUnexplained(laid, first);
  const every = pairsTried ? [...first, ...triedPairs(laid, table, singles, priors)] : first;
  const all = evidence.allPassed ? noLikelierThanNothing(laid, every) : every;
  const shares = sharesOf(all);
  const decibans = weightsOf(laid, all);
  const ranked = all
    .map((each, at) => ({ each, share: shares[at], said: decibans[at] }))
    .toSorted((a, b) => b.share - a.share)
    .map(({ each, share, said }): Ranked => ({
      hypothesis: each.hypothesis,
      probability: share,
      severities: severitiesOf(each),
      weighed: laid.findings.map((finding, at) => ({ finding, decibans: said[at] })),
    }));
  const entropy = shares.reduce((sum, share) => (share > 0 ? sum - (share * log(share)) / Math.LN2 : sum), 0);
  return { ranked, pairsTried, entropy, states: stateShares(all, shares) };
}

const unseen = new WeakMap<SignatureTable, ReadonlySet<string>>();

/**
 * What the plan can tell of, and what the driver tells of: a fault that nothing of the plan shows gets every figure of it for nothing, and
 * is named apart.
 */
function spokenOf(kind: AnyKind, table: SignatureTable, { symptoms }: Evidence): readonly State[] {
  const apart = unseen.get(table) ?? new Set(unseenBy(kind, table));
  unseen.set(table, apart);
  const told = kind.symptoms.filter(({ id }) => symptoms?.includes(id));
  const isTold = (fault: string) => told.some(({ of }) => bringsIt.includes(of[fault] ?? 'rarely'));
  return statesOf(table).filter(({ hypothesis }) =>
    faultsOf(hypothesis).every((fault) => !apart.has(fault) || isTold(fault)),
  );
}

const bringsIt: readonly HowOften[] = ['always', 'usually', 'sometimes'];

/** Log likelihood of looks and words from which they speak for something against nothing at all. */
const speaks = Math.LN2;

/**
 * Where every step passed: all that neither a look nor the driver speaks for is together no likelier than that nothing is wrong. Limits
 * say what a unit may be; a leaning inside them is no finding.
 */
function noLikelierThanNothing(laid: LaidOut, all: readonly Tried[]): readonly Tried[] {
  const nothing = all.find(({ hypothesis }) => hypothesis.kind === 'no-fault');
  if (!nothing) return all;
  const other = [...laid.points, ...laid.symptoms].map(({ finding }) => finding);
  const said = (each: Tried) => other.reduce((sum, finding) => sum + ofFinding(each, finding), 0);
  const least = said(nothing) + speaks;
  const unsaid = new Set(all.filter((each) => each !== nothing && said(each) < least));
  if (unsaid.size === 0) return all;
  const over = max(0, logSum([...unsaid].map(({ weight }) => weight)) - nothing.weight);
  return all.map((each) => (unsaid.has(each) ? { ...each, weight: each.weight - over } : each));
}

/** Log likelihood by which another has to explain a finding better, for it to count as unexplained by the likeliest. */
const farBetter = 4.6;

/** Whether the likeliest leaves something unexplained that another would. */
function leavesUnexplained(laid: LaidOut, all: readonly Tried[]): boolean {
  const leader = all.reduce((best, each) => (each.weight > best.weight ? each : best));
  if (faultsOf(leader.hypothesis).length === 0) return false;
  return laid.findings.some(
    (finding, at) =>
      finding.kind === 'step' &&
      all.some(
        (each) => faultsOf(each.hypothesis).length > 0 && ofFinding(each, at) > ofFinding(leader, at) + farBetter,
      ),
  );
}

function sharesOf(all: readonly Tried[]): readonly number[] {
  const total = logSum(all.map((each) => each.weight));
  return all.map((each) => exp(each.weight - total));
}

function triedUnlisted(laid: LaidOut, sound: State): Tried {
  const likelihood = unlistedLikelihood(laid, sound);
  const hypothesis = { kind: 'not-in-this-list' } as const;
  const state = { ...sound, hypothesis };
  return {
    hypothesis,
    weight: log(chanceOfUnlisted) + likelihood.total,
    prior: chanceOfUnlisted,
    states: [{ state, likelihood }],
  };
}

function triedPairs(
  laid: LaidOut,
  table: SignatureTable,
  singles: readonly Tried[],
  priors: ReadonlyMap<string, number>,
): readonly Tried[] {
  const best = singles
    .filter((each) => each.hypothesis.kind === 'fault')
    .toSorted((a, b) => b.weight - a.weight)
    .slice(0, pairedFaults)
    .flatMap((each) => faultsOf(each.hypothesis));
  const pairs = best.flatMap((one, at) => best.slice(at + 1).map((other) => [one, other] as const));
  const faulty = 1 - chanceOfNoFault - chanceOfUnlisted;
  return pairs.map((pair) => {
    const [a, b] = pair.map((fault) => (priors.get(fault) ?? 0) / faulty);
    return tried(laid, pairStates(table, pair), 2 * a * b * chanceOfTwo * faulty);
  });
}

/** States below this share are as good as ruled out. */
const ruledOut = 1e-4;

function stateShares(all: readonly Tried[], shares: readonly number[]): readonly StateShare[] {
  return all.flatMap((each, at) => {
    const total = logSum(each.states.map(({ likelihood }) => likelihood.total));
    return each.states
      .map(({ state, likelihood }) => ({ state, share: shares[at] * exp(likelihood.total - total) }))
      .filter(({ share }) => share > ruledOut);
  });
}

function severitiesOf({ states, hypothesis }: Tried): readonly SeverityShare[] {
  if (faultsOf(hypothesis).length === 0) return [];
  const total = logSum(states.map(({ likelihood }) => likelihood.total));
  return states.map(({ state, likelihood }) => ({
    severities: state.severities,
    share: exp(likelihood.total - total),
  }));
}

/** Log likelihood of one finding under a hypothesis, severities integrated out with what all else says of them. */
function ofFinding({ states }: Tried, finding: number): number {
  // What the other findings say of the severity is kept; this one's own say is taken out of it.
  const rest = states.map(({ likelihood }) => likelihood.total - likelihood.byFinding[finding]);
  return logSum(states.map(({ likelihood }) => likelihood.total)) - logSum(rest);
}

/**
 * Weight of evidence of every finding for every hypothesis, decibans, against all else by its prior
 * (Good, Probability and the Weighing of Evidence, 1950).
 */
function weightsOf(laid: LaidOut, all: readonly Tried[]): readonly Float64Array[] {
  const said = all.map((each) => Float64Array.from(laid.findings, (_, at) => ofFinding(each, at)));
  return said.map((mine, row) => {
    const others = all.flatMap((each, at) => (at === row ? [] : [{ prior: each.prior, said: said[at] }]));
    const total = others.reduce((sum, each) => sum + each.prior, 0);
    return mine.map((own, at) => {
      const against = logSum(others.map((each) => log(each.prior / total) + each.said[at]));
      return (10 * (own - against)) / LN10;
    });
  });
}

/** Mean and standard deviation of a severity; null where there is none. */
export function severityOf(
  { severities }: Pick<Ranked, 'severities'>,
  of = 0,
): { readonly mean: number; readonly standard: number } | null {
  if (severities.length === 0) return null;
  const mean = severities.reduce((sum, each) => sum + each.share * each.severities[of], 0);
  const square = severities.reduce((sum, each) => sum + each.share * (each.severities[of] - mean) ** 2, 0);
  return { mean, standard: sqrt(square) };
}
