import type { Characteristic } from '../procedure/step-analysis';
import {
  effectiveFreedom,
  random,
  type Estimate,
  type UncertaintyComponent,
  type UncertaintySource,
} from '../instruments/uncertainty';
import { isFinding, type AnalysisProblem } from '../vocabulary/analysis-problem';
import type { CharacteristicId } from '../quantities/characteristics';

/** Repeats of a characteristic that are further apart than what each draws anew explains. */
export interface Differing {
  readonly characteristic: CharacteristicId;
  readonly problem: AnalysisProblem;
  /** What each repeat said by itself. */
  readonly each: readonly Characteristic[];
}

/** What repeats of a step come to, and what keeps them from being one thing measured several times. */
export interface Combined {
  readonly characteristics: readonly Characteristic[];
  readonly differing: readonly Differing[];
}

/** Sources that every repeat draws anew, though repeats of one needle position would not shrink them. */
const ownToEach: readonly UncertaintySource[] = [
  'resolution',
  'gauge-stability',
  'gas-heat',
  'timing',
  'counting',
  'force-match',
  'temperature',
];
/** Two repeats differ where they are further apart than this many standard uncertainties of what is their own. */
const apart = 3;

type Measured = Extract<Characteristic, { kind: 'measured' }>;
type Beyond = Extract<Characteristic, { kind: 'beyond' }>;

/**
 * Judged value of repeats of a step, the same in whatever order they were kept: the mean of those that were measured.
 * Random parts shrink with the number of repeats (root sum of squares over n), systematic parts are shared and taken at
 * their mean square, both by where they come from; scatter beyond what the random parts explain is a component of its own
 * (type A, JCGM 100, 4.2). A repeat that only found a bound stands where none found a number. Repeats that contradict each
 * other, as numbers, bounds, or by what a run ended in, differ. What could not be measured says nothing beside what could.
 */
export function combineRepeats(repeats: readonly (readonly Characteristic[])[]): Combined {
  const [first] = repeats;
  if (repeats.length === 1) return { characteristics: first, differing: [] };
  const ids = [...new Set(repeats.flatMap((each) => each.map(({ id }) => id)))];
  const all = ids.map((id) => combineOne(repeats.flatMap((each) => each.find((other) => other.id === id) ?? [])));
  return {
    characteristics: all.map(({ characteristic }) => characteristic),
    differing: all.flatMap(({ characteristic, problem, each }) =>
      problem ? [{ characteristic: characteristic.id, problem, each }] : [],
    ),
  };
}

interface One {
  readonly characteristic: Characteristic;
  readonly each: readonly Characteristic[];
  readonly problem: AnalysisProblem | null;
}

function combineOne(repeats: readonly Characteristic[]): One {
  // A run of another sensor says nothing of this one.
  const speaking = repeats.filter((each) => each.kind !== 'absent' || each.problem.code !== 'another-sensor');
  const each = speaking.length > 0 ? speaking : repeats;
  const measured = each.filter((one) => one.kind === 'measured').sort(byEstimate((one) => one.estimate));
  const beyond = each.filter((one) => one.kind === 'beyond').sort(byEstimate((one) => one.bound));
  const found = inOrder(each.filter((one) => one.kind === 'absent' && isFinding(one.problem)));
  const standing: Characteristic =
    measured.length > 0 ? meanOf(measured) : beyond.length > 0 ? narrowest(beyond) : (found[0] ?? inOrder(each)[0]);
  return { characteristic: standing, each, problem: differenceOf(standing.id, measured, beyond, found.length > 0) };
}

/** In an order of their own, whatever order they came in. */
function inOrder(repeats: readonly Characteristic[]): Characteristic[] {
  return [...repeats].sort((one, other) => (JSON.stringify(one) < JSON.stringify(other) ? -1 : 1));
}

const byEstimate =
  <T>(of: (each: T) => Estimate) =>
  (one: T, other: T) =>
    of(one).value - of(other).value || own(of(one)) - own(of(other));

function meanOf(measured: readonly Measured[]): Measured {
  return measured.length === 1
    ? measured[0]
    : { ...measured[0], estimate: meanOfRepeats(measured.map(({ estimate }) => estimate)) };
}

/** Of bounds in order of value, the one that says most: of those that speak of both sides, the lower one. */
function narrowest(beyond: readonly Beyond[]): Beyond {
  return beyond.findLast(({ side }) => side === 'above') ?? beyond[0];
}

function differenceOf(
  characteristic: CharacteristicId,
  measured: readonly Measured[],
  beyond: readonly Beyond[],
  found: boolean,
): AnalysisProblem | null {
  const by = Math.max(largestDifference(measured), largestContradiction(measured, beyond));
  if (by > 0) return { code: 'repeats-differ', characteristic, by };
  return found && measured.length + beyond.length > 0 ? { code: 'repeats-end-differently', characteristic } : null;
}

const keyOf = ({ source, random: isRandom }: UncertaintyComponent) => `${source} ${isRandom}`;

function meanOfRepeats(estimates: readonly Estimate[]): Estimate {
  const n = estimates.length;
  const value = estimates.reduce((sum, each) => sum + each.value, 0) / n;
  const parts = estimates.flatMap((each) => each.components);
  const components = [...new Set(parts.map(keyOf))].sort().map((key): UncertaintyComponent => {
    const same = parts.filter((part) => keyOf(part) === key);
    const squares = same.reduce((sum, { standard }) => sum + standard ** 2, 0);
    const [{ source, random: isRandom }] = same;
    const freedom = effectiveFreedom({ components: same });
    return {
      source,
      random: isRandom,
      standard: isRandom ? Math.sqrt(squares) / n : Math.sqrt(squares / n),
      ...(Number.isFinite(freedom) ? { freedom } : {}),
    };
  });
  const explained = components.filter((part) => part.random).reduce((sum, part) => sum + part.standard ** 2, 0);
  const scatter = estimates.reduce((sum, each) => sum + (each.value - value) ** 2, 0) / (n - 1) / n;
  return { value, components: [...components, random('repeats', Math.sqrt(Math.max(0, scatter - explained)), n - 1)] };
}

/** Variance of what a repeat draws anew. */
const own = (each: Estimate) =>
  each.components
    .filter((part) => part.random || ownToEach.includes(part.source))
    .reduce((sum, part) => sum + part.standard ** 2, 0);

/** By how much the two furthest repeats differ, where that is more than they may; else nothing. */
function largestDifference(measured: readonly Measured[]): number {
  let largest = 0;
  for (const [at, { estimate: one }] of measured.entries())
    for (const { estimate: other } of measured.slice(at + 1)) {
      const by = Math.abs(one.value - other.value);
      if (by > apart * Math.sqrt(own(one) + own(other))) largest = Math.max(largest, by);
    }
  return largest;
}

/** By how much a number lies on the wrong side of a bound, or one bound of another, where that is more than they may. */
function largestContradiction(measured: readonly Measured[], beyond: readonly Beyond[]): number {
  const above = beyond.filter(({ side }) => side === 'above').map(({ bound }) => bound);
  const below = beyond.filter(({ side }) => side === 'below').map(({ bound }) => bound);
  const numbers = measured.map(({ estimate }) => estimate);
  const pairs = [
    ...above.flatMap((low) => [...numbers, ...below].map((high) => [low, high] as const)),
    ...below.flatMap((high) => numbers.map((low) => [low, high] as const)),
  ];
  const wrong = pairs.flatMap(([low, high]) =>
    low.value - high.value > apart * Math.sqrt(own(low) + own(high)) ? [low.value - high.value] : [],
  );
  return Math.max(0, ...wrong);
}
