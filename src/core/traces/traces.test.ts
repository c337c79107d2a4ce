import fc from 'fast-check';
import { randomSource } from '../physics/random';
import { minMaxIndices, pathIndices } from './decimate';
import { findPull, isPull } from './pull';
import { movingMean, noiseOf } from './smoothing';
import { concatTraces, indexAtTime, makeTrace, meanOf, sampleInterval, sliceTrace } from './trace';

const numbers = fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 400 });

describe('traces', () => {
  it('slices and joins without losing a sample', () => {
    const time = Float64Array.from({ length: 10 }, (_, i) => i);
    const trace = makeTrace(time, { input_pressure: time.map((t) => t * t) });
    const joined = concatTraces([sliceTrace(trace, 0, 4), sliceTrace(trace, 4, 10)]);
    expect(joined).toEqual(trace);
    expect(indexAtTime(trace, 3.5)).toBe(4);
    expect(sampleInterval(trace)).toBe(1);
  });

  it('refuses a column of another length, and fills a channel that one part lacks with missing samples', () => {
    const time = Float64Array.of(0, 1);
    expect(() => makeTrace(time, { a: Float64Array.of(1) })).toThrow('1 samples');
    const joined = concatTraces([makeTrace(time, { a: Float64Array.of(1, 2) }), makeTrace(time, {})]);
    expect([...joined.columns.a]).toEqual([1, 2, Number.NaN, Number.NaN]);
  });

  it('a mean beyond the ends is a mean of what there is', () => {
    const column = Float64Array.of(1, 2, 3);
    expect(meanOf(column, -Infinity, Infinity)).toEqual(meanOf(column));
    expect(meanOf(column, 5, 9).count).toBe(0);
  });

  it('knows its sample interval where stamps are shared, and none where the clock stands still', () => {
    const paired = Float64Array.from({ length: 41 }, (_, i) => Math.floor(i / 2) * 0.01);
    expect(sampleInterval(makeTrace(paired, {}))).toBeCloseTo(0.005, 12);
    expect(sampleInterval(makeTrace(new Float64Array(20).fill(3), {}))).toBeNaN();
    expect(sampleInterval(makeTrace(Float64Array.of(1), {}))).toBeNaN();
  });

  it('the zero of a pull is read from the rest alone, however fast the pull begins', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40e3, max: 40e3, noNaN: true }),
        fc.double({ min: 50e3, max: 4e6, noNaN: true }),
        fc.integer({ min: 1, max: 1e6 }),
        (offset, speed, seed) => {
          const random = randomSource(seed);
          const rate = 200;
          const top = 2.4e6;
          const seconds = 2 + (2 * top) / speed + 2;
          const time = Float64Array.from({ length: Math.round(seconds * rate) }, (_, i) => i / rate);
          const column = time.map((t) => {
            const up = (t - 2) * speed;
            const truth = Math.max(0, Math.min(up, top, (seconds - 1 - t) * speed));
            return offset + truth + 8e3 * random.normal();
          });
          const pull = findPull(makeTrace(time, { input_pressure: column }), column);
          if (!isPull(pull)) throw new Error('there is a pull');
          // Two seconds of noise of 8 kPa at 200 Hz are worth 0.4 kPa; four of those.
          expect(Math.abs((pull.zero ?? Number.NaN) - offset)).toBeLessThan(1.7e3);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('means leave missing samples out', () => {
    expect(meanOf(Float64Array.of(1, Number.NaN, 3))).toEqual({ mean: 2, deviation: Math.SQRT2, count: 2 });
    expect([...movingMean(Float64Array.of(Number.NaN, 2, 4), 1)]).toEqual([2, 3, 3]);
  });

  it('a moving mean of a line is the line', () => {
    const line = Float64Array.from({ length: 50 }, (_, i) => 3 * i);
    const smooth = movingMean(line, 4);
    for (let i = 4; i < 46; i++) expect(smooth[i]).toBeCloseTo(line[i], 9);
  });

  it('tells the noise of a channel on a ramp', () => {
    const source = randomSource(1);
    const ramp = Float64Array.from({ length: 4000 }, (_, i) => 50 * i + 8000 * source.normal());
    expect(noiseOf(ramp) / 8000).toBeCloseTo(1, 1);
  });
});

describe('decimation', () => {
  it('never loses the highest or the lowest', () => {
    fc.assert(
      fc.property(numbers, fc.integer({ min: 1, max: 50 }), (values, buckets) => {
        const kept = minMaxIndices(values, buckets).map((i) => values[i]);
        expect(Math.max(...kept)).toBe(Math.max(...values));
        expect(Math.min(...kept)).toBe(Math.min(...values));
        expect(kept.length).toBeLessThanOrEqual(2 * buckets + 2);
      }),
    );
  });

  it('keeps a drawn path within a step of every sample', () => {
    fc.assert(
      fc.property(numbers, (values) => {
        const kept = pathIndices(values, values, 1000, 1000);
        let last = 0;
        for (let i = 0; i < values.length; i++) {
          if (kept.includes(i)) last = i;
          else expect(Math.abs(values[i] - values[last])).toBeLessThan(1000);
        }
      }),
    );
  });
});

describe('pull', () => {
  const shape = (t: number) =>
    t < 2 ? 0 : t < 22 ? 1e5 * (t - 2) : t < 24 ? 2e6 : t < 40 ? Math.max(0, 2e6 - 1.25e5 * (t - 24)) : 0;
  const pulled = (end: number, from = 0, sigma = 8000) => {
    const source = randomSource(7);
    const time = Float64Array.from({ length: (end - from) * 200 }, (_, i) => from + i / 200);
    const column = time.map((t) => shape(t) + 30e3 + sigma * source.normal());
    return findPull(makeTrace(time, { input_pressure: column }), column);
  };

  it('finds rest, apply, plateau and way back, and reads the zero', () => {
    const pull = pulled(43);
    if (!isPull(pull)) throw new Error('no pull');
    expect(pull.zero).toBeCloseTo(30e3, -3.5);
    expect(pull.apply.from / 200).toBeGreaterThan(1.8);
    expect(pull.apply.from / 200).toBeLessThan(2.6);
    expect(pull.apply.to / 200).toBeGreaterThan(21);
    expect(pull.wayBack.from / 200).toBeLessThan(24.6);
    expect(pull.wayBack.to / 200).toBeGreaterThan(39);
  });

  it('a trace that starts in the pull has no zero, and one that ends in it no way back', () => {
    const late = pulled(43, 3);
    const early = pulled(23);
    if (!isPull(late) || !isPull(early)) throw new Error('no pull');
    expect(late.zero).toBeNull();
    expect(early.wayBack.to - early.wayBack.from).toBe(0);
  });

  it('noise alone is no pull', () => {
    const source = randomSource(3);
    const time = Float64Array.from({ length: 2000 }, (_, i) => i / 200);
    const column = time.map(() => 8000 * source.normal());
    expect(findPull(makeTrace(time, {}), column)).toEqual({ code: 'no-pull' });
  });
});
