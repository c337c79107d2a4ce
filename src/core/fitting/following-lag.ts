import { Matrix, solve } from 'ml-matrix';

const { abs, exp, max, sqrt } = Math;
const { isNaN } = Number;

/** By how much one channel follows another late, s; negative where it is early. */
export interface FollowingLag {
  readonly lag: number;
  /** One sigma, s. Infinity where the samples say nothing of it. */
  readonly standard: number;
}

/** Samples in which the driver runs and then stands, or stands and then runs, along one straight line of the output. */
export interface Stop {
  readonly from: number;
  readonly to: number;
}

const earliest = -0.3;
const latest = 0.7;
const coarse = 0.02;
/**
 * Both channels are smoothed alike first, s, and then shifted: a lag must not look better for smoothing the noise of one, and
 * behind such a smoothing a lag and a shift are much the same.
 */
const smoothing = 0.1;
/** A filter is not quite of first order, nor are two in a row: this share of a lag is not known. */
const ofShape = 0.15;
/** Samples of one row were not taken at one moment: this share of an interval. */
const ofRow = 0.2;
/** No lag is told apart from one so much longer, s. */
const finest = 0.002;
/** Slow noise makes samples closer than this no more than one, s. */
const independentAfter = 0.4;
/** Behind that smoothing samples closer than this say nothing of their own, s. */
const closest = 0.005;
/** With fewer samples around a stop nothing is said of a lag. */
const fewest = 10;
/** An output that moves by less than so many deviations of its scatter while the driver runs says nothing. */
const seen = 8;

/** First-order lag of a column (`time` s, `tau` s), exact for what runs straight from sample to sample. */
export function lagged(time: Float64Array, column: Float64Array, tau: number): Float64Array {
  if (!(tau > 0)) return column;
  const out = new Float64Array(column.length);
  let [state, was, at] = [Number.NaN, Number.NaN, Number.NaN];
  for (let i = 0; i < column.length; i++) {
    const value = column[i];
    if (isNaN(value)) {
      out[i] = Number.NaN;
      continue;
    }
    const dt = time[i] - at;
    if (isNaN(state)) state = value;
    else if (dt > 0) {
      const slope = (value - was) / dt;
      state = value - slope * tau + (state - was + slope * tau) * exp(-dt / tau);
    }
    [was, at] = [value, time[i]];
    out[i] = state;
  }
  return out;
}

/** A column as it was `by` seconds before, straight between samples; itself where that is not later. */
function shifted(time: Float64Array, column: Float64Array, by: number): Float64Array {
  if (!(by > 0)) return column;
  const out = new Float64Array(column.length);
  let k = 0;
  for (let i = 0; i < column.length; i++) {
    const at = time[i] - by;
    while (k + 1 < column.length && time[k + 1] <= at) k++;
    const step = k + 1 < column.length ? time[k + 1] - time[k] : 0;
    out[i] =
      at <= time[0] || !(step > 0) ? column[k] : column[k] + ((column[k + 1] - column[k]) * (at - time[k])) / step;
  }
  return out;
}

/**
 * How late `output` follows `driver` (s), by what it does where the driver stops or starts: the lag with which the output is one
 * straight line of the driver around each stop, least squares. Where the output does not follow the driver there, the samples say
 * nothing, and the standard uncertainty is infinite.
 */
export function followingLag(
  time: Float64Array,
  driver: Float64Array,
  output: Float64Array,
  stops: readonly Stop[],
): FollowingLag {
  const nothing = { lag: 0, standard: Infinity };
  const used = stops
    .filter(({ from, to }) => to - from >= fewest)
    .map((stop) => around(time, driver, output, stop))
    .filter(({ x, y, first }) => follows(x.subarray(first), y.subarray(first)));
  const count = used.reduce((sum, { x, first }) => sum + x.length - first, 0);
  if (count === 0) return nothing;
  const grid: { lag: number; rss: number }[] = [];
  for (let k = 0; k <= (latest - earliest) / coarse + 1e-9; k++) {
    const lag = earliest + k * coarse;
    const rss = used.reduce((sum, { clock, x, y, first }) => {
      const [driven, follows] = [shifted(clock, x, lag), shifted(clock, y, -lag)];
      return sum + offLine(driven.subarray(first), follows.subarray(first)).rss;
    }, 0);
    grid.push({ lag, rss });
  }
  const best = grid.reduce((p, q) => (q.rss < p.rss ? q : p));
  const { interval } = used[0];
  const variance = best.rss / max(1, count - 2 * used.length);
  const alike = max(1, independentAfter / interval);
  const lowest = parabola(grid, best.lag);
  const ofNoise = lowest.bend > 0 ? sqrt((2 * variance * alike) / lowest.bend) : Infinity;
  return {
    lag: lowest.at,
    standard: sqrt(ofNoise ** 2 + finest ** 2 + (ofShape * lowest.at) ** 2 + (ofRow * interval) ** 2),
  };
}

/** Both channels smoothed around one stop, with what came just before it. */
function around(time: Float64Array, driver: Float64Array, output: Float64Array, { from, to }: Stop) {
  let before = from;
  while (before > 0 && time[from] - time[before] < latest + 5 * smoothing) before--;
  const clock = time.subarray(before, to);
  const interval = (clock[clock.length - 1] - clock[0]) / max(1, clock.length - 1);
  const stride = max(1, Math.floor(closest / interval + 1e-9));
  const thinned = (column: Float64Array) =>
    stride === 1
      ? column
      : Float64Array.from({ length: Math.ceil(column.length / stride) }, (_, i) => column[i * stride]);
  return {
    clock: thinned(clock),
    x: thinned(lagged(clock, driver.subarray(before, to), smoothing)),
    y: thinned(lagged(clock, output.subarray(before, to), smoothing)),
    /** Where the stop itself begins. */
    first: Math.ceil((from - before) / stride),
    /** s */
    interval: interval * stride,
  };
}

/** Whether an output clearly moves with its driver. */
function follows(x: Float64Array, y: Float64Array): boolean {
  const { slope, rss, spanX, count } = offLine(x, y);
  return abs(slope) * spanX > seen * sqrt(rss / max(1, count - 2));
}

/** Residual sum of squares about the straight line of y over x. */
function offLine(x: Float64Array, y: Float64Array) {
  let [count, meanX, meanY, sxx, sxy, syy, low, high] = [0, 0, 0, 0, 0, 0, Infinity, -Infinity];
  for (let i = 0; i < x.length; i++) {
    if (isNaN(x[i]) || isNaN(y[i])) continue;
    count++;
    const [dx, dy] = [x[i] - meanX, y[i] - meanY];
    meanX += dx / count;
    meanY += dy / count;
    sxx += dx * (x[i] - meanX);
    sxy += dx * (y[i] - meanY);
    syy += dy * (y[i] - meanY);
    low = Math.min(low, x[i]);
    high = max(high, x[i]);
  }
  const slope = sxx > 0 ? sxy / sxx : 0;
  return { slope, rss: max(0, syy - slope * sxy), spanX: high - low, count };
}

/** Lowest point and second derivative of the parabola through a grid's points around its lowest. */
function parabola(grid: readonly { readonly lag: number; readonly rss: number }[], lowest: number) {
  const middle = grid.findIndex((each) => each.lag === lowest);
  const near = grid.slice(max(0, middle - 2), middle + 3);
  if (middle < 1 || middle > grid.length - 2) return { at: lowest, bend: 0 };
  const rows = near.map(({ lag }) => [1, lag - lowest, (lag - lowest) ** 2]);
  const [, tilt, half] = solve(new Matrix(rows), Matrix.columnVector(near.map(({ rss }) => rss)), true).to1DArray();
  if (!(half > 0)) return { at: lowest, bend: 0 };
  const off = -tilt / (2 * half);
  return { at: lowest + Math.min(coarse, max(-coarse, off)), bend: 2 * half };
}
