import { makeTrace } from './trace';
import { together } from './together';

const nan = Number.NaN;

describe('channels on one set of rows', () => {
  it('is the trace itself where all share their rows', () => {
    const trace = makeTrace(Float64Array.of(0, 1, 2), { a: Float64Array.of(1, 2, 3), b: Float64Array.of(4, 5, 6) });
    expect(together(trace, ['a', 'b'])).toBe(trace);
  });

  it('reads the quicker channel where the slower one was sampled, straight between its own samples', () => {
    const trace = makeTrace(Float64Array.of(0, 1, 2, 3, 4), {
      quick: Float64Array.of(0, nan, 20, 30, 40),
      slow: Float64Array.of(nan, 7, nan, nan, 9),
    });
    const rows = together(trace, ['quick', 'slow']);
    expect([...rows.time]).toEqual([1, 4]);
    expect([...rows.columns.slow]).toEqual([7, 9]);
    expect([...rows.columns.quick]).toEqual([10, 40]);
  });

  it('fills nothing in across a gap', () => {
    const time = Float64Array.from({ length: 12 }, (_, i) => i);
    const trace = makeTrace(time, {
      quick: time.map((t) => (t > 2 && t < 9 ? nan : t)),
      slow: time.map((t) => (t % 5 === 0 ? t : nan)),
    });
    expect([...together(trace, ['quick', 'slow']).columns.quick]).toEqual([0, nan, 10]);
  });
});
