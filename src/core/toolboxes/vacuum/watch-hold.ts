import { earlyCall, type EarlyCall } from './early-call';
import type { GuidePhase } from '../../procedure/guide-phase';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { differenceComponents, differenceResolution } from '../../instruments/uncertainty';
import { noiseOf } from '../../traces/smoothing';
import type { GrowingTrace } from '../../traces/trace';
import { findChannel } from '../../quantities/channels';

/** A hold while it runs: what is predicted and whether it can be called. SI, times in the trace's clock. */
export interface WatchedNow {
  readonly call: EarlyCall;
  readonly channel: string;
  readonly from: number;
  readonly start: number;
  readonly seconds: number;
  readonly limit: number;
}

/** Left off at the start of a hold, as in its analysis, s; and what the start is the mean of, s. */
const settling = 1;
const startSeconds = 0.4;

/** Watches the hold of a step as it is being recorded; null outside of one. */
export function watchHold(
  step: MeasuredStep<unknown>,
  context: StepContext<unknown>,
  now: {
    readonly phase: GuidePhase | undefined;
    /** s since the phase began; null before anything is known of the run. */
    readonly elapsed: number | null;
    readonly samples: GrowingTrace;
  },
): WatchedNow | null {
  const watch = step.feeds.live?.watch?.(context);
  const { phase, elapsed, samples } = now;
  if (!watch || phase?.hold !== 'watched' || elapsed === null) return null;
  const column = samples.columns[watch.channel];
  const end = samples.time.at(-1);
  if (!column || end === undefined) return null;
  const shutAt = end - elapsed;
  const indexOf = (time: number) => {
    let at = samples.time.length;
    while (at > 0 && samples.time[at - 1] >= time) at--;
    return at;
  };
  const shut = indexOf(shutAt);
  const settled = indexOf(shutAt + settling);
  // What falls at once is the leak itself, not the valve settling: it counts from the moment the source was shut.
  const collapses = column[shut] - column[Math.min(settled, column.length - 1)] > watch.limit(column[shut]) / 2;
  const first = collapses ? shut : settled;
  if (samples.time.length - first < 8) return null;
  const time = Float64Array.from(samples.time.slice(first));
  const value = Float64Array.from(column.slice(first));
  let count = 0;
  let sum = 0;
  while (count < time.length && time[count] - time[0] <= startSeconds) sum += value[count++];
  const start = sum / count;
  const limit = watch.limit(start);
  const instrument = context.instruments.get(watch.channel);
  const gauge = (loss: number) => {
    if (!instrument) return 0;
    const parts = differenceComponents(instrument, start, start - loss, context.date);
    if (noiseOf(value) < instrument.resolution) parts.push(differenceResolution(instrument));
    return Math.sqrt(parts.reduce((total, part) => total + part.standard ** 2, 0));
  };
  const ambient = findChannel(watch.channel)?.reference === 'vacuum' ? context.ambient.pressure : null;
  const call = earlyCall({ time, value, seconds: watch.seconds, limit, gauge, ambient });
  return { call, channel: watch.channel, from: time[0], start, seconds: watch.seconds, limit };
}
