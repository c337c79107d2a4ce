import fc from 'fast-check';
import { dice, goodGauge, writeLog } from '../../../tests/support/second-writer/logger';
import { writtenBetween, writtenOver } from '../../../tests/support/second-writer/other-rows';
import { ownSamples, type Samples } from './own-samples';
import { rowsToASample } from './rows-to-a-sample';
import type { Trace } from './trace';

const gauging = { ...goodGauge, white: 5e3, division: 1e3 };

/** A store that charges for a few seconds, by a logger that asks so many times a second. */
function charge(seed: number, rate: number): Trace {
  const level = (t: number) => 1e6 * Math.min(8, Math.max(0, t - 2));
  return writeLog({ accumulator_pressure: { at: level, gauging } }, { seconds: 12, rate, jitter: 0.1 }, dice(seed));
}

const samplesOf = (log: Trace): Samples => ownSamples(log, log.columns.accumulator_pressure);
const column = (value: readonly number[]): Samples => ({
  time: Float64Array.from(value, (_, i) => i / 10),
  value: Float64Array.from(value),
});

describe('rows that a log has to each sample', () => {
  it('are told from the few samples that a tool wrote again, or drew lines between', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), fc.constantFrom(8, 10, 25), (seed, times) => {
        expect(rowsToASample(samplesOf(writtenOver(charge(seed, 1), times)))).toBe(times);
        expect(rowsToASample(samplesOf(writtenBetween(charge(seed, 1), times)))).toBe(times);
      }),
      { numRuns: 30 },
    );
  });

  it('are one where each row is a sample, however fine or coarse the gauge', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 999 }), fc.constantFrom(1, 5, 50), (seed, rate) => {
        expect(rowsToASample(samplesOf(charge(seed, rate)))).toBe(1);
      }),
      { numRuns: 30 },
    );
    // A coarse gauge without noise on an even slope steps by one division every fourth row.
    expect(rowsToASample(column(Array.from({ length: 80 }, (_, i) => Math.floor(i / 4))))).toBe(1);
  });

  it('are one where a lever only turns at whole seconds', () => {
    const turns = [0, 0, 40, 40, 40, 40, 55, 10, 10, 0, 0];
    const lever = Array.from({ length: 100 }, (_, i) => {
      const [from, to] = [turns[Math.floor(i / 10)], turns[Math.floor(i / 10) + 1]];
      return from + ((to - from) * (i % 10)) / 10;
    });
    expect(rowsToASample(column(lever.slice(0, 70)))).toBe(1);
  });

  it('are one of what never moved, and of nothing', () => {
    expect(rowsToASample(column(Array<number>(50).fill(3)))).toBe(1);
    expect(rowsToASample(column([]))).toBe(1);
  });
});
