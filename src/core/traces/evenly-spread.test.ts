import fc from 'fast-check';
import { evenlySpread } from './evenly-spread';
import { ownInterval, scatterOf } from './own-samples';

describe('values evenly spread over a column', () => {
  it('are all of a short one, and never more than are asked for of a long one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 1, max: 500 }), (length, most) => {
        const found = evenlySpread(length, (i) => i, most);
        expect(found.length).toBe(Math.min(length, most));
        for (let i = 0; i < found.length; i++) {
          expect(found[i]).toBeLessThan(length);
          if (i > 0) expect(found[i]).toBeGreaterThan(found[i - 1]);
        }
      }),
    );
  });

  it.each([7, 13, 16, 32])('meet what a logger does every %d rows in all its phases', (period) => {
    const found = evenlySpread(1_048_576, (i) => (i % period === 3 ? 1 : 0));
    const share = found.reduce((sum, each) => sum + each, 0) / found.length;
    expect(share).toBeCloseTo(1 / period, 2);
  });
});

it('the scatter of a long column in which each sample stands for sixteen rows is that of a short one', () => {
  const value = (rows: number) => Float64Array.from({ length: rows }, (_, i) => Math.sin(12.9898 * Math.floor(i / 16)));
  expect(scatterOf({ value: value(1_048_576) })).toBe(scatterOf({ value: value(16_000) }));
});

it('the interval of a long clock that stumbles every sixteenth row is its usual one', () => {
  const time = Float64Array.from({ length: 1_048_576 }, (_, i) => i / 1000 + Math.floor(i / 16) * 0.05);
  expect(ownInterval({ time })).toBeCloseTo(0.001, 6);
});
