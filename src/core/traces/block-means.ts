import { ownInterval } from './own-samples';
import { makeTrace, type Trace } from './trace';

/** Rows to a block at least: fewer are left as they are. */
const fewestRows = 2;

/** What a block makes of its rows: of what was measured the mean of those that are there, of a state what it was last. */
function blockOf(column: Float64Array, from: number, to: number, isMeasured: boolean): number {
  if (!isMeasured) return column[to - 1];
  let [sum, count] = [0, 0];
  for (let i = from; i < to; i++) {
    const value = column[i];
    if (value !== value) continue;
    sum += value;
    count++;
  }
  return count > 0 ? sum / count : Number.NaN;
}

/**
 * A trace of at most `rate` rows a second: the means of so many neighbouring rows, each at the mean of their times. What happens more
 * slowly by far is in them as it was, and noise is less. The very trace that was given where it has fewer than twice as many rows.
 * What was missing stays missing: a gap is longer than a block.
 */
export function blockMeans(trace: Trace, rate: number, isMeasured: (channel: string) => boolean): Trace {
  const { time, columns } = trace;
  const interval = ownInterval({ time });
  const rows = Math.floor(1 / (rate * interval) + 1e-6);
  if (!(rows >= fewestRows) || time.length < rows) return trace;
  const edges = edgesOf(time, rows, 1.5 * interval);
  const blocks = edges.length - 1;
  const means = (column: Float64Array, measured: boolean) =>
    Float64Array.from({ length: blocks }, (_, at) => blockOf(column, edges[at], edges[at + 1], measured));
  return makeTrace(
    means(time, true),
    Object.fromEntries(
      Object.entries(columns).map(([channel, column]) => [channel, means(column, isMeasured(channel))]),
    ),
  );
}

/** Rows at which blocks begin, and the end of the last: so many rows each, and none across a gap. */
function edgesOf(time: Float64Array, rows: number, gap: number): number[] {
  const edges = [0];
  for (let i = 1, begins = 0; i < time.length; i++) {
    if (i - begins < rows && time[i] - time[i - 1] <= gap) continue;
    edges.push(i);
    begins = i;
  }
  edges.push(time.length);
  return edges;
}
