import type { Span } from './pull';
import { movingMean } from './smoothing';
import { meanOf, sampleInterval, type Trace } from './trace';

/** A level counts once it was held this long, s. */
export const heldSeconds = 0.5;

/** Lowest level that a channel held for half a second within a span. */
export function lowestHeld(trace: Trace, column: Float64Array, span: Span): { mean: number; standard: number } | null {
  const window = Math.max(1, Math.round(heldSeconds / sampleInterval(trace)));
  if (span.to - span.from < window) return null;
  const half = Math.floor(window / 2);
  const part = column.subarray(span.from, span.to);
  const smooth = movingMean(part, half);
  let at = half;
  for (let i = half; i < part.length - half; i++) if (smooth[i] < smooth[at]) at = i;
  const around = meanOf(part, Math.max(0, at - half), Math.min(part.length, at + half + 1));
  return { mean: smooth[at], standard: around.deviation / Math.sqrt(Math.max(1, around.count)) };
}
