import fc from 'fast-check';
import type { Limit } from '../procedure/limit';
import { measureOf, placeOf, scaleOf, seenOf, valueAt } from './figure';

const limit = (over: Partial<Limit>): Limit => ({
  characteristic: 'leak-flow',
  low: null,
  high: null,
  expected: null,
  standard: 0,
  source: { kind: 'sheet', field: 'leakFlowMaxCm3PerMin' },
  ...over,
});

const scale = fc.record({
  reference: fc.double({ min: -1e3, max: 1e3, noNaN: true }),
  per: fc.double({ min: 0.1, max: 1e3, noNaN: true }),
});

describe('the coordinate of a figure', () => {
  it('comes back to the value that it was made of', () => {
    fc.assert(
      fc.property(scale, fc.double({ min: -1e4, max: 1e4, noNaN: true }), (on, value) => {
        expect(valueAt(placeOf(value, on), on)).toBeCloseTo(value, 5);
      }),
    );
  });

  it('is nothing where a sound unit lies, and rises with the value', () => {
    fc.assert(
      fc.property(scale, fc.double({ min: 0.01, max: 1e3, noNaN: true }), (on, more) => {
        expect(placeOf(on.reference, on)).toBe(0);
        expect(placeOf(on.reference + more, on)).toBeGreaterThan(0);
      }),
    );
  });

  it('holds what has an expected value against that, and what should be nothing against its limit', () => {
    expect(measureOf(limit({ low: 8, high: 12, expected: 10 }), undefined)).toBe('share');
    expect(measureOf(limit({ high: 55, expected: 0 }), undefined)).toBe('limit');
    expect(measureOf(limit({ high: 55 }), undefined)).toBe('limit');
    expect(measureOf(undefined, 7)).toBe('share');
    expect(measureOf(undefined, undefined)).toBeNull();
    expect(scaleOf('share', limit({ low: 8, high: 12 }), undefined)).toEqual({ reference: 10, per: 10 });
    expect(scaleOf('limit', limit({ high: 55 }), undefined)).toEqual({ reference: 0, per: 55 });
  });

  it('says nothing where there is nothing to hold it against', () => {
    expect(scaleOf('limit', undefined, 0)).toBeNull();
    expect(scaleOf('share', limit({ high: 5 }), undefined)).toBeNull();
  });

  it('carries the uncertainty of the reading and of the limit', () => {
    const estimate = { value: 55, components: [{ source: 'fit' as const, standard: 3, random: true }] };
    const seen = seenOf({ kind: 'measured', id: 'leak-flow', estimate }, { reference: 0, per: 55 }, 4);
    expect(seen.kind).toBe('measured');
    // d asinh(x) at the limit itself: 1/√2 of the share of the limit.
    if (seen.kind === 'measured') expect(seen.standard).toBeCloseTo(5 / 55 / Math.SQRT2, 6);
  });
});
