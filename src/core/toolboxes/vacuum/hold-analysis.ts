import { fitDecay, type DecayFit } from '../../fitting/decay';
import { predictHold } from '../../fitting/hold-prediction';
import {
  coverageFactor,
  differenceComponents,
  random,
  scaleComponents,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { quantity, type Temperature } from '../../quantities/quantity';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { earliestCall, predictionCoverage } from './early-call';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { findPull, isPull } from '../../traces/pull';

const { abs, floor, max, min, round, sqrt } = Math;

/** Reference temperature of standard cubic centimetres, K. */
const standardTemperature = quantity<Temperature>(293.15);

/** Left off at the start of a hold: valve movement and the first of the settling, s. */
const settlingTime = 1;

interface HoldWindow {
  readonly from: number;
  readonly to: number;
}

/** Change of `channel` (SI) over `seconds` of a fitted hold, with its uncertainty. */
interface HeldChange {
  readonly fit: DecayFit;
  readonly level: number;
  readonly change: number;
  readonly components: readonly UncertaintyComponent[];
}

/** A fit whose residuals are this many times the noise does not describe the hold. */
const poorFit = 4;

/** Change from the fit, or from the readings at both ends where neither shape describes a collapse. */
function changeOf(
  fit: DecayFit,
  time: Float64Array,
  column: Float64Array,
  seconds: number,
): { value: number; variance: number } {
  const covered = time[time.length - 1] - time[0];
  const noise = max(noiseOf(column), Number.EPSILON);
  if (fit.termination === 'converged' && fit.residual < poorFit * noise) return fit.changeAfter(seconds);
  const few = max(2, min(20, floor(time.length / 20)));
  const first = meanOf(column, 0, few);
  const last = meanOf(column, column.length - few);
  const change = last.mean - first.mean;
  // Short of the stated time the loss so far is a lower bound; a collapse has settled long before.
  const value = covered > 0 ? change : Number.NaN;
  return { value, variance: (2 * noise ** 2) / few + (change * max(0, 1 - covered / seconds)) ** 2 / 3 };
}

function heldChange(
  trace: Trace,
  channel: string,
  window: HoldWindow,
  how: { readonly seconds: number; readonly context: StepContext<unknown> },
): HeldChange {
  const time = trace.time.subarray(window.from, window.to);
  const column = trace.columns[channel].subarray(window.from, window.to);
  const fit = fitDecay(time, column);
  const { value, variance } = changeOf(fit, time, column, how.seconds);
  const instrument = how.context.instruments.get(channel);
  const components: UncertaintyComponent[] = [random('fit', sqrt(variance))];
  if (instrument) {
    // Noise wider than a division dithers the gauge; a quiet gauge is only as good as its divisions.
    if (noiseOf(column) < instrument.resolution)
      components.push(random('resolution', (Math.SQRT2 * instrument.resolution) / sqrt(12)));
    components.push(...differenceComponents(instrument, fit.start, fit.start + value, how.context.date));
  }
  return { fit, level: fit.start, change: value, components };
}

/** Longest run of samples from the highest reading on; the lever is locked, so the channel only drifts. */
function pressureHoldWindow(trace: Trace, column: Float64Array): HoldWindow | null {
  const pull = findPull(trace, column);
  if (!isPull(pull)) return null;
  const from = indexAtTime(trace, trace.time[pull.plateau.from] + settlingTime);
  // A leaking unit leaves the plateau band: the hold lasts until the lever is let back.
  const interval = sampleInterval(trace);
  const drop = max(1, round(0.25 / interval));
  let to = from;
  while (to + drop < pull.smooth.length && pull.smooth[to] - pull.smooth[to + drop] < 0.05 * pull.peak) to++;
  return to - from > 10 ? { from, to } : null;
}

export interface PressureHoldOptions {
  /** Time of the full hold, s. */
  readonly seconds: number;
  readonly withInputCreep: boolean;
  /** Where there is no output gauge it is the input that is locked in and watched. */
  readonly held?: 'input_pressure';
}

/**
 * Decay and input creep (Pa/s, positive = falling output, rising input) of a locked-in pressure, from the fitted decay
 * over the hold. Channels `output_pressure`, `input_pressure`; the input alone where that is what is held.
 */
export function analysePressureHold(
  trace: Trace,
  context: StepContext<unknown>,
  options: PressureHoldOptions,
): StepAnalysis {
  const channel = options.held ?? 'output_pressure';
  const decayRate = options.held ? 'input-decay-rate' : 'output-decay-rate';
  const ids = options.withInputCreep ? ([decayRate, 'input-creep'] as const) : ([decayRate] as const);
  const column = columnOf(trace, channel);
  if (!column || !columnOf(trace, 'input_pressure')) return nothingMeasured(ids, { code: 'no-pull', channel });
  const window = pressureHoldWindow(trace, column);
  if (!window) return nothingMeasured(ids, { code: 'no-hold', channel, seconds: options.seconds });
  const covered = trace.time[window.to - 1] - trace.time[window.from];
  const needed = min(fullShare * options.seconds, earliestCall(options.seconds));
  if (covered < needed - shortBy) return nothingMeasured(ids, { code: 'hold-too-short', seconds: covered, needed });
  const early = covered < fullShare * options.seconds;
  const seconds = early ? options.seconds : covered;
  const held = (of: string) => {
    const whole = heldChange(trace, of, window, { seconds, context });
    return early ? calledEarly(trace, of, { whole, window, seconds, ambient: null }) : whole;
  };
  const out = held(channel);
  if (!out) return nothingMeasured(ids, { code: 'hold-too-short', seconds: covered, needed: options.seconds });
  const characteristics: Characteristic[] = [
    measured(decayRate, -out.change / seconds, scaleComponents(out.components, 1 / seconds)),
  ];
  if (options.withInputCreep) {
    const creep = held('input_pressure') ?? heldChange(trace, 'input_pressure', window, { seconds, context });
    characteristics.push(
      measured('input-creep', creep.change / seconds, scaleComponents(creep.components, 1 / seconds)),
    );
  }
  const events: TraceEvent[] = [
    { id: 'hold', time: trace.time[window.from], y: out.level },
    { id: 'hold', time: trace.time[window.to - 1], y: out.level + out.change },
  ];
  const notes: AnalysisProblem[] = early ? [{ code: 'called-early', at: covered, of: options.seconds }] : [];
  return { characteristics, events, notes, held: out.level };
}

export interface VacuumHoldOptions {
  /** Time over which the loss is stated, s. */
  readonly seconds: number;
  /** Volume of the unit that is evacuated in this step, m3, or null. */
  readonly volume: number | null;
  /** Channel that shows how long the unit was held applied; null for a hold at rest. */
  readonly appliedChannel: string | null;
}

/**
 * Loss of vacuum (Pa) over the stated time and the leak as standard volume flow (m3/s at 101.325 kPa, 20 °C):
 * Vol·(dp/dt)/101.325 kPa·293.15 K/T with Vol the evacuated volume and T the air temperature.
 * Channel `supply_vacuum`; of an applied hold the lever's channel tells when it began and ended.
 */
export function analyseVacuumHold(
  trace: Trace,
  context: StepContext<unknown>,
  options: VacuumHoldOptions,
): StepAnalysis {
  const ids = ['vacuum-loss', 'leak-flow'] as const;
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const window = vacuumHoldWindow(trace, supply, options);
  const covered = window.to > window.from ? trace.time[window.to - 1] - trace.time[window.from] : 0;
  const needed = min(fullShare * options.seconds, earliestCall(options.seconds));
  if (covered < needed - shortBy) return nothingMeasured(ids, { code: 'hold-too-short', seconds: covered, needed });
  const early = covered < fullShare * options.seconds;
  const whole = heldChange(trace, 'supply_vacuum', window, { seconds: options.seconds, context });
  const loss = early
    ? calledEarly(trace, 'supply_vacuum', {
        whole,
        window,
        seconds: options.seconds,
        ambient: context.ambient.pressure,
      })
    : whole;
  if (loss === null) return nothingMeasured(ids, { code: 'hold-too-short', seconds: covered, needed: options.seconds });
  const events: TraceEvent[] = [
    { id: 'hold', time: trace.time[window.from], y: loss.level },
    { id: 'hold', time: trace.time[window.to - 1], y: loss.level + loss.fit.changeAfter(covered).value },
  ];
  const characteristics: Characteristic[] = [measured('vacuum-loss', -loss.change, loss.components)];
  if (options.volume === null || context.benchVolume === null) {
    characteristics.push(absent('leak-flow', { code: 'no-volume' }));
  } else {
    const volume = options.volume + context.benchVolume;
    const perPascal = ((volume / options.seconds / seaLevelPressure) * standardTemperature) / context.airTemperature;
    characteristics.push(
      measured('leak-flow', -loss.change * perPascal, [
        ...scaleComponents(loss.components, perPascal),
        // A shell measured with rule and calliper is good to about 5 %.
        { source: 'volume', standard: abs(loss.change * perPascal) * 0.05, random: false },
      ]),
    );
  }
  const notes: AnalysisProblem[] = early ? [{ code: 'called-early', at: covered, of: options.seconds }] : [];
  return { characteristics, events, notes, vacuum: loss.level };
}

/** A hold that covers this share of its time is judged by its fit; a shorter one by what it is predicted to reach. */
const fullShare = 0.6;

/** A hold that was ended early misses its earliest call by no more than a sample or two, s. */
const shortBy = 0.1;

/** The loss that a hold ended early is predicted to reach: the prediction's own doubt takes the place of the fit's. */
function calledEarly(
  trace: Trace,
  channel: string,
  how: {
    readonly whole: HeldChange;
    readonly window: HoldWindow;
    readonly seconds: number;
    readonly ambient: number | null;
  },
): HeldChange | null {
  const { whole, window } = how;
  const prediction = predictHold(
    trace.time.subarray(window.from, window.to),
    trace.columns[channel].subarray(window.from, window.to),
    how,
  );
  if (prediction.kind !== 'predicted') return null;
  const rest = whole.components.filter((part) => part.source !== 'fit');
  // Three standard uncertainties as for the call itself, so that the verdict is the one that was offered.
  const standard = (predictionCoverage / coverageFactor) * prediction.standard;
  return { ...whole, change: prediction.change, components: [random('fit', standard), ...rest] };
}

/** A fall of the supply counts from here, Pa, or from four deviations of its smoothed noise. */
const visibleFall = 120;

/**
 * The hold runs for the stated time from where the supply leaves its level for good (the source was shut there),
 * and where it never does, it is the last stated time of the trace. With the unit applied it does not begin before
 * the plateau, and it ends where the lever is let back.
 */
function vacuumHoldWindow(trace: Trace, supply: Float64Array, options: VacuumHoldOptions): HoldWindow {
  const { seconds, appliedChannel } = options;
  const lever = appliedChannel === null ? undefined : columnOf(trace, appliedChannel);
  const pull = lever ? findPull(trace, lever) : null;
  const applied = pull !== null && isPull(pull);
  const end = applied ? min(trace.time.length, pull.plateau.to) : trace.time.length;
  const begins = indexAtTime(trace, trace.time[applied ? pull.plateau.from : 0] + settlingTime);
  const half = max(1, round(0.05 / sampleInterval(trace)));
  const smooth = movingMean(supply, half);
  const band = max(visibleFall, (4 * noiseOf(supply)) / sqrt(2 * half + 1));
  let highest = -Infinity;
  for (let i = begins; i < end; i++) highest = max(highest, smooth[i]);
  let leaves = end - 1;
  while (leaves > begins && smooth[leaves] < highest - band) leaves--;
  const from = max(begins, min(leaves, indexAtTime(trace, trace.time[end - 1] - seconds)));
  return { from, to: min(end, indexAtTime(trace, trace.time[from] + seconds) + 1) };
}
