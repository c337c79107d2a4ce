import fc from 'fast-check';
import { integrated, largestWindow } from './time-mean';

const samples = (time: readonly number[], of: (t: number) => number) => ({
  time: Float64Array.from(time),
  value: Float64Array.from(time, of),
});

describe('means over time', () => {
  it('of a straight line is its value in the middle of the window, however it was sampled', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.001, max: 0.2, noNaN: true }), { minLength: 30, maxLength: 80 }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (steps, slope) => {
          const time = steps.reduce<number[]>((all, step) => [...all, all[all.length - 1] + step], [0]);
          const end = time[time.length - 1];
          const { mean } = integrated(samples(time, (t) => 3 + slope * t));
          expect(mean(0.2 * end, 0.7 * end)).toBeCloseTo(3 + slope * 0.45 * end, 9);
        },
      ),
    );
  });

  it('leaves a gap out, and says nothing of a window that is mostly gap', () => {
    const time = [...Array.from({ length: 11 }, (_, i) => i / 10), ...Array.from({ length: 11 }, (_, i) => 5 + i / 10)];
    const { mean } = integrated(samples(time, (t) => (t < 3 ? 1 : 9)));
    expect(mean(0, 1)).toBeCloseTo(1, 9);
    expect(mean(0.5, 5.5)).toBeNaN();
    expect(mean(5, 6)).toBeCloseTo(9, 9);
  });

  it('finds the window of the largest mean', () => {
    const time = Array.from({ length: 400 }, (_, i) => i / 100);
    const found = largestWindow(
      samples(time, (t) => (t > 2 && t < 2.8 ? 30 : 1)),
      0.5,
    );
    expect(found!.from).toBeGreaterThanOrEqual(2);
    expect(found!.from).toBeLessThan(2.31);
    expect(found!.mean).toBeCloseTo(30, 6);
    expect(
      largestWindow(
        samples([0, 0.1], () => 1),
        0.5,
      ),
    ).toBeNull();
  });
});
