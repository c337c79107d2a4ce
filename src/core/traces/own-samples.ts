import { evenlySpread } from './evenly-spread';
import type { Trace } from './trace';

const { abs, max, min } = Math;
const { isNaN } = Number;

/**
 * What one channel really sampled: its own times (s) and values (SI), missing samples left out and of samples that share a
 * time stamp only the first. A slow column, a gap or a run of NaN is fewer samples here, never a wrong one.
 */
export interface Samples {
  readonly time: Float64Array;
  readonly value: Float64Array;
}

const known = new WeakMap<Float64Array, { readonly time: Float64Array; readonly samples: Samples }>();

/** Own samples of a column; found once for as long as the column is there, for all who ask. */
export function ownSamples(trace: Trace, column: Float64Array): Samples {
  const before = known.get(column);
  if (before?.time === trace.time) return before.samples;
  const samples = sampledOf(trace, column);
  known.set(column, { time: trace.time, samples });
  return samples;
}

function sampledOf(trace: Trace, column: Float64Array): Samples {
  const time = new Float64Array(column.length);
  const value = new Float64Array(column.length);
  let count = 0;
  for (let i = 0; i < column.length; i++) {
    if (isNaN(column[i]) || (count > 0 && !(trace.time[i] > time[count - 1]))) continue;
    time[count] = trace.time[i];
    value[count++] = column[i];
  }
  return { time: time.subarray(0, count), value: value.subarray(0, count) };
}

/** Whether two columns are the same number in every sample. */
export function sameSamples(one: Samples, other: Samples): boolean {
  return one.value.length === other.value.length && one.value.every((value, i) => value === other.value[i]);
}

/** Index of the first sample at or after `time` (s); the number of samples where there is none. */
export function sampleAt({ time }: Pick<Samples, 'time'>, at: number): number {
  let low = 0;
  let high = time.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (time[middle] < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Samples from `from` to `to` (s, both included), sharing memory. */
export function samplesBetween(samples: Samples, from: number, to: number): Samples {
  const first = sampleAt(samples, from);
  let last = sampleAt(samples, to);
  if (last < samples.time.length && samples.time[last] <= to) last++;
  return { time: samples.time.subarray(first, last), value: samples.value.subarray(first, last) };
}

/** Median interval of own samples, s; NaN with fewer than two. */
export function ownInterval({ time }: Pick<Samples, 'time'>): number {
  if (time.length < 2) return Number.NaN;
  const intervals = evenlySpread(time.length - 1, (i) => time[i + 1] - time[i]);
  intervals.sort();
  return intervals[intervals.length >> 1];
}

/** Longest time (s) without a sample within `from` … `to`, ends included. */
export function longestGap({ time }: Pick<Samples, 'time'>, from: number, to: number): number {
  let longest = 0;
  let last = from;
  for (let i = sampleAt({ time }, from); i < time.length && time[i] <= to; i++) {
    longest = max(longest, time[i] - last);
    last = time[i];
  }
  return max(longest, to - last);
}

/**
 * Scatter of one sample about its neighbours, one sigma: median of |second differences|, so that an even slope does not
 * count. 0 for a quiet or coarsely divided channel. Of a long column no more than `most` differences are looked at, evenly spread.
 */
export function scatterOf({ value }: Pick<Samples, 'value'>, most?: number): number {
  if (value.length < 3) return 0;
  const second = evenlySpread(value.length - 2, (i) => abs(value[i + 2] - 2 * value[i + 1] + value[i]), most);
  second.sort();
  // A second difference of white noise has √6 times its deviation; the median of |x| of a normal deviate is 0.6745σ.
  return second[second.length >> 1] / 0.6745 / Math.sqrt(6);
}

/** Smallest step (SI) between two different neighbouring values: the division the channel was written with; 0 where it never changes. */
export function divisionOf({ value }: Pick<Samples, 'value'>): number {
  let smallest = Infinity;
  for (let i = 1; i < value.length; i++) {
    const step = abs(value[i] - value[i - 1]);
    // What is left of a decimal fraction in binary is no division.
    if (step > 1e-9 * max(abs(value[i]), 1)) smallest = min(smallest, step);
  }
  return Number.isFinite(smallest) ? smallest : 0;
}

/** Means of the samples in pieces of `width` (s) from the first on, each at the mean of its times; empty pieces are left out. */
export function binMeans({ time, value }: Samples, width: number): Samples {
  const times: number[] = [];
  const values: number[] = [];
  let [n, sumT, sumY] = [0, 0, 0];
  let edge = time.length > 0 ? time[0] + width : 0;
  const close = () => {
    if (n === 0) return;
    times.push(sumT / n);
    values.push(sumY / n);
    [n, sumT, sumY] = [0, 0, 0];
  };
  for (let i = 0; i < time.length; i++) {
    // Half a millionth of a piece: where pieces are as wide as the interval, rounding must not join two.
    if (time[i] > edge - width * 5e-7) {
      close();
      edge = time[i] + width;
    }
    n++;
    sumT += time[i];
    sumY += value[i];
  }
  close();
  return { time: Float64Array.from(times), value: Float64Array.from(values) };
}
