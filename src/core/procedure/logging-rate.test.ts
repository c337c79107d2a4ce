import fc from 'fast-check';
import { everyKind } from '../families';
import { makeTrace } from '../traces/trace';
import { loggedTooSlowly, ordinaryRate } from './logging-rate';
import type { LogFeed } from './step-definition';

const feed: LogFeed = { needs: ['rod_force', 'output_pressure'], uses: ['supply_vacuum'], leastRows: 10 };

/** A log of twelve seconds in which each channel has a sample so many times a second, the other cells empty. */
function logOf(rates: Readonly<Record<string, number>>, jitter = 0) {
  const rows = 50;
  const time = Float64Array.from({ length: 12 * rows }, (_, i) => (i + jitter * Math.sin(i * i)) / rows);
  const columns = Object.entries(rates).map(([channel, rate]) => [
    channel,
    time.map((t, i) => (i % Math.round(rows / rate) === 0 ? 3 * t + Math.sin(i * i) : Number.NaN)),
  ]);
  return makeTrace(time, Object.fromEntries(columns) as Record<string, Float64Array>);
}

describe('a log that was asked too seldom for a step', () => {
  it('is told by the first of its channels that was, and how far apart its readings are', () => {
    const slow = loggedTooSlowly(logOf({ rod_force: 50, output_pressure: 1 }), feed);
    expect(slow).toEqual({
      code: 'logged-too-slowly',
      channel: 'output_pressure',
      every: expect.closeTo(1, 6) as number,
      needed: ordinaryRate,
    });
  });

  it('is none at the rate that is needed, though its clock jitters, and none for what it only uses', () => {
    fc.assert(
      fc.property(fc.constantFrom(5, 10, 25, 50), fc.double({ min: 0, max: 0.4, noNaN: true }), (rate, jitter) => {
        const log = logOf({ rod_force: rate, output_pressure: rate, supply_vacuum: 1 }, jitter);
        expect(loggedTooSlowly(log, feed)).toBeNull();
      }),
    );
  });

  it('is judged by what the step says it needs, and by what it uses where it needs none', () => {
    const log = logOf({ rod_force: 1, output_pressure: 1 });
    expect(loggedTooSlowly(log, { ...feed, neededRate: 1 })).toBeNull();
    expect(loggedTooSlowly(log, { ...feed, neededRate: 0 })).toBeNull();
    expect(loggedTooSlowly(log, { ...feed, needs: [], uses: ['output_pressure'] })).toMatchObject({ needed: 5 });
    expect(loggedTooSlowly(log, { ...feed, needs: [], anyOf: [['rod_force']], uses: [] })).toMatchObject({ needed: 5 });
  });

  it('leaves to the step what it makes of a channel that is not there, or of a reading or two', () => {
    expect(loggedTooSlowly(logOf({ supply_vacuum: 1 }), feed)).toBeNull();
    const two = makeTrace(Float64Array.of(0, 4), {
      rod_force: Float64Array.of(1, 2),
      output_pressure: Float64Array.of(1, 2),
    });
    expect(loggedTooSlowly(two, feed)).toBeNull();
  });
});

it('no step of the stand-in runs slower than it needs its log to be', () => {
  for (const { steps } of everyKind)
    for (const step of steps) {
      if (step.kind !== 'measured' || !step.feeds.live) continue;
      const { rate = 200 } = step.feeds.live;
      expect([step.id, rate >= (step.feeds.log.neededRate ?? ordinaryRate)]).toEqual([step.id, true]);
    }
});
