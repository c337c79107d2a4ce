import { makeTrace } from '@/core/traces/trace';
import { ShownSoFar } from './shown-so-far';

/** So many samples at 200 Hz from sample `from` on: a ramp, and one peak at sample 5,000. */
function samples(from: number, count: number) {
  const time = Float64Array.from({ length: count }, (_, i) => (from + i) / 200);
  return makeTrace(time, {
    ramp: time.map((t) => t),
    peak: Float64Array.from(time, (t) => (Math.round(t * 200) === 5000 ? 1 : 0)),
  });
}

describe('what screens are shown of a run so far', () => {
  it('is all of it while it is short', () => {
    const shown = new ShownSoFar(60_000);
    for (let i = 0; i < 50; i++) shown.add(samples(i * 1000, 1000));
    expect(shown.whole()).toEqual(samples(0, 50_000));
  });

  it('stays about as long, keeps what is newest as it is and the peaks of what is old', () => {
    const shown = new ShownSoFar(60_000);
    let longest = 0;
    for (let i = 0; i < 3000; i++) {
      shown.add(samples(i * 1000, 1000));
      if (i % 500 === 499) longest = Math.max(longest, shown.whole().time.length);
    }
    const { time, columns } = shown.whole();
    expect(longest).toBeLessThan(75_000);
    expect([time[0], time.at(-1)]).toEqual([0, (3_000_000 - 1) / 200]);
    expect(Math.max(...columns.peak)).toBe(1);
    const steps = Array.from(time.slice(1), (each, i) => each - time[i]);
    expect(steps.every((step) => step > 0)).toBe(true);
    expect(Math.max(...steps.slice(-8000))).toBeCloseTo(1 / 200, 9);
  });

  it('takes what an interrupted run had recorded, as if it had come bit by bit', () => {
    const shown = new ShownSoFar(60_000);
    shown.add(samples(0, 1_000_000));
    const { time, columns } = shown.whole();
    expect(time.length).toBeLessThan(75_000);
    expect([time[0], time.at(-1), Math.max(...columns.peak)]).toEqual([0, 999_999 / 200, 1]);
  });

  it('nothing is nothing', () => {
    const shown = new ShownSoFar(10);
    shown.add(makeTrace(new Float64Array(0), {}));
    expect(shown.whole().time.length).toBe(0);
  });
});
