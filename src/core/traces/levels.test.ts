import fc from 'fast-check';
import { makeTrace } from './trace';
import { randomSource } from '../physics/random';
import { findLevels } from './levels';
import { findStrokes } from './strokes';
import { heldSeconds, lowestHeld } from './lowest-held';

const rate = 200;

/** A lever moved from level to level: `held` seconds on each, half a second between, noise of a gauge on it. */
function stairs(levels: readonly number[], { held = 2.5, noise = 0, seed = 3 } = {}) {
  const random = randomSource(seed);
  const between = 0.5;
  const whole = held + between;
  const length = Math.round((levels.length * whole - between) * rate);
  const time = Float64Array.from({ length }, (_, i) => i / rate);
  const column = time.map((t) => {
    const at = Math.min(levels.length - 1, Math.floor(t / whole));
    const into = t - at * whole - held;
    const next = levels[Math.min(levels.length - 1, at + 1)];
    const value = into <= 0 ? levels[at] : levels[at] + ((next - levels[at]) * into) / between;
    return value + noise * random.normal();
  });
  return { trace: makeTrace(time, { input_pressure: column }), column };
}

describe('levels that a lever stood on', () => {
  const heights = fc
    .uniqueArray(fc.integer({ min: 1, max: 40 }), { minLength: 3, maxLength: 7 })
    .map((steps) => steps.map((step) => step * 100e3));

  it('are found where it stood and nowhere else, in order, within the noise', () => {
    fc.assert(
      fc.property(heights, fc.integer({ min: 1, max: 1e6 }), (levels, seed) => {
        const { trace, column } = stairs(levels, { noise: 4e3, seed });
        const found = findLevels(trace, column);
        expect(found.map((level) => Math.round(level.mean / 100e3) * 100e3)).toEqual(levels);
        found.forEach((level, i) => expect(Math.abs(level.mean - levels[i])).toBeLessThan(2.5e3));
      }),
      { numRuns: 60 },
    );
  });

  it('a stop of half a second is no level', () => {
    const { trace, column } = stairs([1e6, 2e6, 3e6], { held: 0.5 });
    expect(findLevels(trace, column)).toEqual([]);
  });

  it('an even ramp has none', () => {
    const time = Float64Array.from({ length: 4000 }, (_, i) => i / rate);
    const column = time.map((t) => t * 200e3);
    expect(findLevels(makeTrace(time, { input_pressure: column }), column)).toEqual([]);
  });
});

describe('the lowest level that was held', () => {
  const time = Float64Array.from({ length: 2000 }, (_, i) => i / rate);
  const dipOf = (seconds: number) => time.map((t) => (t >= 4 && t < 4 + seconds ? 20e3 : 60e3));
  const found = (column: Float64Array, from = 0, to = column.length) =>
    lowestHeld(makeTrace(time, { supply_vacuum: column }), column, { from, to });

  it('is a dip of half a second or more', () => {
    expect(found(dipOf(2))?.mean).toBeCloseTo(20e3, 3);
    expect(found(dipOf(heldSeconds + 0.02))?.mean).toBeCloseTo(20e3, 3);
  });

  it('is not the bottom of a shorter one: a spike does not count', () => {
    expect(found(dipOf(0.1))?.mean).toBeGreaterThan(48e3);
  });

  it('lies inside its span, and a span that is too short has none', () => {
    expect(found(dipOf(2), 0, 700)?.mean).toBeCloseTo(60e3, 3);
    expect(found(dipOf(2), 0, 50)).toBeNull();
  });

  it('is less sure the more the gauge trembles', () => {
    const trembling = (size: number) => {
      const random = randomSource(9);
      return found(dipOf(3).map((value) => value + size * random.normal()))?.standard ?? Number.NaN;
    };
    expect(trembling(400)).toBeGreaterThan(5 * trembling(20));
  });
});

describe('strokes of a lever', () => {
  /** Strokes of the given heights, a second each, a second apart. */
  function strokesOf(heights: readonly number[], noise = 0) {
    const random = randomSource(5);
    const length = (heights.length * 2 + 1) * rate;
    const time = Float64Array.from({ length }, (_, i) => i / rate);
    const column = time.map((t) => {
      const at = Math.floor((t - 1) / 2);
      const down = t >= 1 && t - 1 - at * 2 < 1 && at < heights.length;
      return (down ? heights[at] : 0) + noise * random.normal();
    });
    return findStrokes(makeTrace(time, { pedal_force: column }), column);
  }

  it('are counted, each with its own level', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 160, max: 250 }), { minLength: 1, maxLength: 9 }), (heights) => {
        const found = strokesOf(heights, 0.5);
        expect(found).toHaveLength(heights.length);
        found.forEach((stroke, i) => expect(Math.abs(stroke.level - heights[i])).toBeLessThan(1));
      }),
      { numRuns: 40 },
    );
  });

  it('a touch below half of the highest is none', () => {
    expect(strokesOf([200, 80, 200])).toHaveLength(2);
  });

  it('a lever that only trembles has none', () => {
    const random = randomSource(6);
    const time = Float64Array.from({ length: 2000 }, (_, i) => i / rate);
    const column = time.map(() => 3 * random.normal());
    expect(findStrokes(makeTrace(time, { pedal_force: column }), column)).toEqual([]);
  });
});
