import { evidence, noEvidence } from '../../procedure/evidence';
import { atMost, type Limit } from '../../procedure/limit';
import { answer, joinAnswers, type Question } from '../../procedure/question';
import type { Trace } from '../../traces/trace';
import { sameSamples, type Samples } from '../../traces/own-samples';
import { closureChannels, pressedFrom, rangeOf, samplesOf } from './drive';
import type { BlendedUnit } from './geometry';
import { masterDifference, storeMargin, type Extreme, type ReadPressure } from './pressure-order';
import { asMeasured, isUnread, readLog, type Context } from './read-log';
import { driveStep } from './step-parts';

type Apart = Extreme;

function pressureIn(trace: Trace, channel: string, { instruments }: Context): ReadPressure | null {
  const samples = samplesOf(trace, channel);
  return samples && { samples, instrument: instruments.get(channel) };
}

const store: Question<Context, Apart, Apart> = {
  characteristics: ['store-margin'],
  happened: (trace, context) => {
    if (!context.unit.stored) return noEvidence({ code: 'no-store-fitted' });
    const read = readLog(trace, context);
    if (isUnread(read)) return read;
    const pressure = pressureIn(trace, 'accumulator_pressure', context);
    if (!pressure) return noEvidence({ code: 'channel-missing', channel: 'accumulator_pressure' });
    // Who brakes takes something out of a store: one number all along is no sensor.
    if (rangeOf(pressure.samples.value) === 0)
      return noEvidence({ code: 'gauge-never-moved', channel: 'accumulator_pressure' });
    return (
      storeMargin(pressure, read.drive, context.instruments, context.date) ?? noEvidence({ code: 'nobody-brakes' })
    );
  },
  shows: (margin) => evidence(margin),
  comesTo: ({ estimate, at, of: [pressure, wheel] }) => ({
    characteristics: [asMeasured('store-margin', estimate)],
    events: [{ id: 'store-lowest', time: at }],
    notes: [{ code: 'lowest-while-braking', channel: 'accumulator_pressure', pressure, wheel }],
  }),
};

const masterChannels = ['master_pressure', 'master_pressure_2'] as const;

interface Masters {
  readonly apart: Apart;
  readonly samples: readonly Samples[];
}

const masters: Question<Context, Masters, Masters> = {
  characteristics: ['master-difference'],
  happened: (trace, context) => {
    const [one, other] = masterChannels.map((each) => pressureIn(trace, each, context));
    if (!one || !other) return noEvidence({ code: 'channel-missing', channel: masterChannels[one ? 1 : 0] });
    const apart = masterDifference(one, other, context.date);
    return apart
      ? { apart, samples: [one.samples, other.samples] }
      : noEvidence({ code: 'no-hold', channel: masterChannels[0], seconds: 0.2 });
  },
  shows: (found) => {
    const [one, other] = found.samples;
    // One that moves and one that does not are apart; two that stand still agree on nothing.
    if (found.samples.every(({ value }) => rangeOf(value) < pressedFrom))
      return noEvidence({ code: 'gauge-never-moved', channel: masterChannels[0] });
    const alike = sameSamples(one, other);
    return evidence(
      found,
      [],
      alike ? [{ code: 'columns-alike', one: masterChannels[0], other: masterChannels[1] }] : [],
    );
  },
  comesTo: ({
    apart: {
      estimate,
      at,
      of: [one, other],
    },
  }) => ({
    characteristics: [asMeasured('master-difference', estimate)],
    events: [{ id: 'masters-apart', time: at }],
    notes: [{ code: 'masters-apart-at', one, other }],
  }),
};

const storeLimit = ({ storeMarginLeast }: BlendedUnit): Limit => ({
  characteristic: 'store-margin',
  low: storeMarginLeast,
  high: null,
  expected: null,
  standard: 0,
  source: { kind: 'sheet', field: 'storeMarginMinKpa' },
});

export const pressureOrder = driveStep({
  id: 'pressure-order',
  title: 'Order of the pressures',
  why: 'While the brakes work normally the store stands above every wheel, and the two sensors of the pedal agree. A store that sinks towards its wheels has no reserve left.',
  minutes: 2,
  characteristics: ['store-margin', 'master-difference'],
  needs: [],
  anyOf: [
    ['master_pressure', 'master_pressure_2'],
    ['accumulator_pressure', ...closureChannels],
  ],
  uses: ['accumulator_pressure', 'master_pressure', 'master_pressure_2', ...closureChannels],
  analyse: (trace, context) => joinAnswers([answer(store, trace, context), answer(masters, trace, context)]),
  limits: (_analysis, { unit }) => [
    ...(unit.stored ? [storeLimit(unit)] : []),
    atMost(
      'master-difference',
      { value: unit.masterDifferenceMost, source: { kind: 'sheet', field: 'masterDifferenceMaxKpa' } },
      { expected: 0 },
    ),
  ],
});
