import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured } from '../../procedure/analysis-result';

const pressureOutput = { channel: 'output_pressure', residual: 'residual-output' } as const;
/** An output held at less than so many times what may stay was not applied. */
const appliedTimes = 5;
/** A long thin line lets its gauge fall so much later than the unit, one sigma, s. */
const lineStandard = 0.1;
/** The residual is the mean of the last second after release. */
const residualSeconds = 1;

export interface ReleaseOptions {
  /** Channel of the lever. */
  readonly lever: string;
  /** Output (Pa or N above its zero) below which the unit has let go. */
  readonly residualLimit: number;
  /** Where the output is not a pressure: its channel, and what is left of it. */
  readonly output?: { readonly channel: 'rod_force'; readonly residual: 'servo-residual' };
}

/** What is read of an output after release. */
export interface ResidualOf {
  /** Read before the pull, SI. */
  readonly zero: number;
  readonly channel: string;
  readonly id: CharacteristicId;
}

/** A lever that was let go, and the output that follows it; indices in the trace, outputs SI above the zero. */
interface LetGo {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly outputZero: number;
  /** Output while the lever was held. */
  readonly held: number;
  /** Seconds for which the output's gauge stood at the very figure of the hold to the end of the trace; null where it moved. */
  readonly stood: number | null;
}

/** What happened to a lever and its output: pulled, held, let go. */
function findLetGo(trace: Trace, lever: string, channel: string): LetGo | NoEvidence {
  const input = columnOf(trace, lever);
  const output = columnOf(trace, channel);
  if (!input || !output) return noEvidence({ code: 'no-pull', channel });
  const pull = findPull(trace, input);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: lever });
  const outputZero = meanOf(output, pull.restBefore.from, pull.restBefore.to).mean;
  const last = pull.plateau.to - 1;
  const alike = output.subarray(last).every((value) => Number.isNaN(value) || value === output[last]);
  return {
    trace,
    pull,
    outputZero,
    held: meanOf(output, pull.plateau.from, pull.plateau.to).mean - outputZero,
    stood: alike ? trace.time[trace.time.length - 1] - trace.time[last] : null,
  };
}

function letGoEvidence(found: LetGo, channel: string, residualLimit: number): Judged<LetGo> {
  const { trace, pull, held, stood } = found;
  if (pull.wayBack.to >= trace.time.length) return noEvidence({ code: 'no-release' });
  if (pull.zero === null) return noEvidence({ code: 'no-rest-before' });
  // What was never applied lets go at once.
  if (!(held > appliedTimes * residualLimit))
    return noEvidence({ code: 'not-applied', channel, peak: held, needed: appliedTimes * residualLimit });
  if (stood !== null) return noEvidence({ code: 'gauge-frozen', channel, seconds: stood });
  return evidence(found);
}

/**
 * Release time: from the input falling through 10 % of the held input to the output within `residualLimit`
 * of its zero; residual output: mean of the last second minus the zero read before the pull (Pa, or N of a force).
 */
export function analyseRelease(trace: Trace, context: StepContext<unknown>, options: ReleaseOptions): Answered {
  return answer(release(options), trace, context);
}

function release(options: ReleaseOptions): Question<StepContext<unknown>, LetGo, LetGo> {
  const { channel, residual } = options.output ?? pressureOutput;
  return {
    characteristics: ['release-time', residual],
    happened: (trace) => findLetGo(trace, options.lever, channel),
    shows: (found) => letGoEvidence(found, channel, options.residualLimit),
    comesTo: (shown, context) => ({
      characteristics: [
        releaseTime(shown, options),
        residualOutput(shown.trace, context, { zero: shown.outputZero, channel, id: residual }),
      ],
      events: [],
      notes: [],
    }),
  };
}

function releaseTime(shown: Evidence<LetGo>, options: ReleaseOptions): Characteristic {
  const { trace, pull, outputZero } = shown;
  const { residualLimit } = options;
  const input = trace.columns[options.lever];
  const output = trace.columns[(options.output ?? pressureOutput).channel];
  const interval = sampleInterval(trace);
  const smooth = movingMean(output, Math.max(1, Math.round(0.02 / interval)));
  const zero = pull.zero ?? 0;
  const threshold = zero + 0.1 * (pull.peak - zero);
  let starts = pull.plateau.to;
  while (starts < input.length && input[starts] > threshold) starts++;
  let ends = starts;
  while (ends < smooth.length && smooth[ends] - outputZero > residualLimit) ends++;
  const timing = [random('timing', interval / Math.sqrt(6)), systematic('timing', lineStandard)];
  if (ends < smooth.length) return measured('release-time', trace.time[ends] - trace.time[starts], timing);
  const waited = trace.time[smooth.length - 1] - trace.time[Math.min(starts, smooth.length - 1)];
  return beyond(
    'release-time',
    'above',
    { value: waited, components: timing },
    { code: 'residual-never-reached', level: residualLimit },
  );
}

/** Mean output of the last second minus its zero, SI. */
export function residualOutput(trace: Trace, context: StepContext<unknown>, of: ResidualOf): Characteristic {
  const { zero, channel, id } = of;
  const output = trace.columns[channel];
  const interval = sampleInterval(trace);
  const from = Math.max(0, output.length - Math.round(residualSeconds / interval));
  const { mean, deviation, count } = meanOf(output, from);
  if (count < 2) return absent(id, { code: 'no-rest-after', seconds: residualSeconds });
  const instrument = context.instruments.get(channel);
  const components: UncertaintyComponent[] = [random('noise', (Math.SQRT2 * deviation) / Math.sqrt(count))];
  if (instrument)
    components.push(differenceResolution(instrument), ...differenceComponents(instrument, zero, mean, context.date));
  return measured(id, mean - zero, components);
}
