import { dice } from '../../../../tests/support/second-writer/logger';
import { earlyCall, earliestCall } from './early-call';

/** A hold of 60 s watched for `at` seconds at 10 Hz; what it has lost (Pa) by time. */
function called(lost: (t: number) => number, at: number, limit: number, seed = 4) {
  const luck = dice(seed);
  const time = Array.from({ length: Math.round(at * 10) + 1 }, (_, i) => i / 10);
  const value = time.map((t) => 58_000 - lost(t) + 15 * luck.normal());
  return earlyCall({ time, value, seconds: 60, limit, gauge: () => 20, ambient: 85_400 }).kind;
}

describe('a hold that is called before its time', () => {
  it('is never called before a fifth of it and five seconds', () => {
    expect(earliestCall(60)).toBe(12);
    expect(earliestCall(15)).toBe(5);
    expect(called((t) => 500 * t, 11, 3_300)).toBe('too-early');
  });

  it('passes where an even leak stays far below its limit, fails where it goes far beyond it', () => {
    expect(called((t) => 10 * t, 40, 3_300)).toBe('pass');
    expect(called((t) => 160 * t, 20, 3_300)).toBe('fail');
    expect(called((t) => 55 * t, 20, 3_300)).toBe('open');
  });

  it('fails only if even a leak that dies down to six tenths would', () => {
    // 83 Pa/s comes to 5 kPa, but after a third of the time, 1.7 kPa gone, six tenths of the rest make 3.7 kPa.
    expect(called((t) => 83 * t, 20, 3_300)).toBe('fail');
    expect(called((t) => 83 * t, 20, 4_200)).toBe('open');
  });

  it('does not pass a leak that grows with time while it may still reach the limit', () => {
    // A hundredth of the samples’ noise away from even, and twice the limit at the end.
    const grows = (t: number) => 1.4 * t * t;
    expect(grows(60)).toBeGreaterThan(3_300);
    for (let seed = 1; seed <= 12; seed++) expect(called(grows, 15, 3_300, seed)).not.toBe('pass');
  });

  it('stays open where an even leak passes but the samples would allow one that grows past the limit', () => {
    // 18 Pa/s comes to 1.1 kPa; noise of 15 Pa over 12 s allows it to bend by as much as the rest of the way to the limit.
    const calls = Array.from({ length: 20 }, (_, seed) => called((t) => 18 * t, 12, 1_500, seed + 1));
    expect(calls.filter((kind) => kind === 'pass').length).toBe(0);
    expect(calls.every((kind) => kind === 'open')).toBe(true);
  });
});
