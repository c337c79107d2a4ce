import { movingMean, noiseOf } from './smoothing';
import { meanOf, sampleInterval, type Trace } from './trace';

const { floor, max, round, sqrt } = Math;

/** One stroke of a lever or pedal: samples while it was held, and its level. */
export interface Stroke {
  readonly from: number;
  readonly to: number;
  /** Mean level while held, SI. */
  readonly level: number;
}

/** Half window of the smoothing, s; shortest stroke that counts, s. */
const halfWindow = 0.06;
const shortest = 0.25;
/** What is held lies within this share of the stroke's own highest level. */
const plateauShare = 0.06;

/**
 * Strokes in `column`: stretches above half of the highest level of the whole trace that last at least a quarter of
 * a second. Of each the part near its own top counts as held, without its first tenth.
 */
export function findStrokes(trace: Trace, column: Float64Array): Stroke[] {
  const interval = sampleInterval(trace);
  const half = max(1, round(halfWindow / interval));
  const smooth = movingMean(column, half);
  let highest = -Infinity;
  let lowest = Infinity;
  for (const value of smooth) {
    if (value > highest) highest = value;
    if (value < lowest) lowest = value;
  }
  if (!(highest - lowest > 20 * (noiseOf(column) / sqrt(2 * half + 1)))) return [];
  const threshold = lowest + (highest - lowest) / 2;
  const strokes: Stroke[] = [];
  let from = -1;
  for (let i = 0; i <= smooth.length; i++) {
    const up = i < smooth.length && smooth[i] > threshold;
    if (up && from < 0) from = i;
    if (!up && from >= 0) {
      if ((i - from) * interval >= shortest) strokes.push(heldPart(column, smooth, from, i));
      from = -1;
    }
  }
  return strokes;
}

function heldPart(column: Float64Array, smooth: Float64Array, from: number, to: number): Stroke {
  let top = -Infinity;
  for (let i = from; i < to; i++) top = max(top, smooth[i]);
  let first = from;
  while (first < to - 1 && smooth[first] < top * (1 - plateauShare)) first++;
  let last = to;
  while (last > first + 1 && smooth[last - 1] < top * (1 - plateauShare)) last--;
  first += floor((last - first) / 10);
  return { from: first, to: last, level: meanOf(column, first, last).mean };
}
