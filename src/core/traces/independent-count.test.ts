import { dice } from '../../../tests/support/second-writer/logger';
import { independentCount } from './independent-count';

describe('how many values of their own a run is worth', () => {
  it('noise is worth all of its values, a smoothed one as many as its windows', () => {
    const luck = dice(3);
    const noise = Array.from({ length: 4_000 }, () => luck.normal());
    expect(independentCount(noise) / noise.length).toBeGreaterThan(0.93);
    let held = 0;
    const filtered = noise.map((value) => (held = 0.9 * held + value));
    // A first-order filter of nine tenths: one in nineteen.
    expect(independentCount(filtered)).toBeGreaterThan(4_000 / 19 / 1.2);
    expect(independentCount(filtered)).toBeLessThan((4_000 / 19) * 1.2);
  });

  it('a ripple that is read too seldom, and comes out slow, is worth few', () => {
    // 50.2 readings a second of 50 Hz: a beat of five seconds, of which three were read.
    const beat = Array.from({ length: 150 }, (_, i) => Math.sin(2 * Math.PI * 50 * (i / 50.2)));
    const mean = beat.reduce((sum, each) => sum + each, 0) / beat.length;
    const deviation = Math.sqrt(beat.reduce((sum, each) => sum + (each - mean) ** 2, 0) / beat.length);
    const own = independentCount(beat.map((each) => each - mean));
    expect(Math.abs(mean)).toBeLessThan((2 * deviation) / Math.sqrt(own));
    expect(Math.abs(mean)).toBeGreaterThan((2 * deviation) / Math.sqrt(beat.length));
  });

  it('one value, or none that differs, is one or all', () => {
    expect(independentCount([0.3])).toBe(1);
    expect(independentCount([0, 0, 0])).toBe(3);
  });
});
