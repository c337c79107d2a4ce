import { xoroshiro128plus, xoroshiro128plusFromState } from 'pure-rand/generator/xoroshiro128plus';

const { isNaN } = Number;

const { imul, log, sqrt } = Math;

/** A seeded source of random numbers whose state can be kept and put back. */
export interface RandomSource {
  /** Uniform in [0, 1). */
  uniform(): number;
  /** Standard normal deviate. */
  normal(): number;
  snapshot(): number[];
  restore(state: readonly number[]): void;
}

/** Seed (32-bit integer) made of a number and a label, by FNV-1a, so that every use draws its own sequence. */
export function labelledSeed(seed: number, label: string): number {
  let hash = 0x811c9dc5 ^ imul(seed | 0, 0x9e3779b1);
  for (let i = 0; i < label.length; i++) {
    hash ^= label.charCodeAt(i);
    hash = imul(hash, 0x01000193);
  }
  return hash | 0;
}

/** A source from a 32-bit seed. Normal deviates by the polar method (Marsaglia & Bray, 1964). */
export function randomSource(seed: number): RandomSource {
  let generator = xoroshiro128plus(seed);
  // The second deviate of a pair; an array, because a number in a closure's variable would be boxed anew every time.
  const spare = Float64Array.of(Number.NaN);
  const uniform = () => (generator.next() >>> 0) / 0x1_0000_0000;
  return {
    uniform,
    normal() {
      const value = spare[0];
      if (!isNaN(value)) {
        spare[0] = Number.NaN;
        return value;
      }
      for (;;) {
        const u = 2 * uniform() - 1;
        const v = 2 * uniform() - 1;
        const s = u * u + v * v;
        if (s >= 1 || s === 0) continue;
        const factor = sqrt((-2 * log(s)) / s);
        spare[0] = v * factor;
        return u * factor;
      }
    },
    snapshot: () => [...generator.getState()],
    restore(state) {
      generator = xoroshiro128plusFromState(state);
      spare[0] = Number.NaN;
    },
  };
}
