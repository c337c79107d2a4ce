import fc from 'fast-check';
import { coverageFactor, coverageOf } from './coverage-factor';
import { combinedStandard, effectiveFreedom, expandedUncertainty, random, systematic } from './uncertainty';

describe('coverage by degrees of freedom', () => {
  it.each([
    [1, 13.97],
    [3, 3.31],
    [10, 2.28],
    [30, 2.09],
    [Infinity, 2],
  ])('of %d degrees it is that of Student’s t', (freedom, factor) => {
    expect(coverageOf(freedom)).toBeCloseTo(factor, 6);
  });

  it('between the rows it lies within two in a hundred of Student’s t', () => {
    // 95.45 % of t by 9, 13, 25 and 45 degrees.
    for (const [freedom, factor] of [
      [9, 2.32],
      [13, 2.21],
      [25, 2.11],
      [45, 2.06],
    ])
      expect(Math.abs(coverageOf(freedom) / factor - 1)).toBeLessThan(0.02);
  });

  it('never falls below that of many, and never rises with what is known', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 1e4, noNaN: true }),
        fc.double({ min: 0, max: 1e4, noNaN: true }),
        (f, more) => {
          expect(coverageOf(f)).toBeGreaterThanOrEqual(coverageFactor);
          expect(coverageOf(f + more)).toBeLessThanOrEqual(coverageOf(f) + 1e-12);
        },
      ),
    );
  });
});

describe('U of parts that few readings tell', () => {
  it('is twice the standard where none of them is told by few', () => {
    const components = [random('noise', 3), systematic('gauge-gain', 4)];
    expect(effectiveFreedom({ components })).toBe(Infinity);
    expect(expandedUncertainty({ value: 0, components })).toBeCloseTo(10, 9);
  });

  it('follows Welch and Satterthwaite: what matters little by itself widens little', () => {
    const few = random('repeats', 1, 1);
    const alone = { value: 0, components: [few] };
    expect(expandedUncertainty(alone)).toBeCloseTo(13.97, 6);
    const beside = { value: 0, components: [few, systematic('gauge-gain', 5)] };
    expect(effectiveFreedom(beside)).toBeCloseTo(26 ** 2, 6);
    expect(expandedUncertainty(beside) / combinedStandard(beside)).toBeLessThan(2.01);
  });
});

/** Normal deviates by two uniform ones. */
function deviate(seed: { value: number }): number {
  const next = () => {
    seed.value = (seed.value * 1103515245 + 12345) % 2147483648;
    return (seed.value + 0.5) / 2147483648;
  };
  return Math.sqrt(-2 * Math.log(next())) * Math.cos(2 * Math.PI * next());
}

it.each([2, 3, 5, 10])('the mean of %d scattered readings lies within U in about 95 of 100 cases', (count) => {
  const seed = { value: 7 };
  let within = 0;
  const cases = 4_000;
  for (let i = 0; i < cases; i++) {
    const readings = Array.from({ length: count }, () => deviate(seed));
    const mean = readings.reduce((sum, each) => sum + each, 0) / count;
    const variance = readings.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (count - 1) / count;
    const standard = Math.sqrt(variance);
    if (Math.abs(mean) <= expandedUncertainty({ value: mean, components: [random('repeats', standard, count - 1)] }))
      within++;
  }
  expect(within / cases).toBeGreaterThan(0.94);
  expect(within / cases).toBeLessThan(0.97);
});
