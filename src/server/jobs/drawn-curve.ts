import type { Trace } from '@/core/traces/trace';
import { findPull, isPull } from '@/core/traces/pull';
import { movingMean } from '@/core/traces/smoothing';
import { pathIndices } from '@/core/traces/decimate';
import type { CurvePicture } from '@/core/procedure/picture';
import type { PairCorrection } from '@/core/procedure/step-analysis';

/** A measured curve ready to be drawn: input and output, corrected, SI. */
export interface DrawnCurve {
  readonly apply: readonly (readonly [number, number])[];
  readonly wayBack: readonly (readonly [number, number])[];
}

/** Samples each way of the mean that a line is drawn through. */
const lineHalfWindow = 10;

/** Share of its highest from which a channel counts as having left zero. */
const leavesZero = 0.02;

/** A channel over time from where it leaves zero. */
function drawnOverTime(trace: Trace, channel: string, points: number): DrawnCurve | null {
  const column = trace.columns[channel];
  if (!column) return null;
  const smooth = movingMean(column, lineHalfWindow);
  let highest = 0;
  for (const value of smooth) highest = Math.max(highest, value);
  const from = smooth.findIndex((value) => value > leavesZero * highest);
  if (from < 0) return null;
  const x = trace.time.subarray(from).map((time) => time - trace.time[from]);
  const y = smooth.subarray(from);
  const apply = pathIndices(x, y, x[x.length - 1] / points, (highest * 3) / points).map((i) => [x[i], y[i]] as const);
  return { apply, wayBack: [] };
}

/** The pull and the way back of a trace as a path of about `points` steps. */
export function drawnCurve(
  trace: Trace,
  curve: Pick<CurvePicture<unknown>, 'input' | 'outputs'>,
  how: { readonly pair: PairCorrection | null; readonly points: number },
): DrawnCurve | null {
  const { pair, points } = how;
  if (curve.input === 'time') return drawnOverTime(trace, curve.outputs[0], points);
  const input = trace.columns[curve.input];
  const output = trace.columns[curve.outputs[0]];
  if (!input || !output) return null;
  const pull = findPull(trace, input);
  if (!isPull(pull)) return null;
  const gain = pair?.applied ? pair.gain : 1;
  const offset = pair?.applied ? pair.offset : 0;
  const path = (from: number, to: number) => {
    const x = movingMean(input.subarray(from, to), lineHalfWindow);
    const y = movingMean(output.subarray(from, to), lineHalfWindow).map((value) => (value - offset) / gain);
    let highest = 0;
    for (const value of output) highest = Math.max(highest, value);
    return pathIndices(x, y, pull.peak / points, (highest * 3) / points).map((i) => [x[i], y[i]] as const);
  };
  return {
    apply: path(pull.restBefore.from, pull.plateau.to),
    wayBack: path(pull.plateau.to, Math.max(pull.plateau.to, pull.wayBack.to)),
  };
}
