import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepContext } from '../../procedure/step-context';
import { random, readingComponents } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { ownSamples } from '../../traces/own-samples';
import { independentCount } from '../../traces/independent-count';
import { neverMoved } from '../../traces/stuck';
import type { Instrument } from '../../instruments/instrument';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';

const { abs } = Math;

/** A reading this close to the end of its range stands at its stop. */
const atStop = 0.995;
/** With fewer samples nobody can tell that a channel stood still. */
const fewestSamples = 10;

export interface SteadyReading {
  readonly id: CharacteristicId;
  readonly channel: string;
  /** Read is the mean of the last of the trace, s. */
  readonly seconds: number;
  /** A 0/1 channel that must be on while it is read; without it a pass does not stand. */
  readonly while?: string;
  /** A channel whose mean must be so much, SI, for there to be anything to read; without it a pass does not stand. */
  readonly atLeast?: { readonly channel: string; readonly mean: number };
}

/** What a channel showed at the end of a trace. */
interface ShownLast {
  readonly mean: number;
  readonly deviation: number;
  /** Samples of their own: a ripple slower than the reading, or read as one, repeats itself. */
  readonly independent: number;
  /** Seconds for which it stood at one figure from first to last; null where it moved. */
  readonly stood: number | null;
  /** What it is read beside came on, or went off, in this log: then it had to move. */
  readonly driven: boolean;
  /** Whether what it is read beside was on: null where nobody recorded that. */
  readonly working: boolean | null;
  /** Mean of what there must be enough of: null where nobody recorded that. */
  readonly there: number | null;
}

/** A characteristic that is one steady reading: the mean of a channel over the last `seconds` of a trace, SI. */
export function analyseSteadyReading(trace: Trace, context: StepContext<unknown>, of: SteadyReading): Answered {
  return answer(steadyReading(of), trace, context);
}

/** Mean and scatter of what a column showed at its end, with how many of its samples say something of their own. */
function lastOf(column: Float64Array, from: number): Pick<ShownLast, 'mean' | 'deviation' | 'independent'> {
  const { mean, deviation } = meanOf(column, from);
  const shown = column.subarray(from).filter((value) => value === value);
  return { mean, deviation, independent: independentCount(shown.map((value) => value - mean)) };
}

/** Whether a meter that never moved stands off its zero and off its stop. */
function reads({ mean }: ShownLast, instrument: Instrument | undefined): boolean {
  const nothing = instrument?.resolution ?? 0;
  return abs(mean) > nothing && !(instrument && abs(mean) >= atStop * instrument.range);
}

function steadyReading(of: SteadyReading): Question<StepContext<unknown>, ShownLast, ShownLast> {
  return {
    characteristics: [of.id],
    happened: (trace) => {
      const column = columnOf(trace, of.channel);
      if (!column) return noEvidence({ code: 'channel-missing', channel: of.channel });
      const samples = ownSamples(trace, column);
      const from = indexAtTime(trace, trace.time[trace.time.length - 1] - of.seconds);
      const enough = of.atLeast && columnOf(trace, of.atLeast.channel);
      const beside = of.while === undefined ? undefined : columnOf(trace, of.while);
      return {
        ...lastOf(column, from),
        stood:
          samples.value.length >= fewestSamples && neverMoved(samples)
            ? samples.time[samples.time.length - 1] - samples.time[0]
            : null,
        driven: beside?.some((value) => value > 0.5) === true && beside.some((value) => value <= 0.5),
        there: enough ? meanOf(enough).mean : null,
        working: beside ? meanOf(beside, from).mean > 0.9 : null,
      };
    },
    shows: (last, context) => {
      const { atLeast } = of;
      if (atLeast && last.there !== null && last.there < atLeast.mean)
        return noEvidence({
          code: 'too-little-pressure',
          channel: atLeast.channel,
          pressure: last.there,
          needed: atLeast.mean,
        });
      // A quiet meter may well stand at one figure; one that reads nothing all along, or stands at its stop, reads nothing.
      if (last.stood !== null && (last.driven || !reads(last, context.instruments.get(of.channel))))
        return noEvidence({ code: 'gauge-never-moved', channel: of.channel });
      if (last.working === false) return noEvidence({ code: 'engine-not-started' });
      const unseen = [
        ...(of.while !== undefined && last.working === null ? [of.while] : []),
        ...(atLeast && last.there === null ? [atLeast.channel] : []),
      ];
      return evidence(
        last,
        last.stood === null ? [] : [{ code: 'taken-as-quiet', channel: of.channel }],
        unseen.map((channel) => ({ code: 'channel-missing', channel })),
      );
    },
    comesTo: ({ mean, deviation, independent }, context) => {
      const instrument = context.instruments.get(of.channel);
      const components = [
        random('noise', deviation / Math.sqrt(independent)),
        ...(instrument ? readingComponents(instrument, mean, context.date) : []),
      ];
      return { characteristics: [measured(of.id, mean, components)], events: [], notes: [] };
    },
  };
}
