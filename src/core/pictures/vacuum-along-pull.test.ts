import fc from 'fast-check';
import { vacuumAlongPull } from './vacuum-along-pull';

const inputEnd = 10e6;
/** A pull to `top`, the vacuum falling evenly with it, and the way back on less. */
function pull(top: number, from: number, to: number) {
  const input = Array.from({ length: 2001 }, (_, i) => (i <= 1000 ? (top * i) / 1000 : top * (2 - i / 1000)));
  const supply = input.map((value, i) => (i <= 1000 ? from + ((to - from) * value) / top : to - 5e3));
  return vacuumAlongPull(input, supply, { inputEnd, ahead: 80e3 });
}

describe('the vacuum that was there along a pull', () => {
  it('is what was there on the way up', () => {
    const at = pull(8e6, 60e3, 50e3);
    for (const input of [1e6, 4e6, 7e6]) expect(Math.abs(at(input) - (60e3 - (10e3 * input) / 8e6))).toBeLessThan(300);
  });

  it('never jumps: not between two looks, and not where the pull ended', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2e6, max: 9.9e6, noNaN: true }),
        fc.double({ min: 20e3, max: 70e3, noNaN: true }),
        fc.double({ min: 10e3, max: 19e3, noNaN: true }),
        (top, from, to) => {
          const at = pull(top, from, to);
          const seen = Array.from({ length: 500 }, (_, i) => at((inputEnd * i) / 499));
          // The steepest it was is once from first to last over the whole pull.
          const steepest = (1.2 * (from - to) * inputEnd) / top / 499;
          for (let i = 1; i < seen.length; i++) expect(Math.abs(seen[i] - seen[i - 1])).toBeLessThan(steepest + 1);
        },
      ),
    );
  });

  it('is what is said to be ahead where none was seen', () => {
    expect(vacuumAlongPull([], [], { inputEnd, ahead: 66e3 })(3e6)).toBe(66e3);
    expect(vacuumAlongPull([0, 1e6], [0, 0], { inputEnd, ahead: 66e3 })(1e6)).toBe(66e3);
  });
});
