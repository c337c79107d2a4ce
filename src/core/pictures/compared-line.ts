import type { MeasuredStep } from '../procedure/step-definition';
import type { PairCorrection } from '../procedure/step-analysis';
import type { Trace } from '../traces/trace';
import { drawnCurve } from './drawn-curve';
import { pathOf, smoothed, type Path } from './drawn-line';

/** One time of a step as a line, to be drawn over another time of it; SI. */
export interface ComparedLine {
  /** Channel, or `time` (s since the run began). */
  readonly x: string;
  readonly y: string;
  readonly path: Path;
}

/** Which channel of a step is compared, and over what: its curve where it has one, else its first channel over the time. */
function axesOf(step: MeasuredStep<unknown>): Pick<ComparedLine, 'x' | 'y'> {
  const [picture] = step.pictures;
  switch (picture.kind) {
    case 'curve':
      return { x: picture.input, y: picture.outputs[0] };
    case 'over-time':
      return { x: 'time', y: picture.channels[0] };
    default:
      return { x: 'time', y: step.feeds.log.needs[0] };
  }
}

/** A trace as the line that its step is compared by; null where it does not hold the channels, or shows no pull. */
export function comparedLine(
  step: MeasuredStep<unknown>,
  trace: Trace,
  { pair, points }: { readonly pair: PairCorrection | null; readonly points: number },
): ComparedLine | null {
  const [picture] = step.pictures;
  const { x, y } = axesOf(step);
  if (picture.kind === 'curve') {
    const drawn = drawnCurve(trace, picture, { pair, points });
    return drawn && { x, y, path: [...drawn.apply, ...drawn.wayBack] };
  }
  const column = trace.columns[y];
  if (!column || trace.time.length < 2) return null;
  const begun = trace.time.map((time) => time - trace.time[0]);
  const smooth = smoothed(column);
  const reach = smooth.reduce((most, each) => (Math.abs(each) > most ? Math.abs(each) : most), 0);
  return { x, y, path: pathOf(begun, smooth, { x: begun[begun.length - 1] / points, y: reach / points }) };
}
