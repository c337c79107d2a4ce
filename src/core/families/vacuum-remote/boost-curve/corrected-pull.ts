import type { FollowingLag } from '../../../fitting/following-lag';
import { leverSpeed, type Following } from '../../../procedure/pull-evidence';
import { differenceComponents, systematic, unreadZero } from '../../../instruments/uncertainty';
import type { UncertaintyComponent } from '../../../instruments/uncertainty';
import type { Pull, Span } from '../../../traces/pull';
import { meanOf } from '../../../traces/trace';
import type { Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { unmeasuredPairStandard } from '../steps/gauge-agreement-analysis';
import type { StepContext } from '../../../procedure/step-context';
import type { Unassisted } from './boost-lines';
import type { RemoteUnit } from '../unit/remote-unit';

const { hypot, sqrt } = Math;

/** What a layout's boost curve is read from, and what its figures are called. */
export interface BoostSetup {
  readonly output: 'output_pressure' | 'rod_force';
  readonly unassisted: Unassisted;
  /** What the output still gains with the input beyond run-out; 0 where it stands. */
  readonly slopeBeyond: number;
  readonly ids: {
    readonly slope: 'boost-slope' | 'servo-slope';
    readonly runOutOutput: 'run-out-output' | 'run-out-servo-force';
    /** Output at the reference input: over that input, or as it is. */
    readonly atReference: 'boost-ratio' | 'servo-force';
    readonly residual: 'residual-output' | 'servo-residual';
  };
}

/** One pull with its gauges corrected: zeros taken off, a pressure output referred to the input gauge. SI. */
export interface CorrectedPull {
  readonly setup: BoostSetup;
  readonly trace: Trace;
  readonly pull: Pull;
  /** By how much the output follows the input late; taken off. */
  readonly lag: FollowingLag;
  /** Pa */
  readonly input: Float64Array;
  /** Pa or N. */
  readonly output: Float64Array;
  readonly outputZero: number;
  /** Relative standard uncertainty of output gauge against input gauge; 0 where they measure different things. */
  readonly pairGain: number;
  /** The same of a slope, to which both gauges' gains lend theirs. */
  readonly slopeGain: number;
  /** Standard uncertainties of the zeros taken off: input Pa, output in its own unit. */
  readonly zero: number;
  readonly outputZeroStandard: number;
  readonly context: Context;
}

export function correct(trace: Trace, following: Following, context: Context, setup: BoostSetup): CorrectedPull {
  const { pull } = following;
  const isPair = setup.output === 'output_pressure';
  const pair = isPair ? context.corrections.pair : null;
  const gain = pair?.applied ? pair.gain : 1;
  const offset = pair?.applied ? pair.offset : 0;
  const rest = pull.restBefore;
  const outputRest = meanOf(trace.columns[setup.output], rest.from, rest.to);
  const inputZero = pull.zero ?? 0;
  const outputZero = pull.zero === null ? offset : outputRest.mean;
  const pairGain = pair
    ? pair.applied
      ? pair.gainStandard
      : hypot(pair.gainStandard, pair.gain - 1)
    : isPair
      ? unmeasuredPairStandard(context, pull.peak)
      : 0;
  const noiseOfRest = outputRest.count > 1 ? outputRest.deviation / sqrt(outputRest.count) : 0;
  const inputRest = meanOf(trace.columns.input_pressure, rest.from, rest.to);
  const noiseOfInput = inputRest.count > 1 ? inputRest.deviation / sqrt(inputRest.count) : 0;
  const classOf = (channel: string) => {
    const instrument = pull.zero === null ? context.instruments.get(channel) : undefined;
    return instrument ? unreadZero(instrument, context.date) : 0;
  };
  const inputClass = classOf('input_pressure');
  return {
    setup,
    trace,
    pull,
    lag: following.lag,
    input: following.lever.map((value) => value - inputZero),
    output: following.output.map((value) => (value - outputZero) / gain),
    outputZero,
    pairGain,
    slopeGain: isPair ? pairGain : hypot(relativeGain('input_pressure', context), relativeGain(setup.output, context)),
    zero: hypot(isPair ? noiseOfRest : noiseOfInput, inputClass),
    outputZeroStandard: hypot(noiseOfRest, isPair ? inputClass : classOf(setup.output)),
    context,
  };
}

/** Gain part of a gauge's class as a fraction of its reading. */
function relativeGain(channel: string, context: Context): number {
  const instrument = context.instruments.get(channel);
  if (!instrument) return 0;
  return partOf(differenceComponents(instrument, 0, instrument.range, context.date), 'gauge-gain') / instrument.range;
}

/** Gauge parts (gain, linearity) of a channel at a pressure above its zero, Pa. */
export function gaugeParts(channel: string, at: number, context: Context): UncertaintyComponent[] {
  const instrument = context.instruments.get(channel);
  return instrument ? differenceComponents(instrument, 0, at, context.date) : [];
}

export function partOf(parts: readonly UncertaintyComponent[], source: UncertaintyComponent['source']): number {
  return parts.find((part) => part.source === source)?.standard ?? 0;
}

/** Speed of the input (Pa/s) where a branch passes `at` (Pa above zero). */
export function speedAt(pull: CorrectedPull, span: Span, at: number): number {
  return leverSpeed(pull.trace, pull.pull, span, at);
}

/** A branch shifted along the input by what is not known of the lag, at a speed of the input (Pa/s). */
export function shiftByLag({ lag }: CorrectedPull, speed: number): UncertaintyComponent {
  return systematic('timing', lag.standard * speed);
}

/** Output that stood in the unit before the pull: more than a residual is allowed to be, beyond the pair's own offset. */
export function pressureBeforePull(pull: CorrectedPull): AnalysisProblem[] {
  const { corrections, workshopLimits } = pull.context;
  const { zero } = pull.pull;
  if (pull.setup.output !== 'output_pressure' || zero === null || !corrections.pair?.applied) return [];
  const { offset, gain, offsetStandard } = corrections.pair;
  const pressure = pull.outputZero - (offset + gain * zero);
  return pressure > workshopLimits.residual + 2 * offsetStandard ? [{ code: 'pressure-before-pull', pressure }] : [];
}

export type Context = StepContext<RemoteUnit>;
