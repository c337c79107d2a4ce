import { commonDivisor } from './common-divisor';
import type { Samples } from './own-samples';
import { anyBends, differ } from './straight-between';

const { abs, max, min } = Math;

/** Distances that share a divisor as rarely as this by chance share one because a tool made them. */
const chance = 2e-3;
/** Fewer distances tell nothing, and nor do rows that leave out more of their multiples: a machine turns a lever at whole seconds too. */
const fewest = 3;
const taken = 0.5;
/** A coarse channel goes by single divisions, hardly ever by so many at once. */
const divisions = 3;

/** Common divisor of the distances between rows; 1 where it may be chance: so many whole numbers share k or more k^(1 − n)/(n − 1) of times. */
function inStep(rows: readonly number[]): number {
  const n = rows.length - 1;
  if (n < fewest) return 1;
  let divisor = 0;
  for (let i = 0; i < n && divisor !== 1; i++) divisor = commonDivisor(rows[i + 1] - rows[i], divisor);
  const multiples = (rows[n] - rows[0]) / divisor;
  return n > taken * multiples && divisor ** (1 - n) / (n - 1) < chance ? divisor : 1;
}

/** Rows at which a channel changes. */
function changesOf({ value }: Samples): readonly number[] {
  const rows: number[] = [];
  for (let i = 1; i < value.length; i++) if (value[i] !== value[i - 1]) rows.push(i);
  return rows;
}

/** Whether a channel mostly goes by more than single divisions, as a coarse one does not on an even slope. */
function goesClearly({ value }: Samples, rows: readonly number[]): boolean {
  const by = rows.map((i) => abs(value[i] - value[i - 1]));
  const smallest = by.reduce((least, each) => min(least, each), Infinity);
  return 2 * by.filter((each) => each >= divisions * smallest).length >= by.length;
}

/**
 * How many rows a log has to each sample of a column, where so few of them moved that its samples cannot be told from each other: all changes,
 * or all bends, lie a multiple of so many rows apart. 1 of a column that shows nothing of the kind.
 */
export function rowsToASample(samples: Samples): number {
  const changes = changesOf(samples);
  const again = inStep(changes);
  const { at, by } = anyBends(samples);
  const drawn = inStep(at);
  return max(again > 1 && goesClearly(samples, changes) ? again : 1, drawn > 1 && differ(by) ? drawn : 1);
}
