import { predictHold, type HoldPrediction } from '../../fitting/hold-prediction';

const { hypot, max, min } = Math;

/** A hold as it is watched: readings so far and what they must not exceed. SI. */
export interface WatchedHold {
  readonly time: ArrayLike<number>;
  readonly value: ArrayLike<number>;
  /** Full time of the hold, s. */
  readonly seconds: number;
  /** Most that may be lost over the full time. */
  readonly limit: number;
  /** Standard uncertainty of a loss of this size besides the fit (gauge, resolution). */
  readonly gauge: (loss: number) => number;
  /** Local atmosphere for a vacuum, Pa absolute; null for a pressure. */
  readonly ambient: number | null;
}

export type EarlyCall =
  | { readonly kind: 'too-early'; readonly from: number }
  | { readonly kind: 'wait'; readonly because: 'too-few-samples' }
  | {
      readonly kind: 'open' | 'pass' | 'fail';
      /** s since the hold began. */
      readonly at: number;
      /** Predicted loss over the full time and its expanded uncertainty. */
      readonly loss: number;
      readonly expanded: number;
      readonly model: Extract<HoldPrediction, { kind: 'predicted' }>['model'];
    };

/** No call before this share of the time and this many seconds, whichever is later. */
export const earliestShare = 0.2;
export const earliestSeconds = 5;
/** The prediction counts this many standard uncertainties: wider than a reading's, because a wrong call is final. */
export const predictionCoverage = 3;

/** Share of the loss still to come that a leak which dies down would bring. */
const diesDown = 0.6;

/** Seconds from which a hold may be called. */
export function earliestCall(seconds: number): number {
  return min(seconds, max(earliestShare * seconds, earliestSeconds));
}

/**
 * Whether a hold can be called before its time: once the predicted loss with its interval lies wholly on one side of
 * the limit, trends left in the residuals included. Never before a fifth of the time and five seconds.
 */
export function earlyCall(hold: WatchedHold): EarlyCall {
  const { time, value, seconds, limit } = hold;
  const at = time.length > 1 ? time[time.length - 1] - time[0] : 0;
  const from = earliestCall(seconds);
  if (at < from - 1e-6) return { kind: 'too-early', from };
  const prediction = predictHold(time, value, { seconds, ambient: hold.ambient });
  if (prediction.kind !== 'predicted') return { kind: 'wait', because: prediction.kind };
  const loss = -prediction.change;
  const expanded = hypot(predictionCoverage * prediction.standard, 2 * hold.gauge(loss));
  // A leak may die down but does not grow by itself: what is still to come counts for less when it would fail.
  const soFar = -prediction.soFar;
  const least = soFar + (loss - soFar) * diesDown;
  // A settling that hides a leak dies down too: a pass must also hold at the rate of the later half.
  const most = max(loss, -prediction.byRate);
  // Nor may one that grows with time still reach the limit; one that opens late nobody can see coming.
  const grown = prediction.byGrowth + 2 * hold.gauge(loss);
  const kind = most + expanded <= limit && grown <= limit ? 'pass' : least - expanded > limit ? 'fail' : 'open';
  return { kind, at, loss, expanded, model: prediction.model };
}
