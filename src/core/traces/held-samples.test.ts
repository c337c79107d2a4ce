import fc from 'fast-check';
import { randomSource } from '../physics/random';
import { asGiven, timesWritten } from './held-samples';
import type { Samples } from './own-samples';

const rows = 4000;
const at = (every: number, of: (time: number) => number): Samples => {
  const time = Float64Array.from({ length: rows }, (_, i) => i * every);
  return { time, value: time.map(of) };
};

/** Every sample written again until the next one came. */
function held({ time, value }: Samples, written: number, from = 0): Samples {
  return { time, value: value.map((_, i) => value[Math.max(0, i - ((i + from) % written))]) };
}

const noisy = (seed: number, of: (time: number) => number, sigma: number) => {
  const random = randomSource(seed);
  return at(0.01, (t) => of(t) + sigma * random.normal());
};

const strokes = (t: number) => 30 * Math.max(0, Math.sin(t / 2)) ** 3;

describe('samples that a logger wrote again', () => {
  it('are counted as often as they were written, whatever the channel does', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        fc.nat(39),
        fc.integer({ min: 1, max: 99 }),
        (written, from, seed) => {
          const samples = held(noisy(seed, strokes, 0.05), written, from);
          expect(timesWritten(samples)).toBe(written);
          const given = asGiven(samples, written);
          // Every sample once, at the first of the rows that it stands in.
          expect(given.time.length).toBe(Math.ceil((rows + (from % written)) / written));
          given.time.forEach((time, i) => expect(given.value[i]).toBe(samples.value[Math.round(time / 0.01)]));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are told from a channel that was written as it came', () => {
    expect(timesWritten(noisy(1, strokes, 0.05))).toBe(1);
    expect(timesWritten(noisy(2, () => 5, 0.05))).toBe(1);
    expect(timesWritten(at(0.01, strokes))).toBe(1);
  });

  it('and from one that is only coarse, slow or a switch', () => {
    const divided = (size: number, of: (t: number) => number) => at(0.01, (t) => size * Math.round(of(t) / size));
    for (const size of [0.5, 1, 2, 5]) expect(timesWritten(divided(size, strokes))).toBe(1);
    expect(timesWritten(divided(0.5, (t) => 80 - t / 20))).toBe(1);
    expect(timesWritten(at(0.01, (t) => (t % 3 < 1 ? 1 : 0)))).toBe(1);
    // A charge that is another at every stop.
    expect(timesWritten(at(0.5, (t) => Math.sin(Math.floor(t / 13) ** 2)))).toBe(1);
  });

  it('what rests is given as often as it would have been', () => {
    const resting = held(
      noisy(3, (t) => (t < 20 ? strokes(t) : 7), 0.02),
      10,
    );
    const still = { time: resting.time, value: resting.value.map((value, i) => (resting.time[i] < 20 ? value : 7)) };
    const { time } = asGiven(still, timesWritten(still));
    const gaps = [...time.subarray(1)].map((t, i) => t - time[i]);
    expect(Math.max(...gaps)).toBeLessThan(0.11);
  });
});
