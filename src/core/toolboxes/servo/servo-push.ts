import {
  differenceComponents,
  differenceResolution,
  unreadZero,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import type { FollowingLag } from '../../fitting/following-lag';
import { findLeverPull, leverSpeed, type Following } from '../../procedure/pull-evidence';
import type { StepContext } from '../../procedure/step-context';
import type { Pull, Span } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';

const { max, round, sqrt } = Math;

type Context = StepContext<unknown>;

/** Channel of the force: at the rod on the bench, at the pedal in the vehicle. */
export interface PushLever {
  readonly lever: 'rod_force' | 'pedal_force';
}

/** One push with the gauges' zeros taken off: rod force N, output Pa gauge, the force as late as the output reads it. */
export interface Push {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly lag: FollowingLag;
  readonly force: Float64Array;
  readonly output: Float64Array;
  /** Standard uncertainties of the zeros taken off, N and Pa. */
  readonly forceZero: number;
  readonly outputZero: number;
  readonly context: Context;
  readonly setup: PushLever;
}

export function zeroed(trace: Trace, following: Following, context: Context, setup: PushLever): Push {
  const { pull } = following;
  const { from, to } = pull.restBefore;
  const output = meanOf(trace.columns.output_pressure, from, to);
  const force = meanOf(trace.columns[setup.lever], from, to);
  const [outputZero, forceZero] = pull.zero === null ? [0, 0] : [output.mean, pull.zero];
  const zeroOf = (channel: string, read: typeof output) => {
    if (pull.zero !== null) return read.deviation / sqrt(max(1, read.count));
    const instrument = context.instruments.get(channel);
    return instrument ? unreadZero(instrument, context.date) : 0;
  };
  return {
    trace,
    pull,
    lag: following.lag,
    force: following.lever.map((value) => value - forceZero),
    output: following.output.map((value) => value - outputZero),
    forceZero: zeroOf(setup.lever, force),
    outputZero: zeroOf('output_pressure', output),
    context,
    setup,
  };
}

/** Gauge parts of a figure read above its zero. */
export function gaugeParts(channel: string, at: number, context: Context): UncertaintyComponent[] {
  const instrument = context.instruments.get(channel);
  return instrument ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, at, context.date)] : [];
}

/** Standard uncertainty of several parts together. */
export const total = (parts: readonly UncertaintyComponent[]) =>
  sqrt(parts.reduce((sum, part) => sum + part.standard ** 2, 0));

/** What is not known of the lag shifts a branch along the force by this much, N. */
export function late(push: Push, span: Span, at: number): number {
  return push.lag.standard * leverSpeed(push.trace, push.pull, span, at);
}

/** Highest that a channel was held at from the rest before a push to its top, SI; null where nobody recorded it. */
export function highestOf(trace: Trace, channel: string, { restBefore, plateau }: Pull): number | null {
  const column = columnOf(trace, channel);
  if (!column) return null;
  const smooth = movingMean(column, max(1, round(0.1 / sampleInterval(trace))));
  let highest = -Infinity;
  // A channel that was sampled more slowly has rows without a figure.
  for (let i = restBefore.from; i < plateau.to; i++) if (smooth[i] > highest) highest = smooth[i];
  return Number.isFinite(highest) ? highest : null;
}

/** Finds the push of a servo's lever against its output. */
export function findPush(trace: Trace, { instruments }: Context, { lever }: PushLever) {
  return findLeverPull(trace, { lever, outputs: ['output_pressure'], instruments });
}
