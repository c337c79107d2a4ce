import fc from 'fast-check';
import type { TimelineLane } from '../procedure/picture';
import { lanesWithin, sentLanes, wholeOf } from './timeline-window';

const lane = (value: Float64Array, step = 0.02, start = 100): TimelineLane => ({
  title: 'Torque',
  as: 'torque',
  height: 1,
  lines: [{ title: 'Requested', drawn: 'line', time: value.map((_, i) => start + i * step), value }],
});

describe('a window on a long time-line', () => {
  it('keeps the highest and the lowest of a million points, wherever they are', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 999_999 }), fc.integer({ min: 0, max: 999_999 }), (peak, dip) => {
        fc.pre(peak !== dip);
        const value = new Float64Array(1_000_000);
        value[peak] = 9;
        value[dip] = -9;
        const lanes = [lane(value)];
        const [{ lines }] = lanesWithin(lanes, wholeOf(lanes)!, 900);
        expect(Math.max(...lines[0].value)).toBe(9);
        expect(Math.min(...lines[0].value)).toBe(-9);
        expect(lines[0].value.length).toBeLessThanOrEqual(1802);
      }),
      { numRuns: 20 },
    );
  });

  it('shows every sample once few enough are looked at, and one more on either side', () => {
    const lanes = [lane(Float64Array.from({ length: 1000 }, (_, i) => i))];
    const [{ lines }] = lanesWithin(lanes, { from: 104, to: 105 }, 900);
    expect(lines[0].time[0]).toBeCloseTo(103.98, 9);
    expect(lines[0].time.at(-1)).toBeCloseTo(105.02, 9);
    expect(lines[0].value.length).toBe(53);
  });

  it('a gap stays a gap, and goes to a page as nothing', () => {
    const value = Float64Array.from({ length: 400 }, (_, i) => (i >= 100 && i < 300 ? Number.NaN : 1));
    const lanes = [lane(value)];
    const [{ lines }] = sentLanes(lanesWithin(lanes, wholeOf(lanes)!, 40));
    const silent = lines[0].points.filter(([, each]) => each === null);
    expect(silent.length).toBe(20);
    expect(silent.every(([at]) => at >= 102 && at < 106)).toBe(true);
  });

  it('of nothing there is no window', () => {
    expect(wholeOf([lane(new Float64Array())])).toBeNull();
  });
});
