import { random, readingComponents } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { measured, nothingMeasured } from '../../procedure/analysis-result';

/** A characteristic that is one steady reading: the mean of a channel over the last `seconds` of a trace, SI. */
export function analyseSteadyReading(
  trace: Trace,
  context: StepContext<unknown>,
  of: { readonly id: CharacteristicId; readonly channel: string; readonly seconds: number },
): StepAnalysis {
  const column = columnOf(trace, of.channel);
  if (!column) return nothingMeasured([of.id], { code: 'channel-missing', channel: of.channel });
  const from = indexAtTime(trace, trace.time[trace.time.length - 1] - of.seconds);
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
  };
}
