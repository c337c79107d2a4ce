import { ownInterval, ownSamples, type Samples } from './own-samples';
import { columnOf, type Trace } from './trace';

/** Between samples further apart than this many of a channel's own intervals nothing is filled in. */
const longestStep = 4;

/**
 * A trace on the own samples of the slowest of some channels, the others read there straight between their own samples: a
 * column that was sampled more slowly, or on other rows, is then as good as any. The trace itself where they share their rows.
 */
export function together(trace: Trace, channels: readonly string[]): Trace {
  const own = channels.map((channel) => ownSamples(trace, columnOf(trace, channel) ?? new Float64Array(0)));
  if (own.every((samples) => samples.time.length === trace.time.length)) return trace;
  const slowest = own.reduce((least, each) => (each.time.length < least.time.length ? each : least));
  const time = slowest.time.slice();
  const columns = Object.fromEntries(
    Object.keys(trace.columns).map((channel) => [channel, readAt(ownSamples(trace, trace.columns[channel]), time)]),
  );
  return { time, columns };
}

/** A channel at given times (s, rising), straight between its own samples; NaN where they are too far apart. */
function readAt(samples: Samples, at: Float64Array): Float64Array {
  const reach = longestStep * ownInterval(samples);
  let k = 0;
  return at.map((time) => {
    while (k + 1 < samples.time.length && samples.time[k + 1] <= time) k++;
    if (samples.time.length === 0 || time < samples.time[0]) return Number.NaN;
    if (samples.time[k] === time) return samples.value[k];
    const step = k + 1 < samples.time.length ? samples.time[k + 1] - samples.time[k] : Infinity;
    if (!(step <= reach)) return Number.NaN;
    return samples.value[k] + ((samples.value[k + 1] - samples.value[k]) * (time - samples.time[k])) / step;
  });
}
