import {
  differenceComponents,
  differenceResolution,
  random,
  type Estimate,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';
import { noiseOf } from '../../traces/smoothing';
import { findStrokes, type Stroke } from '../../traces/strokes';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';

/** A plateau's last half second is what was held, s. */
const heldSeconds = 0.5;

/** A push of the pedal that was held: its last half second, samples from and to, and its force there, N. */
export interface HeldPush {
  readonly from: number;
  readonly to: number;
  readonly force: number;
}

/** Pushes of a trace that were held for half a second at least, in their order. */
export function heldPushes(trace: Trace, channel: string): readonly HeldPush[] {
  const force = columnOf(trace, channel);
  if (!force) return [];
  return findStrokes(trace, force).flatMap(({ from, to }: Stroke): HeldPush[] => {
    const end = trace.time[to - 1];
    const begin = indexAtTime(trace, end - heldSeconds);
    if (end - trace.time[from] < heldSeconds || begin >= to) return [];
    return [{ from: begin, to, force: meanOf(force, begin, to).mean }];
  });
}

/** Pressure (Pa gauge) of a push above the rest before the first one, with what its gauge may be off by. */
export function heldPressure(
  trace: Trace,
  channel: string,
  push: HeldPush,
  zero: number,
  context: StepContext<unknown>,
): Estimate {
  const column = trace.columns[channel];
  const { mean, count } = meanOf(column, push.from, push.to);
  const instrument = context.instruments.get(channel);
  const parts: UncertaintyComponent[] = instrument
    ? [differenceResolution(instrument), ...differenceComponents(instrument, zero, mean, context.date)]
    : [];
  return {
    value: mean - zero,
    components: [random('noise', noiseOf(column) / Math.sqrt(Math.max(1, count))), ...parts],
  };
}

/** What a gauge reads at rest, before the first push: mean of its first half second; 0 where the foot was on it already. */
export function restOf(trace: Trace, channel: string, first: HeldPush): number {
  const column = columnOf(trace, channel);
  const force = columnOf(trace, 'pedal_force');
  const to = indexAtTime(trace, trace.time[0] + heldSeconds);
  if (!column || !force || to >= first.from || meanOf(force, 0, to).mean > 0.1 * first.force) return 0;
  return meanOf(column, 0, to).mean;
}
