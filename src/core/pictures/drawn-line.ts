import { pathIndices } from '../traces/decimate';
import { movingMean } from '../traces/smoothing';

export type Path = readonly (readonly [number, number])[];

/** Samples each way of the mean that a line is drawn through: a tenth of a second at 200 Hz. */
const lineHalfWindow = 10;

/** What a gauge says without its noise, for a line to be drawn through: SI as it came. */
export function smoothed(column: ArrayLike<number>): Float64Array {
  return movingMean(Float64Array.from(column), lineHalfWindow);
}

/** The path (x, y) thinned to what a picture can show: points a step of `x`, or three of `y`, apart. */
export function pathOf(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  step: { readonly x: number; readonly y: number },
): Path {
  return pathIndices(x, y, step.x, step.y * 3).map((i) => [x[i], y[i]] as const);
}
