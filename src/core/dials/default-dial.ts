import { findChannel } from '../quantities/channels';
import type { Instrument } from '../instruments/instrument';

/** A dial that nobody named: so good of reading, and so many divisions over its range that an eye can tell apart. */
const dial = { name: 'A dial that nobody named', classFraction: 0.02, divisions: 200 } as const;
/** Volts and amperes are read off digits. */
const meter = { name: 'A meter that nobody named', classFraction: 0.01, divisions: 2000 } as const;

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
  const dimension = findChannel(instrument.channel)?.dimension;
  const { name, classFraction, divisions } = dimension === 'voltage' || dimension === 'current' ? meter : dial;
  return {
    channel: instrument.channel,
    name,
    range: instrument.range,
    resolution: Math.max(instrument.resolution, instrument.range / divisions),
    classFraction,
    classOf: 'reading',
    calibratedOn: null,
    dueOn: null,
  };
}
