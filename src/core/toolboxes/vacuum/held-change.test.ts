import { randomSource } from '../../physics/random';
import { fittedChange } from './held-change';

/** A vacuum that falls evenly from 60 kPa by `loss` over 15 s, read 20 times a second in steps of `division`, Pa. */
function hold(loss: number, division: number, noise: number, seed: number) {
  const random = randomSource(seed);
  const time = Float64Array.from({ length: 301 }, (_, i) => i / 20);
  const value = time.map((t) => {
    const read = 60e3 - (loss * t) / 15 + noise * random.normal();
    return division > 0 ? Math.round(read / division) * division : read;
  });
  return { time, value };
}

describe('a hold read in coarse steps', () => {
  it.each([
    ['8 bits of 100 kPa', 392],
    ['a needle of half a kilopascal', 500],
    ['12 bits of 100 kPa', 24],
  ])('is as sure as its steps are: %s', (_by, division) => {
    for (const loss of [900, 1_500, 3_300]) {
      const { value, standard } = fittedChange(hold(loss, division, 0, 3), 15, 0);
      // Of the order of one step, and not ten: what rounding does to both ends is counted by itself.
      expect(Math.abs(value - loss)).toBeLessThan(0.8 * division);
      expect(2 * standard).toBeLessThan(Math.max(division, 60));
    }
  });

  it('that hangs together by more than its steps is widened as ever', () => {
    const plain = hold(1_500, 24, 0, 3);
    // A wave that no decay describes, ten times as high as a step.
    const wavy = { ...plain, value: plain.value.map((each, i) => each + 240 * Math.sin(i / 12)) };
    expect(fittedChange(wavy, 15, 0).standard).toBeGreaterThan(5 * fittedChange(plain, 15, 0).standard);
  });
});
