import { fitParabola } from '../../../fitting/parabola';
import type { PumpRun } from '../../../traces/pump-runs';
import { movingMean, noiseOf } from '../../../traces/smoothing';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { gasTemperatureAlong } from '../../../physics/gas-law';
import { gasTimeConstant } from './gas-time-constant';

const { abs, exp, log, max, min, sqrt } = Math;

/** A stretch of a store's pressure, Pa absolute, one way only: a charge from empty, or a bleed to empty. */
export interface KneeTrace {
  /** s */
  readonly time: Float64Array;
  readonly pressure: Float64Array;
  readonly direction: 'charge' | 'bleed';
  /** Pa absolute. */
  readonly ambient: number;
  /** Shell, K; gas settled there at the first sample. */
  readonly environment: number;
  /** Of the sheet, s. */
  readonly timeConstant: number;
  /** Runs of the pump on the way of a bleed, indices of samples. */
  readonly pumped?: readonly PumpRun[];
  /** Gas volume (m3) and pump flow (m3/s) of the sheet: a charge that swallows far less has no gas to fill against. */
  readonly volume: number;
  readonly flow: number;
}

/** The precharge seen in a trace, before any gauge. */
export interface Knee {
  /** s, in the trace's clock. */
  readonly time: number;
  /** Pa absolute, as it stood in the trace. */
  readonly pressure: number;
  /** Gas temperature there, K. */
  readonly temperature: number;
  /** Standard uncertainties of the pressure: fit, and when exactly the knee was, Pa. */
  readonly fitStandard: number;
  readonly timingStandard: number;
  /** What the pressure restated to one temperature moves by what is not known of the time constant, one sigma, as a share. */
  readonly gasHeatShare: number;
  /** Of the gas, as the trace tells it or the sheet says, s, and whether that is another than the sheet's, beyond what is not known of it. */
  readonly timeConstant: number;
  readonly otherThanSheet: boolean;
}

const levels = 80;
/** Half window of the smoothing, s. */
const halfWindow = 0.015;
/** A level counts as filled against the gas when the time spent there is this share of the longest. */
const dwellShare = 0.3;
/** Below this share of the gas volume that the sheet gives, what a charge swallows is lines and a bubble. */
const leastGasShare = 0.2;
/** A bleed that takes less than this from the top to the knee had no gas behind it, s. */
const leastBleed = 3;
/** A store is empty below this share of its highest pressure. */
export const emptyShare = 0.05;
/** The fit reaches from just beyond the knee to this many times its pressure. */
const nearest = 1.02;
const furthest = 1.6;
/** The gas's time constant is read from what lies further above a roughly found knee: below it lines empty, not gas. */
const clearOfKnee = 1.06;
/** Gauge parts of the steep stretch that the knee's time is carried on from. */
const steepLevels = { charge: [0.3, 0.8], bleed: [0.8, 0.4] } as const;
/** First (for a bleed, last) time at which a pressure along the trace passes a level; null when it never does. */
function passes(trace: KneeTrace, smooth: Float64Array, level: number): number | null {
  const { time, direction } = trace;
  const between = (i: number) => {
    const share = (level - smooth[i - 1]) / (smooth[i] - smooth[i - 1]);
    return time[i - 1] + min(1, max(0, share)) * (time[i] - time[i - 1]);
  };
  if (direction === 'charge') {
    for (let i = 1; i < smooth.length; i++) if (smooth[i] >= level && smooth[i - 1] < level) return between(i);
    return null;
  }
  for (let i = smooth.length - 1; i > 0; i--) if (smooth[i - 1] > level && smooth[i] <= level) return between(i);
  return null;
}

/**
 * Finds the knee: the level below which almost no time is spent, because there are only lines to fill, and above which
 * the gas takes the fluid. Beyond the knee T/p is nearly straight in time at a steady flow (p·V = N·T), so a parabola of T/p
 * over the stretch next to it, read at the time that the steep part points to, gives the precharge as it stood. The gas
 * temperature comes from the pressure itself.
 */
export function findKnee(trace: KneeTrace): Knee | AnalysisProblem {
  const { time, pressure, ambient, direction } = trace;
  const interval = time.length > 1 ? (time[time.length - 1] - time[0]) / (time.length - 1) : Number.NaN;
  const smooth = movingMean(pressure, max(0, Math.round(halfWindow / interval)));
  let peak = -Infinity;
  let lowest = Infinity;
  for (const value of smooth) {
    peak = max(peak, value);
    lowest = min(lowest, value);
  }
  const floor = lowest + max(0.01 * (peak - lowest), 4 * noiseOf(pressure));
  if (!(peak - floor > 20 * noiseOf(pressure)) || peak - ambient < 200e3) return { code: 'nothing-charged' };
  if (direction === 'charge') {
    const rising = whileRising(trace, smooth, { floor, peak });
    if (rising) return findKnee(rising);
  }
  // A knee that the trace does not reach down to is not in it.
  if (direction === 'bleed' && lowest - ambient > emptyShare * (peak - ambient))
    return { code: 'not-bled-out', left: lowest - ambient };
  const level = (at: number) => floor + ((peak - floor) * at) / levels;
  const crossed = Array.from({ length: levels }, (_, at) => passes(trace, smooth, level(at)));
  // Where a charge slows near its end the top level may be passed by noise alone.
  const dwell = crossed.slice(1, levels - 1).map((when, at) => {
    const before = crossed[at];
    return when === null || before === null ? 0 : abs(when - before);
  });
  const longest = max(...dwell);
  const first = dwell.findIndex(
    (each, at) => each >= dwellShare * longest && dwell.slice(at, at + 3).every((next) => next > 0.12 * longest),
  );
  if (first < 0) return { code: 'no-knee' };
  const rough = level(first);
  if (direction === 'charge') {
    const from = passes(trace, smooth, rough) ?? time[0];
    const to = passes(trace, smooth, level(levels - 2)) ?? time[time.length - 1];
    const share = 1 - rough / level(levels - 2);
    if ((trace.flow * (to - from)) / max(share, 0.05) < leastGasShare * trace.volume) return { code: 'no-knee' };
  } else {
    const from = passes(trace, smooth, level(levels - 2)) ?? time[0];
    const to = passes(trace, smooth, rough) ?? time[time.length - 1];
    if (to - from < leastBleed) return { code: 'no-knee' };
  }
  if (direction === 'charge') return refined(trace, smooth, rough, interval);
  const seated = passes(trace, smooth, rough * clearOfKnee) ?? time[0];
  const bled = { time, pressure, ambient, environment: trace.environment, pumped: trace.pumped ?? [] };
  const told = gasTimeConstant(bled, indexFrom(time, seated), trace.timeConstant);
  const at = (factor: number) => refined({ ...trace, timeConstant: told.seconds * factor }, smooth, rough, interval);
  const knee = at(1);
  if ('code' in knee) return knee;
  // To one side it may be more than to the other: the larger counts, and what is to be covered are two of them.
  const restated = (each: Knee) => each.pressure / each.temperature;
  const off = [exp(-2 * told.logStandard), exp(2 * told.logStandard)].map((factor) => {
    const other = at(factor);
    return 'code' in other ? 0 : abs(restated(other) / restated(knee) - 1);
  });
  const otherThanSheet = abs(log(told.seconds / trace.timeConstant)) > 2 * told.logStandard;
  return { ...knee, gasHeatShare: max(...off) / 2, otherThanSheet };
}

/** First sample at a time or after it. */
function indexFrom(time: Float64Array, seconds: number): number {
  const at = time.findIndex((each) => each >= seconds);
  return at < 0 ? time.length : at;
}

/** This share of a rise short of its top a charge counts as over; and it stood there if that took this much of the time it rose for. */
const topShare = 0.02;
const stoodShare = 0.2;

/** The part of a charge in which the pressure rose, where a relief valve held it after that; null where it rose to its end. */
function whileRising(
  trace: KneeTrace,
  smooth: Float64Array,
  { floor, peak }: { readonly floor: number; readonly peak: number },
): KneeTrace | null {
  const { time, pressure } = trace;
  const top = smooth.findIndex((value) => value >= peak - topShare * (peak - floor));
  const rose = time[top] - time[0];
  if (top < 2 || time[time.length - 1] - time[top] <= stoodShare * rose) return null;
  return { ...trace, time: time.subarray(0, top + 1), pressure: pressure.subarray(0, top + 1) };
}

function refined(trace: KneeTrace, smooth: Float64Array, rough: number, interval: number): Knee | AnalysisProblem {
  const { time, pressure, environment, ambient } = trace;
  let temperature: Float64Array = new Float64Array(0);
  let ratio: Float64Array = new Float64Array(0);
  let knee = { time: passes(trace, smooth, rough) ?? time[0], pressure: rough };
  let fitStandard = 0;
  let timingStandard = 0;
  let gas = environment;
  for (let round = 0; round < 4; round++) {
    // Below its precharge the gas is not squeezed, whatever the lines do.
    const squeezing = smooth.map((value) => max(value, knee.pressure));
    temperature = gasTemperatureAlong(time, squeezing, trace.timeConstant, environment);
    ratio = pressure.map((value, i) => temperature[i] / value);
    const span = fitSpan(trace, smooth, knee.pressure);
    if (span.to - span.from < 6) return { code: 'knee-too-coarse' };
    const fit = fitParabola(time, ratio, span.from, span.to);
    if (fit.termination !== 'converged') return { code: 'fit-failed', termination: fit.termination };
    const found = kneeTime(trace, knee, interval);
    const there = fit.at(found.time);
    gas = temperatureAt(trace, temperature, span, found.time);
    const at = gas / there.value;
    if (!(at > 0) || !Number.isFinite(at)) return { code: 'no-knee' };
    // Without a steep stretch below there is no precharge to be told from the atmosphere.
    knee = { time: found.time, pressure: max(at, ambient) };
    fitStandard = (at * sqrt(max(0, there.variance))) / there.value;
    const later = gas / fit.at(found.time + found.standard).value;
    timingStandard = abs(later - at);
  }
  return {
    ...knee,
    temperature: gas,
    fitStandard,
    timingStandard,
    gasHeatShare: 0,
    timeConstant: trace.timeConstant,
    otherThanSheet: false,
  };
}

/** Samples next to the knee on the gas's side of it. */
function fitSpan(trace: KneeTrace, smooth: Float64Array, knee: number): { from: number; to: number } {
  const { time, direction } = trace;
  const near = passes(trace, smooth, knee * nearest);
  const far = passes(trace, smooth, knee * furthest);
  const inner = near ?? (direction === 'charge' ? time[0] : time[time.length - 1]);
  const outer = far ?? (direction === 'charge' ? time[time.length - 1] : time[0]);
  const [begin, end] = direction === 'charge' ? [inner, outer] : [outer, inner];
  let from = 0;
  while (from < time.length && time[from] < begin) from++;
  let to = from;
  while (to < time.length && time[to] <= end) to++;
  return { from, to };
}

/** When the steep stretch meets the knee's pressure. A pump fills lines evenly; a bleed empties them with √p. */
function kneeTime(
  trace: KneeTrace,
  knee: { readonly time: number; readonly pressure: number },
  interval: number,
): { time: number; standard: number } {
  const { ambient, direction, pressure } = trace;
  const gauge = knee.pressure - ambient;
  const [firstShare, secondShare] = steepLevels[direction];
  // The lines may fill within a handful of samples: smoothing would bend so short a stretch, and noise is nothing on it.
  const first = passes(trace, pressure, ambient + firstShare * gauge);
  const second = passes(trace, pressure, ambient + secondShare * gauge);
  const sampling = interval / sqrt(12);
  if (first === null || second === null) return { time: knee.time, standard: max(sampling, interval) };
  const shape = direction === 'charge' ? (share: number) => share : sqrt;
  const onward = (second - first) / (shape(secondShare) - shape(firstShare));
  const time =
    direction === 'charge' ? second + onward * (1 - shape(secondShare)) : first - onward * (shape(firstShare) - 1);
  return { time, standard: Math.hypot(sampling, 0.15 * abs(second - first)) };
}

/** Gas temperature carried on from the fitted stretch to the knee itself. */
function temperatureAt(
  trace: KneeTrace,
  temperature: Float64Array,
  span: { from: number; to: number },
  when: number,
): number {
  if (trace.direction === 'charge') return trace.environment;
  const fit = fitParabola(trace.time, temperature, max(span.from, span.to - 400), span.to);
  return fit.termination === 'converged' ? fit.at(when).value : temperature[span.to - 1];
}
