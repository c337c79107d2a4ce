import { Matrix, inverse } from 'ml-matrix';
import { fitLine } from './line';
import type { Termination } from './termination';

const { abs, ceil, exp, log, max, min, sqrt } = Math;
const { isNaN } = Number;

/**
 * A fitted hold. `linear`: y = start + rate·t. `exponential`: y = settled + (start − settled)·exp(−t/tau).
 * Time runs from the first sample that was used.
 */
export type DecayFit =
  | (DecayCommon & { readonly kind: 'linear'; readonly start: number; readonly rate: number })
  | (DecayCommon & {
      readonly kind: 'exponential';
      readonly start: number;
      readonly settled: number;
      readonly tau: number;
      /** Variances of the settled level and of tau; NaN where the fit is singular. */
      readonly settledVariance: number;
      readonly tauVariance: number;
    });

interface DecayCommon {
  readonly termination: Termination;
  /** Residual sum of squares of the points that were fitted (means of neighbours where there are many). */
  readonly rss: number;
  readonly count: number;
  readonly parameters: number;
  /** Standard deviation of one sample about the fit. */
  readonly residual: number;
  /** Change of y from the start to `seconds` later, and its variance (fit only). */
  readonly changeAfter: (seconds: number) => { value: number; variance: number };
}

/** Samples above which a decay is fitted to means of neighbouring samples. */
const mostDecayPoints = 1500;

function thinned(time: ArrayLike<number>, y: ArrayLike<number>) {
  const size = max(1, ceil(time.length / mostDecayPoints));
  const t: number[] = [];
  const values: number[] = [];
  for (let from = 0; from < time.length; from += size) {
    let n = 0;
    let sumT = 0;
    let sumY = 0;
    for (let i = from; i < min(time.length, from + size); i++) {
      if (isNaN(y[i])) continue;
      n++;
      sumT += time[i];
      sumY += y[i];
    }
    if (n > 0) {
      t.push(sumT / n - time[0]);
      values.push(sumY / n);
    }
  }
  return { t, values, size };
}

/** y = start + rate·t over `time` (s), t from the first sample. */
export function fitLinearDecay(time: ArrayLike<number>, y: ArrayLike<number>): DecayFit {
  const { t, values, size } = thinned(time, y);
  const line = fitLine(t, values);
  return {
    kind: 'linear',
    termination: line.termination,
    start: line.intercept,
    rate: line.slope,
    rss: line.residual ** 2 * (line.count - 2),
    count: line.count,
    parameters: 2,
    residual: line.residual * sqrt(size),
    changeAfter: (seconds) => ({ value: line.slope * seconds, variance: line.slopeVariance * seconds * seconds }),
  };
}

/** Steps of the search over log tau, and where its refinement ends: far inside what any reading can tell. */
const gridSteps = 60;
const tauTolerance = 1e-7;

/**
 * y = settled + (start − settled)·exp(−t/tau), by variable projection: for each tau the two levels are
 * linear; tau is searched on a logarithmic grid and refined by golden section.
 * Source: Golub & Pereyra (1973), SIAM J. Numer. Anal. 10, 413–432. `singular` when a straight line does as
 * well, so that tau runs away.
 */
export function fitExponentialDecay(time: ArrayLike<number>, y: ArrayLike<number>): DecayFit {
  const { t, values, size } = thinned(time, y);
  const count = t.length;
  const span = t[count - 1];
  const falls = new Float64Array(count);
  const even = evenLength(t);
  const misfit = (logTau: number) => projectLevels(t, values, exp(logTau), { falls, even }).rss;
  const low = log(span / 100);
  const high = log(span * 100);
  let bestLog = low;
  let best = Infinity;
  for (let i = 0; i <= gridSteps; i++) {
    const logTau = low + ((high - low) * i) / gridSteps;
    const rss = misfit(logTau);
    if (rss < best) [bestLog, best] = [logTau, rss];
  }
  const golden = (sqrt(5) - 1) / 2;
  const grid = (high - low) / gridSteps;
  let a = max(low, bestLog - grid);
  let b = min(high, bestLog + grid);
  let left = b - golden * (b - a);
  let right = a + golden * (b - a);
  let [atLeft, atRight] = [misfit(left), misfit(right)];
  while (b - a > tauTolerance) {
    if (atLeft < atRight) {
      [b, right, atRight] = [right, left, atLeft];
      left = b - golden * (b - a);
      atLeft = misfit(left);
    } else {
      [a, left, atLeft] = [left, right, atRight];
      right = a + golden * (b - a);
      atRight = misfit(right);
    }
  }
  const tau = exp((a + b) / 2);
  const { settled, start, rss } = projectLevels(t, values, tau, { falls, even });
  const ranAway = tau > span * 95 || count < 5;
  const covariance = levelCovariance(t, { settled, start, tau }, rss / max(1, count - 3));
  const usable = !ranAway && covariance !== null;
  return {
    kind: 'exponential',
    termination: count < 5 ? 'too-few-points' : usable ? 'converged' : 'singular',
    start,
    settled,
    tau,
    settledVariance: covariance?.get(0, 0) ?? Number.NaN,
    tauVariance: covariance?.get(2, 2) ?? Number.NaN,
    rss,
    count,
    parameters: 3,
    residual: sqrt((rss * size) / max(1, count - 3)),
    changeAfter: (seconds) => {
      const decay = exp(-seconds / tau);
      const gradient = [1 - decay, decay - 1, ((start - settled) * decay * seconds) / tau ** 2];
      let variance = 0;
      if (covariance)
        for (let i = 0; i < 3; i++)
          for (let j = 0; j < 3; j++) variance += gradient[i] * gradient[j] * covariance.get(i, j);
      return { value: (settled - start) * (1 - decay), variance };
    },
  };
}

/** How many samples from the first on are evenly spaced, to far within what an exponential feels. */
function evenLength(t: readonly number[]): number {
  const step = t[1] - t[0];
  let length = 2;
  while (length < t.length && abs(t[length] - t[0] - length * step) <= 1e-9 * step) length++;
  return length;
}

interface Falls {
  /** Room for exp(−t/tau), which every sum needs. */
  readonly falls: Float64Array;
  /** Samples at the start whose clock is even: each fall is the one before it times one factor, which is quicker. */
  readonly even: number;
}

/** Levels and misfit for one tau. */
function projectLevels(t: readonly number[], values: readonly number[], tau: number, { falls, even }: Falls) {
  const count = t.length;
  let s1e = 0;
  let see = 0;
  let sy = 0;
  let sye = 0;
  const factor = exp((t[0] - t[1]) / tau);
  let e = exp(-t[0] / tau) / factor;
  for (let i = 0; i < count; i++) {
    e = i < even ? e * factor : exp(-t[i] / tau);
    falls[i] = e;
    s1e += e;
    see += e * e;
    sy += values[i];
    sye += values[i] * e;
  }
  const determinant = count * see - s1e * s1e;
  if (!(determinant > 1e-14 * count * see)) return { settled: Number.NaN, start: Number.NaN, rss: Infinity };
  const settled = (see * sy - s1e * sye) / determinant;
  const amplitude = (count * sye - s1e * sy) / determinant;
  let rss = 0;
  for (let i = 0; i < count; i++) rss += (values[i] - settled - amplitude * falls[i]) ** 2;
  return { settled, start: settled + amplitude, rss };
}

function levelCovariance(
  t: readonly number[],
  fit: { settled: number; start: number; tau: number },
  variance: number,
): Matrix | null {
  const normal = Matrix.zeros(3, 3);
  for (const time of t) {
    const e = exp(-time / fit.tau);
    const row = [1 - e, e, ((fit.start - fit.settled) * e * time) / fit.tau ** 2];
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) normal.set(i, j, normal.get(i, j) + row[i] * row[j]);
  }
  try {
    return inverse(normal).mul(variance);
  } catch {
    return null;
  }
}

/**
 * Akaike's information criterion corrected for small samples, up to a constant; smaller is better.
 * Source: Burnham & Anderson (2002), Model Selection and Multimodel Inference, 2.4.
 */
export function correctedAkaike(rss: number, count: number, parameters: number): number {
  const k = parameters + 1;
  if (count - k - 1 <= 0) return Infinity;
  return count * log(rss / count) + 2 * k + (2 * k * (k + 1)) / (count - k - 1);
}

/** The better of a straight and an exponential decay by AICc; an exponential that did not converge never wins. */
export function fitDecay(time: ArrayLike<number>, y: ArrayLike<number>): DecayFit {
  const linear = fitLinearDecay(time, y);
  const exponential = fitExponentialDecay(time, y);
  if (linear.termination !== 'converged' || exponential.termination !== 'converged') return linear;
  const score = (fit: DecayFit) => correctedAkaike(fit.rss, fit.count, fit.parameters);
  return score(exponential) < score(linear) - 4 ? exponential : linear;
}
