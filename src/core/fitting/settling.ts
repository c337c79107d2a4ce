import { Matrix, inverse } from 'ml-matrix';
import { fitLine } from './line';
import { correctedAkaike } from './decay';

const { exp, max, sqrt } = Math;

/** A straight change with a transient that dies down: y = start + rate·t + amplitude·exp(−t/tau). */
export interface SettlingFit {
  readonly rate: number;
  readonly amplitude: number;
  readonly tau: number;
  /** One sigma of the rate: its own, and what the other time constants that fit as well would say. */
  readonly rateStandard: number;
  readonly amplitudeStandard: number;
  /** How much better than a straight line, by AICc; above zero it is. */
  readonly gain: number;
}

/** Time constants that are tried, s: gas in a shell, the body of a transducer. */
const constants = [0.7, 1, 1.4, 2, 2.8, 4, 5.6, 8];
/** Other time constants are listened to up to this much worse, AICc. */
const alike = 4;

/**
 * Fits a straight leak together with a thermal or creep transient (`time` in s from anywhere, `y` SI), linear least
 * squares for each of a list of time constants (variable projection: Golub & Pereyra 1973). Null where fewer than eight
 * points or less than three time constants of the quickest are covered.
 */
export function fitSettling(time: ArrayLike<number>, y: ArrayLike<number>): SettlingFit | null {
  const n = time.length;
  if (n < 8) return null;
  const span = time[n - 1] - time[0];
  const straight = fitLine(time, y);
  if (straight.termination !== 'converged') return null;
  const without = correctedAkaike(max(straight.residual ** 2 * (n - 2), Number.MIN_VALUE), n, 2);
  const fits = constants
    .filter((tau) => span >= 2.5 * tau)
    .map((tau) => withConstant(time, y, tau))
    .filter((fit) => fit !== null);
  if (fits.length === 0) return null;
  const best = fits.reduce((p, q) => (q.rss < p.rss ? q : p));
  const score = (rss: number) => correctedAkaike(max(rss, Number.MIN_VALUE), n, 4);
  const others = fits.filter((fit) => score(fit.rss) < score(best.rss) + alike).map((fit) => fit.rate);
  const spread = (Math.max(...others) - Math.min(...others)) / 2;
  return {
    rate: best.rate,
    amplitude: best.amplitude,
    tau: best.tau,
    rateStandard: sqrt(best.rateVariance + spread ** 2),
    amplitudeStandard: sqrt(best.amplitudeVariance),
    gain: without - score(best.rss),
  };
}

function withConstant(time: ArrayLike<number>, y: ArrayLike<number>, tau: number) {
  const n = time.length;
  const normal = Matrix.zeros(3, 3);
  const right = Matrix.zeros(3, 1);
  const row = [1, 0, 0];
  const offset = y[0];
  for (let i = 0; i < n; i++) {
    const t = time[i] - time[0];
    row[1] = t;
    row[2] = exp(-t / tau);
    for (let a = 0; a < 3; a++) {
      right.set(a, 0, right.get(a, 0) + row[a] * (y[i] - offset));
      for (let b = 0; b < 3; b++) normal.set(a, b, normal.get(a, b) + row[a] * row[b]);
    }
  }
  let covariance: Matrix;
  try {
    covariance = inverse(normal);
  } catch {
    return null;
  }
  const found = covariance.mmul(right).to1DArray();
  let rss = 0;
  let lagged = 0;
  let before = 0;
  for (let i = 0; i < n; i++) {
    const t = time[i] - time[0];
    const residual = y[i] - offset - found[0] - found[1] * t - found[2] * exp(-t / tau);
    rss += residual ** 2;
    lagged += i > 0 ? residual * before : 0;
    before = residual;
  }
  if (!Number.isFinite(rss)) return null;
  const r = rss > 0 ? Math.min(0.98, max(0, lagged / rss)) : 0;
  const variance = (rss / (n - 4)) * ((1 + r) / (1 - r));
  return {
    tau,
    rss,
    rate: found[1],
    amplitude: found[2],
    rateVariance: covariance.get(1, 1) * variance,
    amplitudeVariance: covariance.get(2, 2) * variance,
  };
}
