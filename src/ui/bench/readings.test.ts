import { turningPoint } from '@/core/pictures/vacuum-along-pull';
import { barEnd, extremes, readingsNow } from './readings';

const lever = { channel: 'input_pressure', maximum: 3e6 };

describe('readings of the bench', () => {
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

  it('a bar has room for its band', () => {
    expect(barEnd('output_pressure', { output_pressure: [5e6, 7e6] }, lever)).toBeGreaterThan(7e6);
    expect(barEnd('supply_vacuum', {}, lever)).toBe(80_000);
  });
});
