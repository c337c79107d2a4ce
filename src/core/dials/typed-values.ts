import {
  differenceComponents,
  differenceResolution,
  random,
  readingComponents,
  scaleComponents,
  systematic,
  type UncertaintyComponent,
} from '../instruments/uncertainty';
import type { Instrument } from '../instruments/instrument';
import type { CharacteristicId } from '../quantities/characteristics';
import type { DialReading } from '../quantities/characteristic-row';
import { dialAt, type DialledStep } from './dial-readings';
import type { Characteristic, StepAnalysis } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import type { MeasuredStep } from '../procedure/step-definition';
import { absent, measured } from '../procedure/analysis-result';
import { watchStandard } from './stopwatch';

/** A rate was watched for about as long as a hold lasts, s. */
const watchedFor = 30;
/** A volume that nobody measured for the purpose is good to about this. */
const volumeShare = 0.05;

/** Standard uncertainty of a dial's usual reading, about a fifth of its range, as a share of it. */
function usualShare(instrument: Instrument, date: string): number {
  const at = instrument.range / 5;
  const parts = differenceComponents(instrument, 0, at, date).map((part) => part.standard);
  return Math.hypot(...parts, differenceResolution(instrument).standard) / at;
}

function typedComponents(how: DialReading, value: number, context: StepContext<unknown>): UncertaintyComponent[] {
  const gauge = (channel: string) => context.instruments.get(channel);
  switch (how.kind) {
    case 'watch':
      return [random('timing', watchStandard)];
    case 'count':
    case 'calculated':
      return [];
    case 'reading': {
      const instrument = gauge(how.channel);
      return instrument ? readingComponents(instrument, value, context.date) : [];
    }
    case 'difference': {
      const instrument = gauge(how.channel);
      return instrument
        ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, value, context.date)]
        : [];
    }
    case 'rate': {
      const instrument = gauge(how.channel);
      const timing = random('timing', (value * watchStandard) / watchedFor);
      if (!instrument) return [timing];
      const change = [
        differenceResolution(instrument),
        ...differenceComponents(instrument, 0, value * watchedFor, context.date),
      ];
      return [timing, ...scaleComponents(change, 1 / watchedFor)];
    }
    case 'flow': {
      const instrument = gauge(how.channel);
      return [
        random('timing', (value * watchStandard) / watchedFor),
        systematic('volume', value * volumeShare),
        ...(instrument ? [systematic('gauge-gain', value * usualShare(instrument, context.date))] : []),
      ];
    }
    case 'between':
      return how.channels.flatMap((channel) => {
        const instrument = gauge(channel);
        return instrument ? readingComponents(instrument, value, context.date) : [];
      });
    case 'share':
      return how.channels.flatMap((channel) => {
        const instrument = gauge(channel);
        return instrument ? [systematic('pair-gain', usualShare(instrument, context.date))] : [];
      });
    case 'worked-out':
    case 'quotient':
      return how.channels.flatMap((channel) => {
        const instrument = gauge(channel);
        return instrument ? [systematic('pair-gain', value * usualShare(instrument, context.date))] : [];
      });
  }
}

/** A step's analysis from characteristics typed by hand (SI); those that were not typed are absent. */
export function analysisFromTyped(
  step: Pick<MeasuredStep<unknown>, 'characteristics'> & DialledStep,
  values: ReadonlyMap<CharacteristicId, number>,
  context: StepContext<unknown>,
): StepAnalysis {
  const characteristics = step.characteristics.map((id): Characteristic => {
    const value = values.get(id);
    return value === undefined
      ? absent(id, { code: 'not-read' })
      : measured(id, value, typedComponents(dialAt(step, id), value, context));
  });
  return { characteristics, events: [], notes: [] };
}
