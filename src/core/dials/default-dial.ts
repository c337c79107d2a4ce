import { findChannel } from '../quantities/channels';
import type { Instrument } from '../instruments/instrument';

/** A dial that nobody named: so good of reading, and so many divisions over its range that an eye can tell apart. */
const classFraction = 0.02;
const divisions = 200;

/**
 * The instruments of a bench as somebody reads dials by them: where nobody named one for a channel, what was read there is as good
 * as an ordinary dial, not as the stand-in's transducer.
 */
export function asDials(instruments: ReadonlyMap<string, Instrument>): ReadonlyMap<string, Instrument> {
  return new Map(
    // A length is read off a calliper or a rule, which is no dial.
    [...instruments].map(([channel, each]) => [
      channel,
      each.ofStandIn && findChannel(channel)?.dimension !== 'length' ? dialInPlaceOf(each) : each,
    ]),
  );
}

function dialInPlaceOf(instrument: Instrument): Instrument {
  return {
    channel: instrument.channel,
    name: 'A dial that nobody named',
    range: instrument.range,
    resolution: Math.max(instrument.resolution, instrument.range / divisions),
    classFraction,
    classOf: 'reading',
    calibratedOn: null,
    dueOn: null,
  };
}
