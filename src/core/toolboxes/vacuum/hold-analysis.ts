import { fitSettling } from '../../fitting/settling';
import {
  expandedUncertainty,
  random,
  scaleComponents,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import type { Evidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { quantity, type Temperature } from '../../quantities/quantity';
import { seaLevelPressure } from '../../quantities/standard-atmosphere';
import { samplesBetween, type Samples } from '../../traces/own-samples';
import type { Trace } from '../../traces/trace';
import { fittedChange, gaugeOfChange, predictedChange, thinned } from './held-change';
import { findHold, vacuumHoldEvidence, type HeldVacuum, type HoldDemand, type VacuumHoldFound } from './hold-evidence';

const { exp, hypot, max, min, sqrt } = Math;

/** Reference temperature of standard cubic centimetres, K. */
const standardTemperature = quantity<Temperature>(293.15);
/** A shell measured with rule and calliper is good to about this share of its volume. */
const volumeShare = 0.05;
/** Air just drawn is colder than its shell by about this, K. */
const drawnColder = 2;
/** No shell gives its warmth to the air more quickly, s; more slowly than a hold lasts, it is a leak to any eye. */
const quickest = 1;
/** A transient of the air is no larger than this warming makes it, K. */
const mostWarming = 10;

export interface VacuumHoldOptions extends HoldDemand {
  /** Volume of the unit that is evacuated in this step, m3, or null. */
  readonly volume: number | null;
}

/**
 * Loss of vacuum (Pa) over the stated time and the leak as standard volume flow (m3/s at 101.325 kPa, 20 °C):
 * Vol·(dp/dt)/101.325 kPa·293.15 K/T with Vol the evacuated volume and T the air temperature. Channel `supply_vacuum`,
 * and the lever's, which shows whether the unit was at rest or applied.
 */
export function analyseVacuumHold(trace: Trace, context: StepContext<unknown>, options: VacuumHoldOptions): Answered {
  return answer(vacuumHold(options), trace, context);
}

const ids = ['vacuum-loss', 'leak-flow'] as const;

const vacuumHold = (options: VacuumHoldOptions): Question<StepContext<unknown>, VacuumHoldFound, HeldVacuum> => ({
  characteristics: ids,
  happened: (trace, context) => findHold(trace, context, options),
  shows: (found) => vacuumHoldEvidence(found, options),
  comesTo: (shown, context) => ({ ...lossOf(shown, context, options), vacuum: shown.events.level }),
});

/** What a shown hold comes to. */
function lossOf(held: Evidence<HeldVacuum>, context: StepContext<unknown>, options: VacuumHoldOptions): StepAnalysis {
  const { seconds } = options;
  const samples = samplesBetween(held.events.samples, held.from, held.to);
  const largest = ((context.ambient.pressure - held.events.level) * mostWarming) / context.airTemperature;
  const change = held.early
    ? predictedChange(samples, seconds, context.ambient.pressure)
    : fittedChange(samples, seconds, largest);
  if (!change) return nothingMeasured(ids, { code: 'hold-too-short', seconds: held.to - held.from, needed: seconds });
  const events: TraceEvent[] = [
    { id: 'hold', time: held.from, y: change.start },
    { id: 'hold', time: held.to, y: change.start - change.soFar },
  ];
  const { value } = change;
  const components = [
    random('fit', change.standard),
    ...gaugeOfChange(samples, context, { channel: 'supply_vacuum', change, seconds }),
    systematic('gas-heat', change.settled === null ? heatStandard(samples, held, context) : 0),
  ];
  // Nothing that is shut off draws vacuum by itself.
  if (value < -expandedUncertainty({ value, components }))
    return { ...nothingMeasured(ids, { code: 'gains', channel: 'supply_vacuum', gain: -value }), events };
  return {
    characteristics: [measured('vacuum-loss', value, components), flowOf(value, components, context, options)],
    events,
    notes: change.settled === null ? [] : [{ code: 'settling-left-out', amount: change.settled }],
  };
}

function flowOf(
  loss: number,
  components: readonly UncertaintyComponent[],
  context: StepContext<unknown>,
  { volume, seconds }: VacuumHoldOptions,
): Characteristic {
  if (volume === null || context.benchVolume === null) return absent('leak-flow', { code: 'no-volume' });
  const perPascal =
    (((volume + context.benchVolume) / seconds / seaLevelPressure) * standardTemperature) / context.airTemperature;
  return measured('leak-flow', loss * perPascal, [
    ...scaleComponents(components, perPascal),
    systematic('volume', loss * perPascal * volumeShare),
  ]);
}

/** Time constants that the warming is integrated over. */
const constants = 32;

/**
 * Share of a warming that falls into a hold of `seconds` that begins `after` s, root mean square over all time constants up to
 * the hold's own length, evenly by their logarithm: which one a shell has nobody knows.
 */
function shareOfWarming(after: number, seconds: number): number {
  const slowest = max(quickest, seconds);
  let squares = 0;
  for (let i = 0; i < constants; i++) {
    const tau = quickest * (slowest / quickest) ** ((i + 0.5) / constants);
    squares += (exp(-after / tau) * (1 - exp(-seconds / tau))) ** 2;
  }
  return sqrt(squares / constants);
}

/**
 * What the warming of air just drawn may have added, one sigma (Pa): by how long it had settled before the hold, but
 * never more than a transient of that kind can hide in this trace.
 */
function heatStandard(
  samples: Samples,
  held: Evidence<HeldVacuum>,
  { ambient, airTemperature }: StepContext<unknown>,
): number {
  const { drawnAt, level } = held.events;
  // Where the drawing was not seen nobody knows how long ago it was.
  const settledFor = drawnAt === null ? 0 : max(0, held.from - drawnAt);
  const warming = ((ambient.pressure - level) * drawnColder) / airTemperature / sqrt(3);
  const points = thinned(samples);
  const fit = fitSettling(points.time, points.value);
  const hidden = fit ? hypot(fit.amplitude, fit.amplitudeStandard) : Infinity;
  return min(warming * shareOfWarming(settledFor, held.to - held.from), hidden);
}
