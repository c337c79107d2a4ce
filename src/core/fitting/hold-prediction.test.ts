import fc from 'fast-check';
import { nozzleFlow } from '../physics/nozzle';
import { randomSource } from '../physics/random';
import { fitChokedDecay } from './choked-decay';
import { predictHold } from './hold-prediction';
import { fitParabola } from './parabola';

const clock = (seconds: number, rate = 50) => Float64Array.from({ length: seconds * rate + 1 }, (_, i) => i / rate);
const noisy = (values: Float64Array, sigma: number, seed = 3) => {
  const source = randomSource(seed);
  return values.map((value) => value + sigma * source.normal());
};

/** Vacuum (Pa) of a volume that an orifice lets air into, by small steps. */
function leaking(time: Float64Array, start: number, ambient: number, chokedRate: number): Float64Array {
  const choked = nozzleFlow(1, ambient, 0, 293.15);
  let pressure = ambient - start;
  let before = 0;
  return time.map((t) => {
    const steps = 20;
    for (let k = 0; k < steps; k++)
      pressure += ((chokedRate * nozzleFlow(1, ambient, pressure, 293.15)) / choked) * ((t - before) / steps);
    before = t;
    return ambient - pressure;
  });
}

describe('an orifice leak into a vacuum', () => {
  const ambient = 85_400;

  it('falls evenly while choked', () => {
    const time = clock(10);
    // Below 0.528 of the atmosphere the flow does not know what is behind the orifice.
    const vacuum = leaking(time, 70e3, ambient, 1500);
    expect((vacuum[0] - vacuum[500]) / 10).toBeCloseTo(1500, 0);
    const fit = fitChokedDecay(time, vacuum, ambient);
    expect(fit.start).toBeCloseTo(70e3, -1);
    expect(fit.chokedRate / -1500).toBeCloseTo(1, 3);
  });

  it('is carried on into the range where it is no longer choked', () => {
    const time = clock(60);
    const vacuum = leaking(time, 55e3, ambient, 1800);
    const fit = fitChokedDecay(time.subarray(0, 500), noisy(vacuum, 50).subarray(0, 500), ambient);
    const change = fit.changeAfter(60);
    expect(Math.abs(change.value - (vacuum[3000] - vacuum[0]))).toBeLessThan(3 * Math.sqrt(change.variance) + 100);
    // A straight line through the same beginning would promise a loss that the volume does not have.
    expect(vacuum[0] - vacuum[3000]).toBeLessThan(0.7 * 1800 * 60);
  });
});

describe('what a hold will have lost', () => {
  it.each([
    ['linear', (t: number) => 60e3 - 120 * t],
    ['exponential', (t: number) => 20e3 + 40e3 * Math.exp(-t / 25)],
  ] as const)('is told from the beginning of a %s fall', (model, fall) => {
    const time = clock(12);
    const prediction = predictHold(time, noisy(time.map(fall), 20), { seconds: 30, ambient: null });
    if (prediction.kind !== 'predicted') throw new Error(prediction.kind);
    expect(prediction.model).toBe(model);
    expect(Math.abs(prediction.change - (fall(30) - fall(0)))).toBeLessThan(3 * prediction.standard);
    expect(prediction.soFar / (fall(12) - fall(0))).toBeCloseTo(1, 1);
  });

  it('names an orifice where the atmosphere is known', () => {
    const time = clock(40, 10);
    const vacuum = leaking(clock(80, 10), 55e3, 85_400, 900);
    const seen = noisy(vacuum, 10).subarray(0, time.length);
    const known = predictHold(time, seen, { seconds: 80, ambient: 85_400 });
    if (known.kind !== 'predicted') throw new Error(known.kind);
    expect(known.model).toBe('choked');
    expect(Math.abs(known.change - (vacuum[800] - vacuum[0]))).toBeLessThan(3 * known.standard);
  });

  it('is surer the longer the hold has been watched', () => {
    const time = clock(24);
    const straight = time.map((t) => 50e3 - 200 * t);
    const typical = (seconds: number) => {
      const until = seconds * 50;
      const standards = Array.from({ length: 20 }, (_, seed) => {
        const seen = noisy(straight, 50, seed + 1).subarray(0, until);
        const p = predictHold(time.subarray(0, until), seen, { seconds: 30, ambient: null });
        return p.kind === 'predicted' ? p.standard : Number.NaN;
      });
      return standards.sort((a, b) => a - b)[10];
    };
    expect(typical(10)).toBeLessThan(typical(5));
    expect(typical(20)).toBeLessThan(typical(10));
  });

  it('is less sure where a model leaves a trend', () => {
    const time = clock(10);
    const straight = time.map((t) => 50e3 - 300 * t);
    const wavy = straight.map((value, i) => value + 400 * Math.sin(time[i] * 1.5));
    const standardOf = (values: Float64Array) => {
      const p = predictHold(time, noisy(values, 20), { seconds: 15, ambient: null });
      return p.kind === 'predicted' ? p.standard : Number.NaN;
    };
    expect(standardOf(wavy)).toBeGreaterThan(5 * standardOf(straight));
  });

  it('is not told from a handful of samples, and missing ones are left out', () => {
    const few = predictHold([0, 1, 2], [5, 4, 3], { seconds: 15, ambient: null });
    expect(few).toEqual({ kind: 'too-few-samples' });
    const time = clock(10);
    const gaps = time.map((t, i) => (i % 3 === 0 ? Number.NaN : 1e5 - 50 * t));
    const prediction = predictHold(time, gaps, { seconds: 20, ambient: null });
    expect(prediction.kind === 'predicted' && prediction.change).toBeCloseTo(-1000, 3);
  });

  it('a level that stands still loses nothing, within what is stated', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 5000 }), (seed) => {
        const time = clock(10, 20);
        const still = noisy(new Float64Array(time.length).fill(6e6), 8000, seed);
        const prediction = predictHold(time, still, { seconds: 30, ambient: null });
        if (prediction.kind !== 'predicted') throw new Error(prediction.kind);
        expect(Math.abs(prediction.change)).toBeLessThan(5 * prediction.standard);
      }),
      { numRuns: 40 },
    );
  });
});

describe('parabola', () => {
  const figure = fc.double({ min: -100, max: 100, noNaN: true });

  it('goes through points that lie on one, wherever they begin', () => {
    fc.assert(
      fc.property(figure, figure, figure, fc.double({ min: -1e4, max: 1e4, noNaN: true }), (c0, c1, c2, from) => {
        const u = Float64Array.from({ length: 9 }, (_, i) => i);
        const fit = fitParabola(
          u.map((each) => from + each),
          u.map((each) => c0 + c1 * each + c2 * each * each),
        );
        expect(fit.termination).toBe('converged');
        expect(fit.at(from + 2.5).value).toBeCloseTo(c0 + 2.5 * c1 + 6.25 * c2, 4);
        expect(fit.coefficients[2]).toBeCloseTo(c2, 5);
      }),
    );
  });

  it('states a variance that its errors bear out, wider outside the samples', () => {
    const x = Float64Array.from({ length: 60 }, (_, i) => i / 10);
    const z = Array.from({ length: 400 }, (_, seed) => {
      const fit = fitParabola(
        x,
        noisy(
          x.map((at) => 3 - at + 0.4 * at * at),
          0.2,
          seed + 1,
        ),
      );
      const { value, variance } = fit.at(-0.5);
      return (value - 3.6) / Math.sqrt(variance);
    });
    const rms = Math.sqrt(z.reduce((sum, each) => sum + each * each, 0) / z.length);
    expect(rms).toBeGreaterThan(0.88);
    expect(rms).toBeLessThan(1.12);
    const fit = fitParabola(x, noisy(x, 0.2));
    expect(fit.at(-2).variance).toBeGreaterThan(fit.at(3).variance);
  });

  it('says why it cannot be fitted', () => {
    expect(fitParabola([1, 2, 3, 4], [1, 2, 3, 4]).termination).toBe('too-few-points');
    expect(fitParabola([2, 2, 2, 2, 2], [1, 2, 3, 4, 5]).termination).toBe('singular');
    expect(fitParabola([1, 2, Number.NaN, 4, 5], [1, 2, 3, Number.NaN, 5]).count).toBe(3);
  });
});
