import { turningPoint } from '../pictures/vacuum-along-pull';
import { extremes, readingsNow } from './readings-now';

describe('readings of a growing trace', () => {
  it('mean over the last moments, missing samples left out', () => {
    const time = Array.from({ length: 200 }, (_, i) => i / 200);
    const readings = readingsNow({
      time,
      columns: { input_pressure: time.map((t) => (t < 0.8 ? 0 : 5)), supply_vacuum: time.map(() => Number.NaN) },
    });
    expect(readings).toEqual({ input_pressure: 5 });
    expect(readingsNow({ time: [], columns: {} })).toEqual({});
  });

  it('finds where the pull turns and what was highest and lowest', () => {
    expect(turningPoint([0, 3, 9, 4, 1])).toBe(2);
    expect(extremes([4, -1, 7])).toEqual({ low: -1, high: 7 });
  });
});
