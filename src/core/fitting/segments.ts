import { Matrix, inverse, solve } from 'ml-matrix';
import type { Termination } from './termination';

const { abs, floor, max, min, sqrt } = Math;
const { isFinite, isNaN } = Number;

/** A continuous line of two or three straight pieces. */
export interface SegmentFit {
  readonly termination: Termination;
  /** Joints in x, rising. */
  readonly breaks: readonly number[];
  /** Slopes of the pieces, one more than joints. */
  readonly slopes: readonly number[];
  /** Value at x = 0 of the first piece. */
  readonly intercept: number;
  /** Covariance of [intercept, first slope, slope changes…, joints…]. */
  readonly covariance: readonly (readonly number[])[];
  /** Weighted residual sum of squares. */
  readonly rss: number;
  readonly count: number;
}

/** Samples gathered into bins of x: means, weights (counts) and the scatter inside the bins. */
export interface Binned {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly weight: Float64Array;
}

/** Gathers samples into `bins` equal bins of x; bins without samples are left out. */
export function binByX(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  bins: number,
  options: { from?: number; to?: number; keep?: (index: number) => boolean } = {},
): Binned {
  const { from = 0, to = x.length, keep } = options;
  let low = Infinity;
  let high = -Infinity;
  const used = (i: number) => !isNaN(x[i]) && !isNaN(y[i]) && (!keep || keep(i));
  for (let i = from; i < to; i++) {
    if (!used(i)) continue;
    if (x[i] < low) low = x[i];
    if (x[i] > high) high = x[i];
  }
  const sumX = new Float64Array(bins);
  const sumY = new Float64Array(bins);
  const weight = new Float64Array(bins);
  const scale = high > low ? (bins * (1 - 1e-12)) / (high - low) : 0;
  for (let i = from; i < to; i++) {
    if (!used(i)) continue;
    const bin = floor((x[i] - low) * scale);
    sumX[bin] += x[i];
    sumY[bin] += y[i];
    weight[bin]++;
  }
  const filled = [...weight.keys()].filter((bin) => weight[bin] > 0);
  return {
    x: Float64Array.from(filled, (bin) => sumX[bin] / weight[bin]),
    y: Float64Array.from(filled, (bin) => sumY[bin] / weight[bin]),
    weight: Float64Array.from(filled, (bin) => weight[bin]),
  };
}

function failed(termination: Termination, count: number): SegmentFit {
  return { termination, breaks: [], slopes: [], intercept: Number.NaN, covariance: [], rss: Number.NaN, count };
}

interface Linear {
  readonly coefficients: number[];
  readonly rss: number;
}

/** Samples in rising x with the weighted moments of every sample and all after it: w, w·x, w·x², w·y, w·x·y. */
interface Summed extends Binned {
  readonly moments: Readonly<Record<'w' | 'wx' | 'wxx' | 'wy' | 'wxy', Float64Array>>;
}

function summed({ x, y, weight }: Binned): Summed {
  const column = () => new Float64Array(x.length + 1);
  const moments = { w: column(), wx: column(), wxx: column(), wy: column(), wxy: column() };
  const { w, wx, wxx, wy, wxy } = moments;
  for (let i = x.length - 1; i >= 0; i--) {
    w[i] = w[i + 1] + weight[i];
    wx[i] = wx[i + 1] + weight[i] * x[i];
    wxx[i] = wxx[i + 1] + weight[i] * x[i] * x[i];
    wy[i] = wy[i + 1] + weight[i] * y[i];
    wxy[i] = wxy[i + 1] + weight[i] * x[i] * y[i];
  }
  return { x, y, weight, moments };
}

/** Index of the first sample beyond `place`. */
function firstBeyond(x: Float64Array, place: number): number {
  let low = 0;
  let high = x.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (x[middle] > place) high = middle;
    else low = middle + 1;
  }
  return low;
}

/**
 * Weighted least squares of y on [1, x, (x − break)⁺ …] with the joints held. A column of the problem is x − p beyond a
 * place p and nothing before it, so that every sum is one of the moments beyond the later of two places.
 */
function solveWithBreaks(data: Summed, breaks: readonly number[]): Linear | null {
  const size = 2 + breaks.length;
  const { w, wx, wxx, wy, wxy } = data.moments;
  const from = breaks.map((place) => firstBeyond(data.x, place));
  const normal = new Float64Array(size * size);
  const right = new Float64Array(size);
  const put = (a: number, b: number, value: number) => {
    normal[a * size + b] = value;
    normal[b * size + a] = value;
  };
  put(0, 0, w[0]);
  put(0, 1, wx[0]);
  put(1, 1, wxx[0]);
  right[0] = wy[0];
  right[1] = wxy[0];
  for (let k = 0; k < breaks.length; k++) {
    const at = from[k];
    put(0, 2 + k, wx[at] - breaks[k] * w[at]);
    put(1, 2 + k, wxx[at] - breaks[k] * wx[at]);
    for (let j = 0; j <= k; j++)
      put(2 + j, 2 + k, wxx[at] - (breaks[j] + breaks[k]) * wx[at] + breaks[j] * breaks[k] * w[at]);
    right[2 + k] = wxy[at] - breaks[k] * wy[at];
  }
  let coefficients: number[];
  try {
    coefficients = solve(Matrix.from1DArray(size, size, normal), Matrix.columnVector(right)).to1DArray();
  } catch {
    return null;
  }
  const rss = residualSum(data, coefficients, breaks, from);
  return isFinite(rss) ? { coefficients, rss } : null;
}

/** Weighted residual sum of squares, piece by piece. */
function residualSum(
  { x, y, weight }: Binned,
  coefficients: readonly number[],
  breaks: readonly number[],
  from: readonly number[],
): number {
  let [intercept, slope] = coefficients;
  let rss = 0;
  let i = 0;
  for (let piece = 0; piece <= breaks.length; piece++) {
    if (piece > 0) {
      slope += coefficients[1 + piece];
      intercept -= coefficients[1 + piece] * breaks[piece - 1];
    }
    const end = piece < breaks.length ? from[piece] : x.length;
    for (; i < end; i++) {
      const miss = y[i] - intercept - slope * x[i];
      rss += weight[i] * miss * miss;
    }
  }
  return rss;
}

function fillRow(row: Float64Array, x: number, breaks: readonly number[]): void {
  row[0] = 1;
  row[1] = x;
  for (let k = 0; k < breaks.length; k++) row[2 + k] = x > breaks[k] ? x - breaks[k] : 0;
}

/** Every choice of `count` rising joints among `places`, at least two places apart. */
function combinations(places: readonly number[], count: number): number[][] {
  if (count === 1) return places.map((place) => [place]);
  return places.flatMap((first, i) => combinations(places.slice(i + 2), count - 1).map((rest) => [first, ...rest]));
}

/**
 * Fits a continuous line of `pieces` (2 or 3) straight pieces to binned samples, in rising x, by least squares over
 * coefficients and joints: a grid over the joints, then golden-section refinement of one joint after the
 * other until no joint moves by more than 1e-6 of the range. The covariance is that of the linearised
 * problem. x is scaled to [0, 1] inside for conditioning.
 * Source: Muggeo (2003), Statistics in Medicine 22, 3055–3071; Seber & Wild, Nonlinear Regression, ch. 9.
 * `sampleVariance` (of one sample of y) replaces the residual variance when given.
 */
export function fitSegments(data: Binned, pieces: 2 | 3, sampleVariance?: number): SegmentFit {
  const joints = pieces - 1;
  const n = data.x.length;
  const total = data.weight.reduce((sum, w) => sum + w, 0);
  if (n < 3 * pieces) return failed('too-few-points', total);
  const low = data.x[0];
  const span = data.x[n - 1] - low;
  if (!(span > 0)) return failed(isNaN(span) ? 'non-finite' : 'singular', total);
  const scaled = summed({ x: data.x.map((x) => (x - low) / span), y: data.y, weight: data.weight });

  const places = Array.from({ length: 19 }, (_, i) => (i + 1) / 20);
  let best: { breaks: number[]; linear: Linear } | null = null;
  for (const breaks of combinations(places, joints)) {
    const linear = solveWithBreaks(scaled, breaks);
    if (linear && (!best || linear.rss < best.linear.rss)) best = { breaks, linear };
  }
  if (!best) return failed('singular', total);

  let termination: Termination = 'max-iterations';
  for (let round = 0; round < 40; round++) {
    let moved = 0;
    for (let k = 0; k < joints; k++) {
      const refined = refineJoint(scaled, best.breaks, k);
      moved = max(moved, abs(refined.breaks[k] - best.breaks[k]));
      if (refined.linear.rss <= best.linear.rss) best = refined;
    }
    if (moved < 1e-6) {
      termination = 'converged';
      break;
    }
  }
  return unscale(scaled, best.breaks, best.linear, { low, span, total, termination, sampleVariance });
}

function refineJoint(data: Summed, breaks: number[], k: number): { breaks: number[]; linear: Linear } {
  const left = (k > 0 ? breaks[k - 1] : 0) + 0.01;
  const right = (k + 1 < breaks.length ? breaks[k + 1] : 1) - 0.01;
  const reach = 0.06;
  let a = max(left, breaks[k] - reach);
  let b = min(right, breaks[k] + reach);
  const golden = (sqrt(5) - 1) / 2;
  const at = (place: number) => {
    const moved = breaks.map((value, i) => (i === k ? place : value));
    return { breaks: moved, linear: solveWithBreaks(data, moved) ?? { coefficients: [], rss: Infinity } };
  };
  let inner = at(b - golden * (b - a));
  let outer = at(a + golden * (b - a));
  while (b - a > 1e-7) {
    if (inner.linear.rss < outer.linear.rss) {
      b = outer.breaks[k];
      outer = inner;
      inner = at(b - golden * (b - a));
    } else {
      a = inner.breaks[k];
      inner = outer;
      outer = at(a + golden * (b - a));
    }
  }
  return inner.linear.rss < outer.linear.rss ? inner : outer;
}

interface Unscaling {
  readonly low: number;
  readonly span: number;
  readonly total: number;
  readonly termination: Termination;
  readonly sampleVariance?: number;
}

function unscale(data: Binned, breaks: readonly number[], linear: Linear, how: Unscaling): SegmentFit {
  const { low, span, total } = how;
  const joints = breaks.length;
  const size = 2 + 2 * joints;
  const [first, firstSlope, ...changes] = linear.coefficients;
  const normal = Matrix.zeros(size, size);
  const row = new Float64Array(size);
  for (let i = 0; i < data.x.length; i++) {
    fillRow(row, data.x[i], breaks);
    for (let k = 0; k < joints; k++) row[2 + joints + k] = data.x[i] > breaks[k] ? -changes[k] : 0;
    for (let a = 0; a < size; a++)
      for (let b = 0; b < size; b++) normal.set(a, b, normal.get(a, b) + data.weight[i] * row[a] * row[b]);
  }
  const variance = how.sampleVariance ?? linear.rss / max(1, data.x.length - size);
  let scaledCovariance: Matrix;
  try {
    scaledCovariance = inverse(normal).mul(variance);
  } catch {
    return failed('singular', total);
  }
  // y = first + firstSlope·(x − low)/span + …  →  coefficients in the caller's x
  const jacobian = Matrix.zeros(size, size);
  jacobian.set(0, 0, 1);
  jacobian.set(0, 1, -low / span);
  for (let k = 1; k < 2 + joints; k++) jacobian.set(k, k, 1 / span);
  for (let k = 0; k < joints; k++) jacobian.set(2 + joints + k, 2 + joints + k, span);
  const covariance = jacobian.mmul(scaledCovariance).mmul(jacobian.transpose()).to2DArray();
  const slopes = [firstSlope / span];
  for (const change of changes) slopes.push(slopes[slopes.length - 1] + change / span);
  const finite = slopes.every(isFinite) && covariance.every((line) => line.every(isFinite));
  if (!finite) return failed('non-finite', total);
  return {
    termination: how.termination,
    breaks: breaks.map((place) => low + place * span),
    slopes,
    intercept: first - (firstSlope * low) / span,
    covariance,
    rss: linear.rss,
    count: total,
  };
}
