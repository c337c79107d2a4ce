import type { Characteristic } from '../procedure/step-analysis';
import { random, type Estimate, type UncertaintyComponent, type UncertaintySource } from '../instruments/uncertainty';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';

/** What repeats of a step come to, and what keeps them from being one thing measured several times. */
export interface Combined {
  readonly characteristics: readonly Characteristic[];
  readonly doubts: readonly AnalysisProblem[];
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

/**
 * Judged value of repeats of a step: the mean of those that were measured. Random parts shrink with the
 * number of repeats (root sum of squares over n), systematic parts are shared and taken at their mean; scatter beyond
 * what the random parts explain is a component of its own (type A, JCGM 100, 4.2). Repeats that differ by more than they
 * may are a doubt. When no repeat was measured, the last result stands.
 */
export function combineRepeats(repeats: readonly (readonly Characteristic[])[]): Combined {
  const last = repeats[repeats.length - 1];
  if (repeats.length === 1) return { characteristics: last, doubts: [] };
  const doubts: AnalysisProblem[] = [];
  const characteristics = last.map(({ id }): Characteristic => {
    const all = repeats.flatMap((each) => each.find((other) => other.id === id) ?? []);
    // A run of another sensor says nothing of this one.
    const speaking = all.filter((each) => each.kind !== 'absent' || each.problem.code !== 'another-sensor');
    const measured = speaking.filter((each) => each.kind === 'measured');
    // A repeat that only found a bound contradicts a mean of the others: it stands until struck out.
    if (measured.length === 0 || measured.length !== speaking.length)
      return speaking[speaking.length - 1] ?? all[all.length - 1];
    if (measured.length === 1) return measured[0];
    const estimates = measured.map((each) => each.estimate);
    const by = largestDifference(estimates);
    if (by !== null) doubts.push({ code: 'repeats-differ', characteristic: id, by });
    return { kind: 'measured', id, estimate: meanOfRepeats(estimates) };
  });
  return { characteristics, doubts };
}

function meanOfRepeats(estimates: readonly Estimate[]): Estimate {
  const n = estimates.length;
  const value = estimates.reduce((sum, each) => sum + each.value, 0) / n;
  const components = estimates[n - 1].components.map((part, at): UncertaintyComponent => {
    const same = estimates.map((each) => each.components[at]?.standard ?? part.standard);
    const squares = same.reduce((sum, standard) => sum + standard ** 2, 0);
    return { ...part, standard: part.random ? Math.sqrt(squares) / n : Math.sqrt(squares / n) };
  });
  const explained = components.filter((part) => part.random).reduce((sum, part) => sum + part.standard ** 2, 0);
  const scatter = estimates.reduce((sum, each) => sum + (each.value - value) ** 2, 0) / (n - 1) / n;
  return { value, components: [...components, random('repeats', Math.sqrt(Math.max(0, scatter - explained)))] };
}

/** By how much the two furthest repeats differ, where that is more than they may; else null. */
function largestDifference(estimates: readonly Estimate[]): number | null {
  const own = (each: Estimate) =>
    each.components
      .filter((part) => part.random || ownToEach.includes(part.source))
      .reduce((sum, part) => sum + part.standard ** 2, 0);
  let largest: number | null = null;
  for (const [at, one] of estimates.entries())
    for (const other of estimates.slice(at + 1)) {
      const by = Math.abs(one.value - other.value);
      if (by > apart * Math.sqrt(own(one) + own(other)) && by > (largest ?? 0)) largest = by;
    }
  return largest;
}
