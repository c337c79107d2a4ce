import { earlyCall, type EarlyCall } from '@/core/toolboxes/vacuum/early-call';
import type { GuidePhase } from '@/core/procedure/guide-phase';
import type { StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { differenceComponents, differenceResolution } from '@/core/instruments/uncertainty';
import { noiseOf } from '@/core/traces/smoothing';
import type { RunStatus } from '@/server/runs/run-recorder';
import type { Samples } from './use-run-stream';

/** A hold while it runs: what is predicted and whether it can be called. SI, times in the trace's clock. */
export interface WatchedNow {
  readonly call: EarlyCall;
  readonly channel: string;
  readonly from: number;
  readonly start: number;
  readonly seconds: number;
  readonly limit: number;
}

/** Waits that are watched for an early call: those that shut something in. */
const watchedCodes: readonly string[] = ['shut-source-and-wait', 'shut-input-and-wait'];
/** Left off at the start of a hold, as in its analysis, s; and what the start is the mean of, s. */
const settling = 1;
const startSeconds = 0.4;

/** Watches the hold of a step as it is being recorded; null outside of one. */
export function watchHold(
  step: MeasuredStep<unknown>,
  context: StepContext<unknown>,
  now: { readonly phase: GuidePhase | undefined; readonly status: RunStatus | null; readonly samples: Samples },
): WatchedNow | null {
  const watch = step.watch?.(context);
  const { phase, status, samples } = now;
  if (!watch || !phase || !status || !watchedCodes.includes(phase.instruction.code)) return null;
  const column = samples.columns[watch.channel];
  const end = samples.time.at(-1);
  if (!column || end === undefined) return null;
  const shutAt = end - status.elapsed;
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
  const ambient = watch.channel.endsWith('_vacuum') ? context.ambient.pressure : null;
  const call = earlyCall({ time, value, seconds: watch.seconds, limit, gauge, ambient });
  return { call, channel: watch.channel, from: time[0], start, seconds: watch.seconds, limit };
}
