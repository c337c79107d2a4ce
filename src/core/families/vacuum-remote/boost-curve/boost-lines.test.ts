import fc from 'fast-check';
import { randomSource } from '../../../physics/random';
import { fitBoostLines, type BoostLines } from './boost-lines';

interface Shape {
  readonly cutIn: number;
  readonly slope: number;
  readonly runOut: number;
  readonly after: number;
  readonly peak: number;
}

const usual: Shape = { cutIn: 0.58e6, slope: 2.8, runOut: 1.78e6, after: 0.85, peak: 2.4e6 };

function output({ cutIn, slope, runOut, after }: Shape, input: number): number {
  if (input < cutIn) return input;
  if (input < runOut) return cutIn + slope * (input - cutIn);
  return cutIn + slope * (runOut - cutIn) + after * (input - runOut);
}

/** An even pull at 200 Hz over 20 s with noise on both gauges. */
function pulled(shape: Shape, noise: number, seed = 1, lever = (share: number) => share) {
  const source = randomSource(seed);
  const truth = Float64Array.from({ length: 4000 }, (_, i) => shape.peak * lever(i / 3999));
  return {
    input: truth.map((value) => value + noise * source.normal()),
    output: truth.map((value) => output(shape, value) + noise * source.normal()),
  };
}

function found(shape: Shape, noise: number, seed?: number, lever?: (share: number) => number): BoostLines {
  const pull = pulled(shape, noise, seed, lever);
  const lines = fitBoostLines(pull.input, pull.output);
  if ('code' in lines) throw new Error(lines.code);
  return lines;
}

describe('lines of a boost curve', () => {
  it('finds cut-in, slope and run-out of any unit', () => {
    const shapes = fc.record({
      cutIn: fc.double({ min: 0.3e6, max: 0.9e6, noNaN: true }),
      slope: fc.double({ min: 1.8, max: 5, noNaN: true }),
      runOut: fc.double({ min: 1.3e6, max: 2.0e6, noNaN: true }),
      after: fc.double({ min: 0.7, max: 0.95, noNaN: true }),
      peak: fc.constant(2.5e6),
    });
    fc.assert(
      fc.property(shapes, fc.integer({ min: 1, max: 1000 }), (shape, seed) => {
        const lines = found(shape, 8e3, seed);
        expect(Math.abs(lines.cutIn - shape.cutIn)).toBeLessThan(25e3);
        expect(Math.abs(lines.modulating.slope / shape.slope - 1)).toBeLessThan(0.02);
        expect(Math.abs(lines.runOut!.input / shape.runOut - 1)).toBeLessThan(0.03);
      }),
      { numRuns: 25 },
    );
  });

  it('has no run-out when the pull ends before it', () => {
    const lines = found({ ...usual, peak: 1.6e6 }, 8e3);
    expect(lines.runOut).toBeNull();
    expect(lines.modulating.slope).toBeCloseTo(2.8, 1);
  });

  it('has no boost when output follows input', () => {
    const pull = pulled({ ...usual, slope: 1, after: 1 }, 8e3);
    expect(fitBoostLines(pull.input, pull.output)).toEqual({ code: 'no-boost' });
  });

  it('a hand that pulls unevenly, even back a little, finds the same', () => {
    const jerky = (share: number) => Math.min(1, Math.max(0, share + 0.02 * Math.sin(40 * share)));
    const lines = found(usual, 8e3, 3, jerky);
    expect(Math.abs(lines.runOut!.input / usual.runOut - 1)).toBeLessThan(0.03);
    expect(Math.abs(lines.cutIn - usual.cutIn)).toBeLessThan(25e3);
  });

  it('scales with its unit of pressure', () => {
    const pull = pulled(usual, 4e3);
    const inKpa = fitBoostLines(
      pull.input.map((v) => v / 1e3),
      pull.output.map((v) => v / 1e3),
    );
    const inPa = fitBoostLines(pull.input, pull.output);
    if ('code' in inKpa || 'code' in inPa) throw new Error('no lines');
    expect((inKpa.cutIn * 1e3) / inPa.cutIn).toBeCloseTo(1, 6);
  });
});
