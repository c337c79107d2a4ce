import { commonDivisor } from './common-divisor';
import type { Samples } from './own-samples';
import { anyBends, differ } from './straight-between';

const { abs, min } = Math;

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
  const divisor = rows.slice(1).reduce((step, row, i) => commonDivisor(row - rows[i], step), 0);
  const multiples = (rows[n] - rows[0]) / divisor;
  return n > taken * multiples && divisor ** (1 - n) / (n - 1) < chance ? divisor : 1;
}

/** Rows at which a channel changes; none of one that mostly goes by single divisions, as a coarse one does on an even slope. */
function clearChanges({ value }: Samples): readonly number[] {
  const rows: number[] = [];
  for (let i = 1; i < value.length; i++) if (value[i] !== value[i - 1]) rows.push(i);
  const by = rows.map((i) => abs(value[i] - value[i - 1]));
  const smallest = by.reduce((least, each) => min(least, each), Infinity);
  return 2 * by.filter((each) => each >= divisions * smallest).length >= by.length ? rows : [];
}

/**
 * How many rows a log has to each sample of a column, where so few of them moved that its samples cannot be told from each other: all changes,
 * or all bends, lie a multiple of so many rows apart. 1 of a column that shows nothing of the kind.
 */
export function rowsToASample(samples: Samples): number {
  const { at, by } = anyBends(samples);
  return Math.max(inStep(clearChanges(samples)), by.length > 0 && differ(by) ? inStep(at) : 1);
}
