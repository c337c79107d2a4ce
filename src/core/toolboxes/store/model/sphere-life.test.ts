import fc from 'fast-check';
import { randomSource } from '../../../physics/random';
import { forecastSphere, type SphereCheck } from './sphere-life';

const year = 365;
const loses = (perYear: number, years: readonly number[], seed = 1): SphereCheck[] => {
  const random = randomSource(seed);
  return years.map((at) => ({
    day: 20_000 + at * year,
    precharge: 6.2e6 - perYear * at + 8e3 * random.normal(),
    standard: 15e3,
  }));
};

describe('life of a sphere', () => {
  it('finds the day that a steady loss crosses its limit, with a band about it', () => {
    const forecast = forecastSphere(loses(100e3, [0, 0.5, 1, 1.5, 2, 2.5, 3]), 5.58e6);
    if (forecast.kind !== 'line') throw new Error('expected a line');
    const truth = 20_000 + 6.2 * year;
    expect(Math.abs((forecast.crosses ?? 0) - truth)).toBeLessThan(0.6 * year);
    expect(forecast.mayCross ?? 0).toBeLessThan(forecast.crosses ?? 0);
    expect(forecast.nextCheck).toBeLessThanOrEqual(forecast.mayCross ?? Infinity);
  });

  it('the band holds the truth in most cases', () => {
    const covered = Array.from({ length: 300 }, (_, seed) => {
      const forecast = forecastSphere(loses(60e3, [0, 0.5, 1, 1.6, 2.2, 3], seed + 1), 5.58e6);
      if (forecast.kind !== 'line') return false;
      const { low, high } = forecast.at(20_000 + 4 * year);
      const truth = 6.2e6 - 240e3;
      return truth >= low && truth <= high;
    }).filter(Boolean).length;
    expect(covered / 300).toBeGreaterThan(0.93);
  });

  it('one check, or two on one day, say nothing of the future', () => {
    expect(forecastSphere(loses(0, [0]), 5e6).kind).toBe('too-few');
    expect(forecastSphere(loses(0, [0, 0.01]), 5e6).kind).toBe('too-few');
  });

  it('is looked at again within two years, whatever it loses', () => {
    fc.assert(
      fc.property(fc.double({ min: -50e3, max: 900e3, noNaN: true }), (perYear) => {
        const checks = loses(perYear, [0, 1, 2]);
        const { nextCheck } = forecastSphere(checks, 5.58e6);
        const last = checks[2].day;
        expect(nextCheck).toBeGreaterThan(last);
        expect(nextCheck).toBeLessThanOrEqual(last + 730);
      }),
    );
  });

  it('a loss in proportion is seen as one where enough checks show it', () => {
    const checks = [0, 1, 2, 3, 4, 5, 6].map((at) => ({
      day: 20_000 + at * year,
      precharge: 6e6 * Math.exp(-0.25 * at),
      standard: 10e3,
    }));
    const forecast = forecastSphere(checks, 1e6);
    expect(forecast.kind === 'line' && forecast.shape).toBe('exponential');
  });
});
