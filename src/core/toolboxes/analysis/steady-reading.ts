import { random, readingComponents } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { ownSamples } from '../../traces/own-samples';
import { neverMoved } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { measured, nothingMeasured } from '../../procedure/analysis-result';

/** With fewer samples nobody can tell that a channel stood still. */
const fewestSamples = 10;

/** A characteristic that is one steady reading: the mean of a channel over the last `seconds` of a trace, SI. */
export function analyseSteadyReading(
  trace: Trace,
  context: StepContext<unknown>,
  of: {
    readonly id: CharacteristicId;
    readonly channel: string;
    readonly seconds: number;
    /** A 0/1 channel that must be on while it is read; without it a pass does not stand. */
    readonly while?: string;
  },
): StepAnalysis {
  const column = columnOf(trace, of.channel);
  if (!column) return nothingMeasured([of.id], { code: 'channel-missing', channel: of.channel });
  // A needle or a channel that never moved at all was not connected, or stood still.
  const samples = ownSamples(trace, column);
  if (samples.value.length >= fewestSamples && neverMoved(samples))
    return nothingMeasured([of.id], {
      code: 'gauge-frozen',
      channel: of.channel,
      seconds: samples.time[samples.time.length - 1] - samples.time[0],
    });
  const from = indexAtTime(trace, trace.time[trace.time.length - 1] - of.seconds);
  const working = of.while === undefined ? undefined : columnOf(trace, of.while);
  if (working && !(meanOf(working, from).mean > 0.9)) return nothingMeasured([of.id], { code: 'engine-not-started' });
  const { mean, deviation, count } = meanOf(column, from);
  const instrument = context.instruments.get(of.channel);
  return {
    characteristics: [
      measured(of.id, mean, [
        random('noise', deviation / Math.sqrt(count)),
        ...(instrument ? readingComponents(instrument, mean, context.date) : []),
      ]),
    ],
    events: [],
    notes: [],
    doubts: of.while !== undefined && !working ? [{ code: 'channel-missing', channel: of.while }] : [],
  };
}
