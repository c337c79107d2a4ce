import { pairCorrected } from '../procedure/pair-corrected';
import type { CurvePicture } from '../procedure/picture';
import type { PairCorrection } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import { findPull, isPull } from '../traces/pull';
import type { Trace } from '../traces/trace';
import { pathOf, smoothed, type Path } from './drawn-line';

/** A measured curve ready to be drawn: input and output, corrected, SI. */
export interface DrawnCurve {
  readonly apply: Path;
  readonly wayBack: Path;
}

/** Share of its highest from which a channel counts as having left zero. */
const leavesZero = 0.02;

/** A channel over time from where it leaves zero. */
function drawnOverTime(trace: Trace, channel: string, points: number): DrawnCurve | null {
  const column = trace.columns[channel];
  if (!column) return null;
  const smooth = smoothed(column);
  let highest = 0;
  for (const value of smooth) highest = Math.max(highest, value);
  const from = smooth.findIndex((value) => value > leavesZero * highest);
  if (from < 0) return null;
  const x = trace.time.subarray(from).map((time) => time - trace.time[from]);
  const y = smooth.subarray(from);
  return { apply: pathOf(x, y, { x: x[x.length - 1] / points, y: highest / points }), wayBack: [] };
}

/** The pull and the way back of a trace as a path of about `points` steps. */
export function drawnCurve(
  trace: Trace,
  curve: Pick<CurvePicture<unknown>, 'input' | 'outputs' | 'workedOut'>,
  how: { readonly pair: PairCorrection | null; readonly points: number; readonly context?: StepContext<unknown> },
): DrawnCurve | null {
  const { pair, points, context } = how;
  if (curve.workedOut) {
    const found = context ? curve.workedOut(trace, context) : null;
    return found && { apply: found.map(({ input, output }) => [input, output] as const), wayBack: [] };
  }
  if (curve.input === 'time') return drawnOverTime(trace, curve.outputs[0], points);
  const input = trace.columns[curve.input];
  const output = trace.columns[curve.outputs[0]];
  if (!input || !output) return null;
  const pull = findPull(trace, input);
  if (!isPull(pull)) return null;
  const path = (from: number, to: number) => {
    const x = smoothed(input.subarray(from, to));
    const y = smoothed(output.subarray(from, to)).map(pairCorrected(pair));
    let highest = 0;
    for (const value of output) highest = Math.max(highest, value);
    return pathOf(x, y, { x: pull.peak / points, y: highest / points });
  };
  return {
    apply: path(pull.restBefore.from, pull.plateau.to),
    wayBack: path(pull.plateau.to, Math.max(pull.plateau.to, pull.wayBack.to)),
  };
}
