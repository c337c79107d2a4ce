import type { Termination } from './termination';

const { max, min, sqrt } = Math;
const { isFinite, isNaN } = Number;

/** y = intercept + slope·x, with the covariance of (intercept, slope). */
export interface LineFit {
  readonly termination: Termination;
  readonly slope: number;
  readonly intercept: number;
  readonly slopeVariance: number;
  readonly interceptVariance: number;
  readonly covariance: number;
  /** Standard deviation of the residuals. */
  readonly residual: number;
  /** Lag-one autocorrelation of the residuals, already worked into the variances. */
  readonly autocorrelation: number;
  readonly count: number;
  /** Degrees of freedom of the residuals, by as many samples as are worth one each. */
  readonly freedom: number;
  readonly meanX: number;
}

function failed(termination: Termination, count: number): LineFit {
  const nothing = Number.NaN;
  return {
    termination,
    slope: nothing,
    intercept: nothing,
    slopeVariance: nothing,
    interceptVariance: nothing,
    covariance: nothing,
    residual: nothing,
    autocorrelation: nothing,
    count,
    freedom: nothing,
    meanX: nothing,
  };
}

export interface LineOptions {
  /** Weights (inverse variances up to a factor); equal when left out. */
  readonly weights?: ArrayLike<number>;
  /** Half-open range of samples to use. */
  readonly from?: number;
  readonly to?: number;
  /** Leaves a sample out when false. */
  readonly keep?: (index: number) => boolean;
  /** Standard deviation of the noise of x, which left alone would flatten the line. */
  readonly noiseX?: number;
}

/**
 * Least-squares line through (x, y). Variances come from the residuals, widened by (1 + r)/(1 − r) for
 * their lag-one autocorrelation r ≥ 0 (samples of a quantised or filtered gauge are not independent).
 * Source: Draper & Smith, Applied Regression Analysis, 3rd ed., ch. 1; widening after Bartlett (1946).
 * Noise of x of known size is taken out of its scatter before the slope is read (errors in variables: Fuller, Measurement
 * Error Models, ch. 1).
 * Fails with `too-few-points` (< 3), `singular` (one x only) or `non-finite`. Missing samples are left out.
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>, options: LineOptions = {}): LineFit {
  const { weights, from = 0, to = x.length, keep, noiseX = 0 } = options;
  let count = 0;
  let sumW = 0;
  let meanX = 0;
  let meanY = 0;
  let sxx = 0;
  let sxy = 0;
  for (let i = from; i < to; i++) {
    if (isNaN(x[i]) || isNaN(y[i]) || (keep && !keep(i))) continue;
    const w = weights ? weights[i] : 1;
    count++;
    sumW += w;
    const dx = x[i] - meanX;
    meanX += (w * dx) / sumW;
    meanY += (w * (y[i] - meanY)) / sumW;
    sxx += w * dx * (x[i] - meanX);
    sxy += w * dx * (y[i] - meanY);
  }
  if (count < 3) return failed('too-few-points', count);
  if (!isFinite(sxx) || !isFinite(sxy)) return failed('non-finite', count);
  if (sxx <= 1e-24 * sumW * (1 + meanX * meanX)) return failed('singular', count);
  // Never more than a tenth: beyond that what is known of the noise is no better than the scatter itself.
  const slope = sxy / max(sxx - sumW * noiseX * noiseX, 0.9 * sxx);
  const intercept = meanY - slope * meanX;
  let rss = 0;
  let lagged = 0;
  let previous = 0;
  for (let i = from; i < to; i++) {
    if (isNaN(x[i]) || isNaN(y[i]) || (keep && !keep(i))) continue;
    const residual = (y[i] - intercept - slope * x[i]) * sqrt(weights ? weights[i] : 1);
    rss += residual * residual;
    lagged += residual * previous;
    previous = residual;
  }
  const autocorrelation = rss > 0 ? min(0.98, max(0, lagged / rss)) : 0;
  const variance = (rss / (count - 2)) * ((1 + autocorrelation) / (1 - autocorrelation));
  const slopeVariance = variance / sxx;
  return {
    termination: 'converged',
    slope,
    intercept,
    slopeVariance,
    interceptVariance: variance / sumW + meanX * meanX * slopeVariance,
    covariance: -meanX * slopeVariance,
    residual: sqrt(rss / (count - 2)),
    autocorrelation,
    count,
    freedom: max(1, (count * (1 - autocorrelation)) / (1 + autocorrelation) - 2),
    meanX,
  };
}

/** Value of the fitted line at `x` and its variance. */
export function lineAt(line: LineFit, x: number): { value: number; variance: number } {
  return {
    value: line.intercept + line.slope * x,
    variance: line.interceptVariance + 2 * x * line.covariance + x * x * line.slopeVariance,
  };
}
