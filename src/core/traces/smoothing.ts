const { abs, floor, max, min } = Math;
const { isNaN } = Number;

/**
 * Centred moving mean over `2·half + 1` samples, narrower at the ends; missing samples are left out
 * of the mean, and a window without any number stays NaN.
 */
export function movingMean(column: Float64Array, half: number): Float64Array {
  const out = new Float64Array(column.length);
  let sum = 0;
  let count = 0;
  let head = 0;
  let tail = 0;
  for (let i = 0; i < column.length; i++) {
    const to = min(column.length, i + half + 1);
    const from = max(0, i - half);
    for (; head < to; head++) {
      if (isNaN(column[head])) continue;
      sum += column[head];
      count++;
    }
    for (; tail < from; tail++) {
      if (isNaN(column[tail])) continue;
      sum -= column[tail];
      count--;
    }
    out[i] = count > 0 ? sum / count : Number.NaN;
  }
  return out;
}

/** Robust standard deviation of the sample-to-sample noise, from the median of first differences. Empty cells are no samples. */
export function noiseOf(cells: Float64Array): number {
  const column = cells.some(isNaN) ? cells.filter((value) => !isNaN(value)) : cells;
  const stride = max(1, floor(column.length / 4000));
  const differences = new Float64Array(floor(column.length / stride) + 1);
  let count = 0;
  for (let i = 0; i + 1 < column.length; i += stride) {
    differences[count++] = abs(column[i + 1] - column[i]);
  }
  if (count === 0) return 0;
  const sorted = differences.subarray(0, count).sort();
  // Median of |x| of a normal deviate is 0.6745σ; a difference of two has √2 times the deviation.
  return sorted[count >> 1] / 0.6745 / Math.SQRT2;
}
