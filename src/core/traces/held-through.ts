import type { Samples } from './own-samples';
import { longestBridged, meanInterval } from './time-mean';

const { isNaN } = Number;

/**
 * A column of a trace's rows (s) that stands for what it was until it is written again, as far as anybody knows: a switch, a lamp, a target.
 * The very same column where no cell of it is empty.
 */
export function heldThrough(time: Float64Array, column: Float64Array, samples: Samples): Float64Array {
  if (samples.time.length === 0 || !column.some(isNaN)) return column;
  const bridge = longestBridged(samples);
  const interval = meanInterval(samples);
  let last = -1;
  return column.map((value, i) => {
    if (!isNaN(value)) last = i;
    // A log may begin between two samples.
    if (last < 0) return samples.time[0] - time[i] <= interval ? samples.value[0] : value;
    return time[i] - time[last] <= bridge ? column[last] : value;
  });
}
