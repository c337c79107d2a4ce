import { meanOf, sampleInterval, type Trace } from './trace';
import { movingMean, noiseOf } from './smoothing';

const { abs, floor, max, min, round, sqrt } = Math;

/** A stretch in which the driving channel stood still. */
export interface Level {
  readonly from: number;
  readonly to: number;
  readonly mean: number;
}

/** Half window of the smoothing, s, and the shortest stretch that counts as a level, s. */
const halfWindow = 0.1;
const shortest = 0.8;

/**
 * Stretches of at least 0.8 s in which the smoothed column moves by less than 0.4 % of its range (or four
 * deviations of its noise) per half second. The first and last tenth of each stretch are left off, because
 * the other gauge may still be settling.
 */
export function findLevels(trace: Trace, column: Float64Array): Level[] {
  const interval = sampleInterval(trace);
  const half = max(1, round(halfWindow / interval));
  const smooth = movingMean(column, half);
  const reach = max(1, round(0.25 / interval));
  let low = Infinity;
  let high = -Infinity;
  for (const value of smooth) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  const band = max(0.004 * (high - low), (4 * noiseOf(column)) / sqrt(2 * half + 1));
  const levels: Level[] = [];
  let from = -1;
  for (let i = 0; i <= smooth.length; i++) {
    const still =
      i < smooth.length && abs(smooth[min(smooth.length - 1, i + reach)] - smooth[max(0, i - reach)]) < band;
    if (still && from < 0) from = i;
    if (!still && from >= 0) {
      if ((i - from) * interval >= shortest) {
        const trim = floor((i - from) / 10);
        levels.push({ from: from + trim, to: i - trim, mean: meanOf(column, from + trim, i - trim).mean });
      }
      from = -1;
    }
  }
  return levels;
}
