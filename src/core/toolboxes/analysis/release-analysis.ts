import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findPull, isPull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';

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

/**
 * Release time: from the input falling through 10 % of the held input to the output within `residualLimit`
 * of its zero; residual output: mean of the last second minus the zero read before the pull (Pa, or N of a force).
 */
export function analyseRelease(trace: Trace, context: StepContext<unknown>, options: ReleaseOptions): StepAnalysis {
  const { lever, residualLimit } = options;
  const { channel, residual: residualId } = options.output ?? pressureOutput;
  const ids = ['release-time', residualId] as const;
  const input = columnOf(trace, lever);
  const output = columnOf(trace, channel);
  if (!input || !output) return nothingMeasured(ids, { code: 'no-pull', channel });
  const pull = findPull(trace, input);
  if (!isPull(pull)) return nothingMeasured(ids, { code: 'no-pull', channel: lever });
  if (pull.wayBack.to >= input.length) return nothingMeasured(ids, { code: 'no-release' });
  if (pull.zero === null) return nothingMeasured(ids, { code: 'no-rest-before' });
  const outputZero = meanOf(output, pull.restBefore.from, pull.restBefore.to).mean;
  const held = meanOf(output, pull.plateau.from, pull.plateau.to).mean - outputZero;
  // What was never applied lets go at once.
  if (!(held > appliedTimes * residualLimit))
    return nothingMeasured(ids, { code: 'not-applied', channel, peak: held, needed: appliedTimes * residualLimit });
  if (
    output.subarray(pull.plateau.to - 1).every((value) => Number.isNaN(value) || value === output[pull.plateau.to - 1])
  )
    return nothingMeasured(ids, {
      code: 'gauge-frozen',
      channel,
      seconds: trace.time[trace.time.length - 1] - trace.time[pull.plateau.to - 1],
    });
  const interval = sampleInterval(trace);
  const smooth = movingMean(output, Math.max(1, Math.round(0.02 / interval)));
  const threshold = pull.zero + 0.1 * (pull.peak - pull.zero);
  let starts = pull.plateau.to;
  while (starts < input.length && input[starts] > threshold) starts++;
  let ends = starts;
  while (ends < smooth.length && smooth[ends] - outputZero > residualLimit) ends++;

  const residual = residualOutput(trace, context, { zero: outputZero, channel, id: residualId });
  const timing = [random('timing', interval / Math.sqrt(6)), systematic('timing', lineStandard)];
  const characteristics: Characteristic[] = [];
  if (ends >= smooth.length) {
    const waited = trace.time[smooth.length - 1] - trace.time[Math.min(starts, smooth.length - 1)];
    const problem = { code: 'residual-never-reached', level: residualLimit } as const;
    characteristics.push(beyond('release-time', 'above', { value: waited, components: timing }, problem));
  } else characteristics.push(measured('release-time', trace.time[ends] - trace.time[starts], timing));
  return { characteristics: [...characteristics, residual], events: [], notes: [] };
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
