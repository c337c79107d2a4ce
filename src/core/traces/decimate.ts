import { makeTrace, type Trace } from './trace';

const { abs, ceil, max, min } = Math;
const { isNaN } = Number;

/**
 * Indices that draw `column` over `time` in about `buckets` columns of pixels: lowest and highest of
 * each bucket in the order they came, so that no peak is lost. Missing samples are skipped.
 */
export function minMaxIndices(column: ArrayLike<number>, buckets: number): number[] {
  const size = max(1, ceil(column.length / buckets));
  const out: number[] = [];
  for (let from = 0; from < column.length; from += size) {
    const to = min(column.length, from + size);
    let low = -1;
    let high = -1;
    for (let i = from; i < to; i++) {
      if (isNaN(column[i])) continue;
      if (low < 0 || column[i] < column[low]) low = i;
      if (high < 0 || column[i] > column[high]) high = i;
    }
    if (low < 0) continue;
    if (low === high) out.push(low);
    else out.push(min(low, high), max(low, high));
  }
  return out;
}

/**
 * Indices that draw the path (x, y): a point is kept once it lies `stepX` or `stepY` away from the last
 * kept one, so that the drawn line is never further than a step from any sample.
 */
export function pathIndices(x: ArrayLike<number>, y: ArrayLike<number>, stepX: number, stepY: number): number[] {
  const out: number[] = [];
  let last = -1;
  for (let i = 0; i < x.length; i++) {
    if (isNaN(x[i]) || isNaN(y[i])) continue;
    const far = last < 0 || abs(x[i] - x[last]) >= stepX || abs(y[i] - y[last]) >= stepY;
    if (!far && i !== x.length - 1) continue;
    out.push(i);
    last = i;
  }
  return out;
}

/**
 * A trace thinned for drawing, on one clock: every sample that is the lowest or highest of one of about `buckets` stretches of any of its
 * channels.
 */
export function thinned(trace: Trace, buckets: number): Trace {
  // Marked in their own order: a recorder thins beside its next samples, and has no time to sort.
  const wanted = new Uint8Array(trace.time.length);
  for (const column of Object.values(trace.columns)) for (const at of minMaxIndices(column, buckets)) wanted[at] = 1;
  const indices: number[] = [];
  for (let at = 0; at < wanted.length; at++) if (wanted[at] === 1) indices.push(at);
  const picked = (column: Float64Array) => Float64Array.from(indices, (at) => column[at]);
  return makeTrace(
    picked(trace.time),
    Object.fromEntries(Object.entries(trace.columns).map(([id, column]) => [id, picked(column)])),
  );
}
