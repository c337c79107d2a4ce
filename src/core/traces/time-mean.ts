import type { Samples } from './own-samples';

/** A gap longer than this (s) and than so many of its own intervals is not bridged. */
const longestBridge = 0.5;
const bridgedIntervals = 5;

/** Mean interval of a channel, s; Infinity with fewer than two samples. */
export function meanInterval({ time }: Pick<Samples, 'time'>): number {
  return time.length < 2 ? Infinity : (time[time.length - 1] - time[0]) / (time.length - 1);
}

/** Longest gap (s) of a channel that is bridged: beyond it nobody knows what happened. */
export function longestBridged(samples: Pick<Samples, 'time'>): number {
  return bridgedAt(meanInterval(samples));
}

/** The same of a channel that is sampled so far apart, s. */
export function bridgedAt(interval: number): number {
  return Math.max(longestBridge, Number.isFinite(interval) ? bridgedIntervals * interval : 0);
}

/** A channel's integral over time, so that the mean of any window is two look-ups. */
export interface Integrated {
  /** Mean over [from, to] s, straight between samples; NaN where less than half of the window was recorded. */
  readonly mean: (from: number, to: number) => number;
}

/** Integral of a channel that runs straight between its own samples; what lies in a gap is left out. */
export function integrated({ time, value }: Samples): Integrated {
  const n = time.length;
  const area = new Float64Array(n);
  const covered = new Float64Array(n);
  const bridge = longestBridged({ time });
  for (let i = 1; i < n; i++) {
    const dt = time[i] - time[i - 1];
    const counts = dt <= bridge ? dt : 0;
    area[i] = area[i - 1] + (counts * (value[i] + value[i - 1])) / 2;
    covered[i] = covered[i - 1] + counts;
  }
  /** Integral and recorded time up to `at`. */
  const upTo = (at: number): readonly [number, number] => {
    if (n === 0 || at <= time[0]) return [0, 0];
    if (at >= time[n - 1]) return [area[n - 1], covered[n - 1]];
    let [low, high] = [0, n - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (time[middle] <= at) low = middle;
      else high = middle;
    }
    const dt = time[high] - time[low];
    if (dt > bridge) return [area[low], covered[low]];
    const part = at - time[low];
    const here = value[low] + ((value[high] - value[low]) * part) / dt;
    return [area[low] + (part * (value[low] + here)) / 2, covered[low] + part];
  };
  return {
    mean(from, to) {
      const [before, recordedBefore] = upTo(from);
      const [after, recordedAfter] = upTo(to);
      const recorded = recordedAfter - recordedBefore;
      return recorded >= (to - from) / 2 && recorded > 0 ? (after - before) / recorded : Number.NaN;
    },
  };
}

/** The window of `length` s with the largest mean, begun at one of the samples; null where no window was recorded. */
export function largestWindow(
  samples: Samples,
  length: number,
): { readonly from: number; readonly mean: number } | null {
  const { mean } = integrated(samples);
  let best: { from: number; mean: number } | null = null;
  const last = samples.time[samples.time.length - 1] - length;
  for (const from of samples.time) {
    if (from > last + 1e-9) break;
    const here = mean(from, from + length);
    if (!Number.isNaN(here) && (best === null || here > best.mean)) best = { from, mean: here };
  }
  return best;
}
