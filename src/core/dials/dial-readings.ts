import { findChannel } from '../quantities/channels';
import { characteristicRow, type CharacteristicId } from '../quantities/characteristics';
import type { DialReading } from '../quantities/characteristic-row';
import type { MeasuredStep, TypedStep } from '../procedure/step-definition';

/** What of a step says which gauges stand on it. */
export type DialledStep = Pick<MeasuredStep<unknown>, 'kind' | 'feeds'> | Pick<TypedStep<unknown>, 'kind'>;

/**
 * The gauge that a channel's reading is taken on at a step: the channel's own where the step reads it; else, for a word that steps of
 * several drives share, the step's gauge of that quantity (a force at the pedal where nothing pushes on the rod).
 */
function gaugeAt(step: DialledStep, channel: string): string {
  if (step.kind !== 'measured') return channel;
  const read = [...step.feeds.log.needs, ...step.feeds.log.uses];
  if (read.includes(channel)) return channel;
  const wanted = findChannel(channel);
  const alike = read.find((each) => {
    const there = findChannel(each);
    return there?.dimension === wanted?.dimension && there?.reference === wanted?.reference;
  });
  return alike ?? channel;
}

/** How a characteristic is read off the dials of a step. */
export function dialAt(step: DialledStep, id: CharacteristicId): DialReading {
  const how = characteristicRow(id).dial;
  switch (how.kind) {
    case 'reading':
    case 'difference':
    case 'rate':
    case 'flow':
      return { ...how, channel: gaugeAt(step, how.channel) };
    case 'between':
    case 'share':
    case 'worked-out':
    case 'quotient':
      return { ...how, channels: [gaugeAt(step, how.channels[0]), gaugeAt(step, how.channels[1])] };
    case 'watch':
    case 'count':
    case 'calculated':
      return how;
  }
}

/** Channel whose dial a characteristic is read on at a step; null for a watch or a count. */
export function dialChannel(step: DialledStep, id: CharacteristicId): string | null {
  const how = dialAt(step, id);
  switch (how.kind) {
    case 'between':
    case 'share':
    case 'worked-out':
    case 'quotient':
      return how.channels[0];
    case 'watch':
    case 'count':
    case 'calculated':
      return null;
    default:
      return how.channel;
  }
}
