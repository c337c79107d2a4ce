import { coverageFactor } from '../../instruments/coverage-factor';
import { fitDecay } from '../../fitting/decay';
import { predictHold } from '../../fitting/hold-prediction';
import { fitSettling } from '../../fitting/settling';
import {
  differenceComponents,
  differenceResolution,
  stabilityComponent,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import type { StepContext } from '../../procedure/step-context';
import { binMeans, divisionOf, scatterOf, type Samples } from '../../traces/own-samples';
import { predictionCoverage } from './early-call';

const { abs, hypot, max, min, sqrt } = Math;

/** How much a shut-off channel falls (positive) over a stated time, SI. */
export interface HeldChange {
  /** Over the stated time, and up to the last sample. */
  readonly value: number;
  readonly soFar: number;
  /** Standard uncertainty by the fit alone. */
  readonly standard: number;
  readonly start: number;
  /** What of the fall died away and is no leak, where that could be told apart. */
  readonly settled: number | null;
}

/** Points that a hold is fitted on: means of neighbours. */
const mostPoints = 400;
/** A fit whose residuals are this many times the scatter does not describe the hold. */
const poorFit = 4;
/** Better than a straight line by this, AICc, before a transient is told apart from the leak. */
const toldApart = 10;

/** Means of neighbouring samples, so that a long hold is fitted as fast as a short one. */
export function thinned(samples: Samples): Samples {
  const n = samples.time.length;
  return n > mostPoints ? binMeans(samples, (samples.time[n - 1] - samples.time[0]) / mostPoints) : samples;
}

/**
 * Fall over `seconds` from the decay that fits the samples best. A transient of at most `largest` that dies away within
 * the hold is told apart and left out; where no shape describes what happened, the readings at both ends count.
 */
export function fittedChange(samples: Samples, seconds: number, largest: number): HeldChange {
  const points = thinned(samples);
  const { time, value } = points;
  const covered = time[time.length - 1] - time[0];
  const settling = largest > 0 ? fitSettling(time, value) : null;
  if (
    settling &&
    settling.gain > toldApart &&
    settling.amplitude > 3 * settling.amplitudeStandard &&
    settling.amplitude < largest
  )
    return {
      value: -settling.rate * seconds,
      soFar: settling.amplitude - settling.rate * covered,
      standard: settling.rateStandard * seconds,
      start: value[0],
      settled: settling.amplitude,
    };
  const fit = fitDecay(time, value);
  const scatter = max(scatterOf(samples), divisionOf(samples) / sqrt(12));
  const each = sqrt(max(1, samples.time.length / time.length));
  if (fit.termination === 'converged' && fit.residual * each <= poorFit * scatter + 1e-9 * abs(fit.start)) {
    const change = fit.changeAfter(seconds);
    return {
      value: -change.value,
      soFar: -fit.changeAfter(covered).value,
      standard: sqrt(change.variance) * widening(points, fit, divisionOf(samples)),
      start: fit.start,
      settled: null,
    };
  }
  return betweenEnds(points, covered, seconds);
}

/** What a hold that ended early is predicted to fall over `seconds`; null where it is too short even for that. */
export function predictedChange(samples: Samples, seconds: number, ambient: number | null): HeldChange | null {
  const prediction = predictHold(samples.time, samples.value, { seconds, ambient });
  if (prediction.kind !== 'predicted') return null;
  return {
    value: -prediction.change,
    soFar: -prediction.soFar,
    // Three standard uncertainties as for the call itself, and what a growing leak could still bring, so that the verdict
    // is the one that was offered.
    standard: max(
      (predictionCoverage / coverageFactor) * prediction.standard,
      (prediction.byGrowth + prediction.change) / coverageFactor,
    ),
    start: samples.value[0],
    settled: null,
  };
}

/** Fall between the readings at both ends, where no shape describes what happened between them. */
function betweenEnds({ value }: Samples, covered: number, seconds: number): HeldChange {
  const few = max(1, min(20, Math.floor(value.length / 20)));
  const mean = (from: number, to: number) =>
    value.subarray(from, to).reduce((sum, each) => sum + each, 0) / max(1, to - from);
  const [first, last] = [mean(0, few), mean(value.length - few, value.length)];
  const lost = first - last;
  let uneven = 0;
  for (let i = 0; i < value.length; i++)
    uneven = max(uneven, abs(value[i] - first + (lost * i) / max(1, value.length - 1)));
  // Short of the stated time the loss so far is a lower bound; a collapse has settled long before.
  const short = abs(lost) * max(0, 1 - covered / seconds);
  return {
    value: lost,
    soFar: lost,
    standard: hypot(min(uneven, abs(lost)) / 20, short / sqrt(3)),
    start: first,
    settled: null,
  };
}

/**
 * Widening of a fit's standard uncertainty for residuals that hang together (Bartlett 1946), as for straight lines. What of them a needle's
 * step or a logger's division leaves hangs together too, and is none of it: rounding is a part of its own, once a reading.
 */
function widening({ time, value }: Samples, fit: ReturnType<typeof fitDecay>, division: number): number {
  let [squares, lagged, before] = [0, 0, 0];
  for (let i = 0; i < time.length; i++) {
    const residual = value[i] - fit.start - fit.changeAfter(time[i] - time[0]).value;
    squares += residual ** 2;
    lagged += i > 0 ? residual * before : 0;
    before = residual;
  }
  const rounding = (time.length * division ** 2) / 12;
  const beyond = squares > 0 ? max(0, 1 - rounding / squares) : 0;
  const r = squares > 0 ? beyond * min(0.98, max(0, lagged / squares)) : 0;
  return sqrt((1 + r) / (1 - r));
}

interface OnGauge {
  readonly channel: string;
  readonly change: HeldChange;
  readonly seconds: number;
}

/**
 * What the gauge adds to a fall: gain and linearity of a difference, its own drift over the hold, and its divisions (or
 * the log's, where they are coarser) where no noise dithers them.
 */
export function gaugeOfChange(
  samples: Samples,
  context: StepContext<unknown>,
  { channel, change, seconds }: OnGauge,
): UncertaintyComponent[] {
  const instrument = context.instruments.get(channel);
  const scatter = scatterOf(samples);
  const division = divisionOf(samples);
  const resolution = max(instrument?.resolution ?? 0, scatter < division ? division : 0);
  return [
    differenceResolution({ resolution: scatter < resolution ? resolution : 0 }),
    ...(instrument
      ? [
          ...differenceComponents(instrument, change.start, change.start - change.value, context.date),
          stabilityComponent(instrument, change.start, seconds, context.date),
        ]
      : []),
  ];
}
