import {
  random,
  readingComponents,
  systematic,
  unreadZero,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { fitLine } from '../../fitting/line';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, type Answered, type Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { CharacteristicId } from '../../quantities/characteristics';
import { findLevels } from '../../traces/levels';
import { together } from '../../traces/together';
import { columnOf, meanOf, sliceTrace, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { ByWireUnit } from './geometry';
import { sensorAt, type SensorPlace } from './sensors';

type Context = StepContext<ByWireUnit>;

const { abs, hypot, max, min, sqrt } = Math;

/** A sensor is read at so many levels at least, and levels closer than this share of its full scale are one. */
export const fewestLevels = 3;
const apart = 0.02;
/** The levels must spread over this share of the full scale: a slope of less says little. */
const leastSpread = 0.1;
/** A sensor supply that nobody recorded may be off by this share, one sigma. */
const assumedShare = 0.02;

/** One settled level: pressure (Pa gauge), signal as a share of its supply, standard deviation of that mean. */
export interface TransferPoint {
  readonly pressure: number;
  readonly ratio: number;
  readonly noise: number;
}

/** A sensor that was taken through its levels. */
export interface SensorShown {
  readonly points: readonly TransferPoint[];
  /** V, and whether somebody read it. */
  readonly supply: number;
  readonly supplyAssumed: boolean;
}

export function transferIds(place: SensorPlace): readonly [CharacteristicId, CharacteristicId, CharacteristicId] {
  return [`sensor-offset@${place}`, `sensor-gain@${place}`, `linearity@${place}`];
}

/** The longest stretch of a trace in which one sensor was joined. */
function partOf(trace: Trace, place: SensorPlace): Trace | null {
  const at = columnOf(trace, 'sensor_at');
  if (!at) return null;
  let [from, best] = [0, { from: 0, to: 0 }];
  for (let i = 0; i <= at.length; i++) {
    if (i < at.length && sensorAt(at[i]) === place) continue;
    if (i - from > best.to - best.from) best = { from, to: i };
    from = i + 1;
  }
  return best.to > best.from ? sliceTrace(trace, best.from, best.to) : null;
}

function findTransfer(trace: Trace, { unit }: Context): SensorShown | NoEvidence {
  for (const channel of ['reference_pressure', 'sensor_a'])
    if (!columnOf(trace, channel)) return noEvidence({ code: 'channel-missing', channel });
  const assumed = columnOf(trace, 'sensor_supply') === undefined;
  const rows = together(trace, ['reference_pressure', 'sensor_a', ...(assumed ? [] : ['sensor_supply'])]);
  const pressure = rows.columns.reference_pressure;
  const signal = rows.columns.sensor_a;
  const supply = assumed ? null : rows.columns.sensor_supply;
  const ratio = signal.map((value, i) => value / (supply ? supply[i] : unit.sensor.supply));
  const points = findLevels(rows, pressure).map(({ from, to, mean }) => {
    const { mean: share, deviation, count } = meanOf(ratio, from, to);
    return { pressure: mean, ratio: share, noise: deviation / sqrt(max(1, count)) };
  });
  return {
    points: points.filter((point) => Number.isFinite(point.ratio) && Number.isFinite(point.pressure)),
    supply: supply ? meanOf(supply).mean : unit.sensor.supply,
    supplyAssumed: assumed,
  };
}

/** Levels that differ by enough to count as different ones. */
function differentLevels(points: readonly TransferPoint[], fullScale: number): number {
  const sorted = points.map((point) => point.pressure).sort((p, q) => p - q);
  return sorted.filter((level, at) => at === 0 || level - sorted[at - 1] > apart * fullScale).length;
}

export function transferEvidence(found: SensorShown, { unit }: Context): Judged<SensorShown> {
  const { sensor } = unit;
  if (found.supply < 0.5 * sensor.supply) return noEvidence({ code: 'sensor-not-supplied', voltage: found.supply });
  const levels = differentLevels(found.points, sensor.fullScale);
  if (levels < fewestLevels) return noEvidence({ code: 'too-few-levels', found: levels, needed: fewestLevels });
  const pressures = found.points.map((point) => point.pressure);
  const spread = max(...pressures) - min(...pressures);
  const needed = leastSpread * sensor.fullScale;
  if (spread < needed)
    return noEvidence({ code: 'too-little-pressure', channel: 'reference_pressure', pressure: spread, needed });
  return evidence(found, found.supplyAssumed ? [{ code: 'sensor-supply-assumed', voltage: sensor.supply }] : []);
}

/**
 * What a sensor's levels come to: straight line of signal over supply against pressure, weighted by the gauge's uncertainty; its value at
 * no pressure less the sheet's, as a share of the sheet's span; its slope over the sheet's; its largest residual, as a share of the span.
 */
export function transferOf(shown: SensorShown, context: Context, place: SensorPlace): StepAnalysis {
  const { sensor } = context.unit;
  const [offsetId, gainId, linearityId] = transferIds(place);
  const { points } = shown;
  const span = sensor.full - sensor.offset;
  const slope = span / sensor.fullScale;
  const gauge = context.instruments.get('reference_pressure');
  const zero = gauge ? unreadZero(gauge, context.date) : 0.002 * sensor.fullScale;
  const gaugeAt = (pressure: number) =>
    gauge ? hypot(...readingComponents(gauge, pressure, context.date).map((part) => part.standard), zero) : zero;
  const weights = points.map(({ pressure, noise }) => 1 / (hypot(noise, slope * gaugeAt(pressure)) ** 2 + 1e-18));
  const pressures = points.map((point) => point.pressure);
  const line = fitLine(
    pressures,
    points.map((point) => point.ratio),
    { weights },
  );
  if (line.termination !== 'converged')
    return nothingMeasured([offsetId, gainId, linearityId], { code: 'fit-failed', termination: line.termination });
  const residuals = points.map(({ pressure, ratio }) => ratio - line.intercept - line.slope * pressure);
  const worst = residuals.reduce((most, each) => (abs(each) > abs(most) ? each : most), 0);
  const highest = max(...pressures.map(abs));
  const volts = (channel: string, value: number) => {
    const meter = context.instruments.get(channel);
    return meter && value > 0
      ? hypot(...readingComponents(meter, value, context.date).map((part) => part.standard)) / value
      : 0;
  };
  const supplyShare = shown.supplyAssumed ? assumedShare : volts('sensor_supply', shown.supply);
  const ratioShare = hypot(supplyShare, volts('sensor_a', shown.supply * (sensor.offset + sensor.full) * 0.5));
  const gaugeShare = gauge
    ? hypot(...readingComponents(gauge, highest, context.date).map((part) => part.standard)) / highest
    : 0.002;
  const noise = hypot(...points.map((point) => point.noise)) / sqrt(points.length);
  const gain = line.slope / slope;
  const atZero: UncertaintyComponent[] = [
    random('fit', min(sqrt(line.interceptVariance), 3 * noise + abs(worst)) / span),
    random('noise', noise / span),
    systematic('gauge-zero', (abs(line.slope) * zero) / span),
    systematic('gauge-gain', (ratioShare * sensor.offset) / span),
  ];
  return {
    characteristics: [
      measured(offsetId, (line.intercept - sensor.offset) / span, atZero),
      measured(gainId, gain, [
        random('fit', sqrt(line.slopeVariance) / slope),
        systematic('gauge-gain', abs(gain) * hypot(ratioShare, gaugeShare)),
      ]),
      measured(linearityId, abs(worst) / span, [
        random('noise', (noise * 2) / span),
        systematic('gauge-linearity', (slope * 0.3 * gaugeAt(highest)) / span),
      ]),
    ],
    events: [],
    notes: [],
  };
}

/** The transfer of every sensor of a unit: those that the trace is not about are of another run. */
export function analyseTransfer(trace: Trace, context: Context, places: readonly SensorPlace[]): Answered {
  const named = columnOf(trace, 'sensor_at') !== undefined;
  const question = (place: SensorPlace): Question<Context, SensorShown, SensorShown> => ({
    characteristics: transferIds(place),
    happened: (whole, here) => {
      if (!named) return noEvidence({ code: 'sensor-not-named' });
      const part = partOf(whole, place);
      return part ? findTransfer(part, here) : noEvidence({ code: 'another-sensor' });
    },
    shows: transferEvidence,
    comesTo: (shown, here) => transferOf(shown, here, place),
  });
  return joinAnswers(places.map((place) => answer(question(place), trace, context)));
}

/** None of the sensors, for one reason. */
export function noTransfer(places: readonly SensorPlace[], problem: AnalysisProblem): StepAnalysis {
  return {
    characteristics: places.flatMap((place) => transferIds(place).map((id) => absent(id, problem))),
    events: [],
    notes: [],
  };
}
