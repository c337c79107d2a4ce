import { correctedAkaike, fitExponentialDecay, fitLinearDecay, type DecayFit } from './decay';
import { fitChokedDecay } from './choked-decay';
import { fitLine } from './line';
import { fitParabola } from './parabola';

const { abs, ceil, floor, max, min, sqrt } = Math;
const { isFinite, isNaN } = Number;

/** What a hold would show after its full time, from its beginning alone. */
export type HoldPrediction =
  | {
      readonly kind: 'predicted';
      readonly model: DecayFit['kind'] | 'choked';
      /** Change of y from the first sample to the full time. */
      readonly change: number;
      /** Change up to the last sample. */
      readonly soFar: number;
      /** Change over the full time if the rate of the later half went on: what has settled counts no more. */
      readonly byRate: number;
      /** Largest fall over the full time that a leak which grows evenly with time could still bring, given the samples. */
      readonly byGrowth: number;
      /** Standard uncertainty of that prediction: fit, and what the models that fit as well would say instead. */
      readonly standard: number;
    }
  | { readonly kind: 'too-few-samples' };

export interface PredictionOptions {
  /** Full time of the hold, s. */
  readonly seconds: number;
  /** For a vacuum: local atmosphere, Pa absolute, so that a leak may leave the choked range; else null. */
  readonly ambient: number | null;
}

/** Fewest samples that carry a prediction, and the means of neighbours that it is made on. */
const leastSamples = 8;
const mostPoints = 160;
/** A model this much worse by AICc than the best is not listened to. */
const plausible = 6;
/** Pieces that the residuals are looked at in, and the mean square of their standardised means that is a trend. */
const pieces = 8;
const mostTrend = 2.5;

interface Candidate {
  readonly model: DecayFit['kind'] | 'choked';
  readonly score: number;
  readonly change: number;
  readonly variance: number;
  readonly at: (t: number) => number;
  readonly residual: number;
}

/**
 * Predicts the change of a hold over its full time from the samples so far (`time` in s, `y` SI). Constant leak,
 * exponential and choked-then-falling decay are fitted and picked by AICc; the spread of those that fit as well, the
 * rate of the later half by itself, and what trend the residuals have left all widen the prediction, because what the
 * beginning cannot tell apart the end may.
 */
export function predictHold(
  time: ArrayLike<number>,
  y: ArrayLike<number>,
  { seconds, ambient }: PredictionOptions,
): HoldPrediction {
  if (time.length < leastSamples) return { kind: 'too-few-samples' };
  const thin = meansOf(time, y);
  const candidates = candidatesOf(thin.time, thin.y, seconds, ambient);
  if (candidates.length === 0) return { kind: 'too-few-samples' };
  const best = candidates.reduce((p, q) => (q.score < p.score ? q : p));
  const now = thin.time[thin.time.length - 1] - thin.time[0];
  const others = candidates.filter((each) => each !== best && each.score < best.score + plausible);
  const byRate = laterRate(thin.time, thin.y, seconds);
  const changes = [best.change, ...others.map((each) => each.change), byRate.change];
  const spread = max(...changes.map((change) => abs(change - best.change)));
  // A trend left in the residuals is carried on to the end in proportion.
  const trend = (trendOf(thin.time, thin.y, best) * seconds) / max(now, Number.EPSILON);
  const soFar = best.at(now) - best.at(0);
  return {
    kind: 'predicted',
    model: best.model,
    change: best.change,
    soFar,
    byRate: byRate.change,
    byGrowth: max(
      growth(thin.time, thin.y, { seconds, now, soFar, from: 0, coverage: growthCoverage }),
      // A settling at the start may hide the bend of a growing leak: what comes after it counts for itself.
      growth(thin.time, thin.y, { seconds, now, soFar, from: floor(0.3 * thin.time.length), coverage: 1 }),
    ),
    standard: sqrt(max(best.variance, byRate.variance) + (spread / 2) ** 2 + trend ** 2),
  };
}

/** Means of neighbouring samples, so that a long hold is fitted as fast as a short one. */
function meansOf(time: ArrayLike<number>, y: ArrayLike<number>): { time: Float64Array; y: Float64Array } {
  const size = max(1, ceil(time.length / mostPoints));
  const times: number[] = [];
  const values: number[] = [];
  for (let from = 0; from < time.length; from += size) {
    let [n, sumT, sumY] = [0, 0, 0];
    for (let i = from; i < min(time.length, from + size); i++) {
      if (isNaN(y[i])) continue;
      n++;
      sumT += time[i];
      sumY += y[i];
    }
    if (n === 0) continue;
    times.push(sumT / n);
    values.push(sumY / n);
  }
  return { time: Float64Array.from(times), y: Float64Array.from(values) };
}

function candidatesOf(
  time: ArrayLike<number>,
  y: ArrayLike<number>,
  seconds: number,
  ambient: number | null,
): Candidate[] {
  const fits: DecayFit[] = [fitLinearDecay(time, y), fitExponentialDecay(time, y)];
  const candidates = fits
    .filter((fit) => fit.termination === 'converged')
    .map((fit): Candidate => {
      const after = fit.changeAfter(seconds);
      return {
        model: fit.kind,
        score: correctedAkaike(fit.rss, fit.count, fit.parameters),
        change: after.value,
        variance: after.variance,
        at: (t) => fit.start + fit.changeAfter(t).value,
        residual: fit.residual,
      };
    });
  const choked = ambient === null ? null : fitChokedDecay(time, y, ambient);
  if (choked?.termination === 'converged') {
    const after = choked.changeAfter(seconds);
    candidates.push({
      model: 'choked',
      score: correctedAkaike(choked.rss, choked.count, 2),
      change: after.value,
      variance: after.variance,
      at: (t) => choked.start + choked.changeAfter(t).value,
      residual: choked.residual,
    });
  }
  return candidates.filter((each) => isFinite(each.change) && isFinite(each.variance));
}

/** What the rate of the later half would add up to: what has happened, and that rate from now on. */
function laterRate(
  time: ArrayLike<number>,
  y: ArrayLike<number>,
  seconds: number,
): { readonly change: number; readonly variance: number } {
  const n = time.length;
  const whole = fitLine(time, y);
  const half = fitLine(time, y, { from: floor(n / 2) });
  const now = time[n - 1] - time[0];
  const left = max(0, seconds - now);
  const later = half.termination === 'converged' ? half : whole;
  return { change: whole.slope * now + later.slope * left, variance: later.slopeVariance * left ** 2 };
}

/** A growth is listened to up to this many standard uncertainties beyond its best estimate. */
const growthCoverage = 2;

interface SoFar {
  readonly seconds: number;
  readonly now: number;
  readonly soFar: number;
  /** First sample that is used, and how many standard uncertainties beyond the best estimate are listened to. */
  readonly from: number;
  readonly coverage: number;
}

/**
 * Fall over the full time if the leak grows evenly (rate = a + b·t): the parabola that the samples allow, at its
 * steepest within two standard uncertainties, carried on from what was lost so far. Never less than nothing.
 */
function growth(time: ArrayLike<number>, y: ArrayLike<number>, { seconds, now, soFar, from, coverage }: SoFar): number {
  const parabola = fitParabola(time, y, from);
  if (parabola.termination !== 'converged') return Infinity;
  const end = time[0] + seconds;
  const [, , bend] = parabola.coefficients;
  const last = parabola.at(time[0] + now);
  const at = parabola.at(end);
  // A vacuum that bends upwards is settling, not leaking more and more: its tangent counts.
  const tangent = last.value + (parabola.coefficients[1] + 2 * bend * (time[0] + now)) * (end - time[0] - now);
  const reached = (bend < 0 ? at.value : min(at.value, tangent)) - coverage * sqrt(at.variance);
  return max(0, -soFar, last.value - reached - soFar);
}

/** Largest distance of a piece of the samples from the model, where the pieces show a trend at all; else 0. */
function trendOf(time: ArrayLike<number>, y: ArrayLike<number>, model: Candidate): number {
  const n = time.length;
  if (n < 3 * pieces) return 0;
  let sum = 0;
  let largest = 0;
  for (let piece = 0; piece < pieces; piece++) {
    const from = floor((piece * n) / pieces);
    const to = floor(((piece + 1) * n) / pieces);
    let mean = 0;
    let squares = 0;
    for (let i = from; i < to; i++) {
      const residual = y[i] - model.at(time[i] - time[0]);
      const delta = residual - mean;
      mean += delta / (i - from + 1);
      squares += delta * (residual - mean);
    }
    const standard = sqrt(squares / (to - from - 1) / (to - from));
    sum += standard > 0 ? (mean / standard) ** 2 : 0;
    largest = max(largest, abs(mean));
  }
  return sum / pieces > mostTrend ? largest : 0;
}
