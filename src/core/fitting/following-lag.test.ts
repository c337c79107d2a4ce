import { dice } from '../../../tests/support/second-writer/logger';
import { followingLag, lagged } from './following-lag';

/** A pull of 12 s to 100, held 2 s, and back in 10 s, at `rate` Hz; the output by a curve, `late` seconds behind. */
function pull(rate: number, late: number, curve: (lever: number) => number, seed: number) {
  const luck = dice(seed);
  const fine = 2000;
  const lever = (t: number) =>
    t < 1 ? 0 : t < 13 ? (100 * (t - 1)) / 12 : t < 15 ? 100 : Math.max(0, 100 - 10 * (t - 15));
  const steps = Float64Array.from({ length: 27 * fine }, (_, i) => i / fine);
  const smooth = lagged(
    steps,
    steps.map((t) => curve(lever(t))),
    late,
  );
  const time = Float64Array.from({ length: 27 * rate }, (_, i) => i / rate);
  const driver = time.map((t) => lever(t) + 0.2 * luck.normal());
  const output = time.map((t) => smooth[Math.round(t * fine)] + 0.2 * luck.normal());
  return { time, driver, output, stops: [{ from: Math.round(11 * rate), to: Math.round(14.5 * rate) }] };
}

const knee = (lever: number) => Math.min(2 * lever, 105 + 0.5 * lever);

describe('the lag by which an output follows its lever', () => {
  it.each([
    [200, 0.02],
    [50, 0.1],
    [20, 0.2],
    [10, 0.05],
    [200, 0],
  ])('is found at %d Hz and %d s, within what it says', (rate, late) => {
    for (let seed = 1; seed <= 12; seed++) {
      const { time, driver, output, stops } = pull(rate, late, knee, seed);
      const found = followingLag(time, driver, output, stops);
      expect(Math.abs(found.lag - late)).toBeLessThan(3 * found.standard);
      expect(found.standard).toBeLessThan(0.03 + 0.8 / rate + 0.15 * late);
    }
  });

  it('is found where the lever is the later one', () => {
    const { time, driver, output, stops } = pull(100, 0.1, (lever) => 2 * lever, 3);
    const found = followingLag(time, output, driver, stops);
    expect(Math.abs(found.lag + 0.1)).toBeLessThan(3 * found.standard);
    expect(found.standard).toBeLessThan(0.04);
  });

  it('is not known where the output stands before the lever stops', () => {
    const { time, driver, output, stops } = pull(100, 0.1, (lever) => Math.min(2 * lever, 100), 4);
    expect(followingLag(time, driver, output, stops).standard).toBe(Infinity);
  });

  it('is not known from a handful of samples', () => {
    const { time, driver, output } = pull(1, 0.1, (lever) => 2 * lever, 5);
    expect(followingLag(time, driver, output, [{ from: 11, to: 15 }]).standard).toBe(Infinity);
  });
});
