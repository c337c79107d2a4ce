import fc from 'fast-check';
import { randomSource } from '../physics/random';
import { correctedAkaike, fitDecay, fitExponentialDecay, fitLinearDecay } from './decay';
import { fitLine, lineAt } from './line';
import { binByX, fitSegments } from './segments';

const range = (n: number, to: number) => Float64Array.from({ length: n }, (_, i) => (to * i) / (n - 1));

describe('straight line', () => {
  it('goes through points that lie on one, whatever its slope', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e3, max: 1e3, noNaN: true }),
        fc.double({ min: -1e3, max: 1e3, noNaN: true }),
        (slope, intercept) => {
          const x = range(12, 5);
          const line = fitLine(
            x,
            x.map((at) => intercept + slope * at),
          );
          expect(line.slope).toBeCloseTo(slope, 6);
          expect(lineAt(line, 2.5).value).toBeCloseTo(intercept + 2.5 * slope, 6);
        },
      ),
    );
  });

  it('states a variance that its errors bear out', () => {
    const x = range(60, 10);
    const errors = Array.from({ length: 400 }, (_, seed) => {
      const source = randomSource(seed + 1);
      const line = fitLine(
        x,
        x.map((at) => 1 + 2 * at + 0.5 * source.normal()),
      );
      return (line.slope - 2) / Math.sqrt(line.slopeVariance);
    });
    const rms = Math.sqrt(errors.reduce((sum, z) => sum + z * z, 0) / errors.length);
    expect(rms).toBeGreaterThan(0.85);
    expect(rms).toBeLessThan(1.15);
  });

  it('widens its variance when residuals hang together', () => {
    const x = range(400, 10);
    const source = randomSource(3);
    let wander = 0;
    const drifting = x.map((at) => at + (wander = 0.95 * wander + 0.1 * source.normal()));
    expect(fitLine(x, drifting).autocorrelation).toBeGreaterThan(0.7);
  });

  it('known noise of x does not flatten the slope', () => {
    const random = randomSource(77);
    const truth = 2.5;
    const noiseX = 20;
    const length = 4000;
    const at = Float64Array.from({ length }, (_, i) => (200 * i) / length);
    const x = at.map((value) => value + noiseX * random.normal());
    const y = at.map((value) => truth * value + 3 * random.normal());
    const known = fitLine(x, y, { noiseX });
    const left = fitLine(x, y);
    // Scatter of x by its range is 200²/12; what noise adds to it flattens the slope by a tenth.
    expect(left.slope / truth).toBeLessThan(0.92);
    expect(Math.abs(known.slope / truth - 1)).toBeLessThan(0.02);
    expect(known.meanX).toBe(left.meanX);
  });

  it('says why it cannot be fitted', () => {
    expect(fitLine([1, 2], [1, 2]).termination).toBe('too-few-points');
    expect(fitLine([2, 2, 2, 2], [1, 2, 3, 4]).termination).toBe('singular');
    expect(fitLine([1, 2, 3, Infinity], [1, 2, 3, 4]).termination).toBe('non-finite');
  });

  it('leaves missing samples and unkept ones out', () => {
    const line = fitLine([0, 1, 2, 3, 4], [0, 1, Number.NaN, 3, 40], { keep: (i) => i !== 4 });
    expect(line.slope).toBeCloseTo(1, 12);
    expect(line.count).toBe(3);
  });
});

describe('lines of two and three pieces', () => {
  const bent = (x: number) => (x < 2 ? x : x < 6 ? 2 + 3 * (x - 2) : 14 + 0.8 * (x - 6));

  it('finds the joints of a noiseless line', () => {
    const x = range(2000, 9);
    const fit = fitSegments(binByX(x, x.map(bent), 200), 3);
    expect(fit.termination).toBe('converged');
    expect(fit.breaks[0]).toBeCloseTo(2, 1);
    expect(fit.breaks[1]).toBeCloseTo(6, 1);
    expect(fit.slopes.map((slope) => Math.round(slope * 100) / 100)).toEqual([1, 3, 0.8]);
  });

  it('states a joint’s variance that its errors bear out', () => {
    const x = range(3000, 9);
    const z = Array.from({ length: 40 }, (_, seed) => {
      const source = randomSource(seed + 11);
      const fit = fitSegments(
        binByX(
          x,
          x.map((at) => bent(at) + 0.1 * source.normal()),
          150,
        ),
        3,
      );
      return (fit.breaks[1] - 6) / Math.sqrt(fit.covariance[5][5]);
    });
    const rms = Math.sqrt(z.reduce((sum, value) => sum + value * value, 0) / z.length);
    expect(rms).toBeGreaterThan(0.7);
    expect(rms).toBeLessThan(1.35);
  });

  it('does not depend on where x begins or how it is scaled', () => {
    const x = range(900, 9);
    const near = fitSegments(binByX(x, x.map(bent), 120), 3);
    const far = fitSegments(
      binByX(
        x.map((at) => 5e6 + 1e5 * at),
        x.map(bent),
        120,
      ),
      3,
    );
    expect((far.breaks[0] - 5e6) / 1e5).toBeCloseTo(near.breaks[0], 4);
  });

  it('no other joints near those found fit better, whatever the line and its noise', () => {
    const rssAt = (data: ReturnType<typeof binByX>, at: number) => {
      // With its joint held, a bent line is a plain regression on x and (x − joint)⁺.
      const columns = [data.x.map(() => 1), data.x, data.x.map((x) => Math.max(0, x - at))];
      const dot = (p: Float64Array, q: Float64Array) =>
        p.reduce((sum, each, i) => sum + data.weight[i] * each * q[i], 0);
      const basis: Float64Array[] = [];
      let left = data.y;
      for (const column of columns) {
        let part = column;
        for (const each of basis) {
          const share = dot(part, each) / dot(each, each);
          part = part.map((value, i) => value - share * each[i]);
        }
        basis.push(part);
        const share = dot(left, part) / dot(part, part);
        left = left.map((value, i) => value - share * part[i]);
      }
      return dot(left, left);
    };
    fc.assert(
      fc.property(
        fc.double({ min: 2, max: 7, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.integer({ min: 1, max: 9999 }),
        (joint, slope, change, seed) => {
          const source = randomSource(seed);
          const x = range(600, 9);
          const y = x.map((at) => slope * at + change * Math.max(0, at - joint) + 0.05 * source.normal());
          const data = binByX(x, y, 90);
          const fit = fitSegments(data, 2);
          expect(fit.termination).toBe('converged');
          expect(Math.abs(fit.breaks[0] - joint)).toBeLessThan(0.1);
          expect(fit.rss).toBeCloseTo(rssAt(data, fit.breaks[0]), 6);
          for (const off of [-0.05, -0.005, 0.005, 0.05])
            expect(fit.rss).toBeLessThanOrEqual(rssAt(data, fit.breaks[0] + off) * (1 + 1e-9));
        },
      ),
      { numRuns: 40 },
    );
  });

  it('says why it cannot be fitted', () => {
    expect(fitSegments(binByX([1, 2, 3], [1, 2, 3], 10), 3).termination).toBe('too-few-points');
    expect(fitSegments(binByX(new Float64Array(50).fill(1), range(50, 1), 10), 2).termination).toBe('too-few-points');
  });
});

describe('decays', () => {
  const time = range(3000, 15);

  it('recovers an exponential', () => {
    const source = randomSource(5);
    const fit = fitExponentialDecay(
      time,
      time.map((t) => 20 + 40 * Math.exp(-t / 6) + 0.05 * source.normal()),
    );
    if (fit.kind !== 'exponential') throw new Error('not an exponential');
    expect(fit.tau).toBeCloseTo(6, 1);
    expect(fit.changeAfter(15).value).toBeCloseTo(40 * (Math.exp(-2.5) - 1), 1);
  });

  it('recovers the same on a clock that runs evenly, with gaps, or all over the place', () => {
    const whole = range(1500, 15);
    const source = randomSource(31);
    const fall = (t: number) => 20 + 40 * Math.exp(-t / 6);
    const tauOf = (clock: Float64Array) => {
      const fit = fitExponentialDecay(clock, clock.map(fall));
      return fit.kind === 'exponential' ? [fit.tau, fit.start, fit.settled] : [];
    };
    const gaps = whole.filter((_, i) => i % 7 !== 3 && (i < 400 || i > 600));
    const jittered = whole.map((t) => t + 0.004 * source.uniform());
    for (const clock of [whole, gaps, jittered]) {
      const [tau, start, settled] = tauOf(clock);
      expect(tau).toBeCloseTo(6, 5);
      expect(start).toBeCloseTo(fall(clock[0]), 5);
      expect(settled).toBeCloseTo(20, 5);
    }
  });

  it('prefers the straight line when that is all there is, and the exponential when it is bent', () => {
    const source = randomSource(9);
    expect(
      fitDecay(
        time,
        time.map((t) => 60 - 0.2 * t + 0.05 * source.normal()),
      ).kind,
    ).toBe('linear');
    expect(
      fitDecay(
        time,
        time.map((t) => 60 * Math.exp(-t / 8) + 0.05 * source.normal()),
      ).kind,
    ).toBe('exponential');
  });

  it('keeps to the straight line for pure noise, so that its U stays honest', () => {
    const exponentials = Array.from({ length: 60 }, (_, seed) => {
      const source = randomSource(seed + 40);
      return fitDecay(
        time,
        time.map(() => 400e3 + 8e3 * source.normal()),
      ).kind;
    }).filter((kind) => kind === 'exponential');
    expect(exponentials.length).toBeLessThanOrEqual(4);
  });

  it('a constant has no change', () => {
    expect(
      fitLinearDecay(
        time,
        time.map(() => 7),
      ).changeAfter(15).value,
    ).toBeCloseTo(0, 9);
  });

  it('AICc falls with the misfit and rises with parameters', () => {
    expect(correctedAkaike(1, 100, 2)).toBeLessThan(correctedAkaike(2, 100, 2));
    expect(correctedAkaike(1, 100, 2)).toBeLessThan(correctedAkaike(1, 100, 3));
    expect(correctedAkaike(1, 3, 2)).toBe(Infinity);
  });
});
