import { fitLine } from '../../fitting/line';
import { differenceComponents, random, readingComponents, systematic } from '../../instruments/uncertainty';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { together } from '../../traces/together';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { MotorBoostUnit } from './geometry';

type Context = StepContext<MotorBoostUnit>;

const { abs, hypot, max, min, round, sqrt } = Math;

/** Lines are read between these shares of the stroke that was moved. */
const lineFrom = 0.05;
const lineTo = 0.95;
/** A track is read where at least this share of the sensor's stroke was moved. */
const leastStroke = 0.5;
/** A track that leaves its own line by more than this share of its supply has dropped out; for longer than this it is no dropout, s. */
const leavesBy = 0.1;
const longestDropout = 0.2;
/** Below this rate a dropout slips between two samples, Hz. */
const slowest = 100;
/** Rest before the stroke in which its zero is read, s. */
const restSeconds = 0.3;
/** A track or a rod that is read so much later than the other moves a line by its speed, one sigma, s. */
const readsLate = 0.005;
const fewest = 40;
/** A sensor supply that nobody recorded may be off by this share, one sigma. */
const assumedShare = 0.02;

const ids = ['sum-error', 'track-gain@a', 'track-offset@a', 'track-gain@b', 'track-offset@b', 'dropouts'] as const;

/** Both tracks over the travel, rows in which all of them were recorded; shares of the supply, m from rest. */
interface Stroke {
  readonly time: Float64Array;
  readonly travel: Float64Array;
  readonly supply: Float64Array;
  readonly a: Float64Array;
  readonly b: Float64Array;
  /** Largest travel, m. */
  readonly reached: number;
  readonly supplyAssumed: boolean;
  readonly channel: 'rod_travel' | 'pedal_travel';
}

function findStroke(trace: Trace, context: Context): Stroke | NoEvidence {
  const { unit } = context;
  const channel = columnOf(trace, 'rod_travel') ? 'rod_travel' : 'pedal_travel';
  const assumed = columnOf(trace, 'sensor_supply') === undefined;
  const needs = [channel, 'sensor_a', 'sensor_b', ...(assumed ? [] : ['sensor_supply'])];
  for (const each of needs) if (!columnOf(trace, each)) return noEvidence({ code: 'channel-missing', channel: each });
  const rows = recordedRows(together(trace, needs), needs);
  const { time } = rows;
  if (time.length < fewest)
    return noEvidence({ code: 'too-few-samples', channel: 'sensor_a', samples: time.length, needed: fewest });
  const lever = channel === 'rod_travel' ? 1 : unit.pedalRatio;
  const raw = rows.columns[channel].map((value) => value / lever);
  const moving = raw.findIndex((value) => value - raw[0] > 0.03 * unit.sensor.stroke);
  const still = moving < 0 ? raw.length : moving;
  let rest = 0;
  while (rest < still && time[rest] - time[0] < restSeconds) rest++;
  const zero = meanOf(raw, 0, max(1, rest)).mean;
  const travel = raw.map((value) => value - zero);
  const supply = assumed ? new Float64Array(time.length).fill(unit.sensor.supply) : rows.columns.sensor_supply;
  return {
    time,
    travel,
    supply,
    a: rows.columns.sensor_a,
    b: rows.columns.sensor_b,
    reached: travel.reduce((most, value) => max(most, value), 0),
    supplyAssumed: assumed,
    channel,
  };
}

/** Rows in which all of some channels were recorded. */
function recordedRows(trace: Trace, channels: readonly string[]): Trace {
  const rows = Array.from(trace.time, (_, i) => i).filter((i) =>
    channels.every((channel) => Number.isFinite(trace.columns[channel][i])),
  );
  if (rows.length === trace.time.length) return trace;
  const of = (column: Float64Array) => Float64Array.from(rows, (i) => column[i]);
  return {
    time: of(trace.time),
    columns: Object.fromEntries(channels.map((channel) => [channel, of(trace.columns[channel])])),
  };
}

function strokeEvidence(found: Stroke, { unit }: Context): Judged<Stroke> {
  const needed = leastStroke * unit.sensor.stroke;
  const { mean } = meanOf(found.supply);
  if (mean < 0.5 * unit.sensor.supply) return noEvidence({ code: 'sensor-not-supplied', voltage: mean });
  if (found.reached < needed) return noEvidence({ code: 'stroke-too-short', reached: found.reached, needed });
  return evidence(found, found.supplyAssumed ? [{ code: 'sensor-supply-assumed', voltage: unit.sensor.supply }] : []);
}

/** A track's own line over travel, as a share of its supply, and which samples have left it. */
interface TrackLine {
  readonly intercept: number;
  readonly slope: number;
  readonly interceptStandard: number;
  readonly slopeStandard: number;
  readonly left: readonly boolean[];
}

function lineOfTrack(share: Float64Array, travel: Float64Array, reached: number): TrackLine | null {
  const inside = travel.map((x) => (x >= lineFrom * reached && x <= lineTo * reached ? 1 : 0));
  let left: boolean[] = new Array<boolean>(share.length).fill(false);
  // What has dropped out pulls at the line: it is fitted again without, until nothing more leaves it.
  for (let round_ = 0; round_ < 6; round_++) {
    const keep = left;
    const line = fitLine(travel, share, { keep: (i) => inside[i] > 0 && !keep[i] });
    if (line.termination !== 'converged') return null;
    const middle = medianResidual(share, travel, line, inside);
    const next = Array.from(
      share,
      (value, i) => abs(value - line.intercept - line.slope * travel[i] - middle) > leavesBy,
    );
    if (next.every((each, i) => each === left[i]))
      return {
        intercept: line.intercept,
        slope: line.slope,
        interceptStandard: sqrt(max(0, line.interceptVariance)),
        slopeStandard: sqrt(max(0, line.slopeVariance)),
        left,
      };
    left = next;
  }
  return null;
}

/** Where most of a track lies off a line that a few dead samples have pulled away. */
function medianResidual(
  share: Float64Array,
  travel: Float64Array,
  line: { readonly intercept: number; readonly slope: number },
  inside: Float64Array,
): number {
  const off = Array.from(share, (value, i) =>
    inside[i] > 0 ? value - line.intercept - line.slope * travel[i] : Number.NaN,
  )
    .filter((value) => !Number.isNaN(value))
    .sort((p, q) => p - q);
  return off.length === 0 ? 0 : off[off.length >> 1];
}

/** Stretches of samples in which one track or the other has left its line; `long` of them lasted longer than a dropout may. */
function stretches(time: Float64Array, left: readonly boolean[]): { readonly short: number; readonly long: number } {
  let [short, long, from] = [0, 0, -1];
  for (let i = 0; i <= left.length; i++) {
    if (left[i]) {
      if (from < 0) from = i;
      continue;
    }
    if (from >= 0) {
      if (time[i - 1] - time[from] > longestDropout) long++;
      else short++;
    }
    from = -1;
  }
  return { short, long };
}

const median = (values: readonly number[]) => [...values].sort((p, q) => p - q)[values.length >> 1];

/** Largest |A + B − U_s| of the medians of five neighbours, V, and the travel where it is; dropouts left out. */
function worstSum({ a, b, supply, travel }: Stroke, left: readonly boolean[]): { value: number; at: number } {
  const kept = Array.from(a, (_, i) => i).filter((i) => !left[i]);
  let worst = { value: 0, at: 0 };
  for (let k = 2; k + 2 < kept.length; k++) {
    const near = kept.slice(k - 2, k + 3);
    const off = median(near.map((i) => a[i] + b[i] - supply[i]));
    if (abs(off) > abs(worst.value)) worst = { value: off, at: travel[kept[k]] };
  }
  return worst;
}

function tracksOf(shown: Evidence<Stroke>, context: Context): StepAnalysis {
  const { unit } = context;
  const { sensor } = unit;
  const { time, travel, supply, a, b, reached } = shown;
  const share = (track: Float64Array) => track.map((value, i) => value / supply[i]);
  const [lineA, lineB] = [lineOfTrack(share(a), travel, reached), lineOfTrack(share(b), travel, reached)];
  if (!lineA || !lineB) return nothingMeasured(ids, { code: 'track-without-line' });
  if (lineA.slope < 0 && lineB.slope > 0) return nothingMeasured(ids, { code: 'tracks-swapped' });
  const left = lineA.left.map((each, i) => each || lineB.left[i]);
  const { short, long } = stretches(time, left);
  const worst = worstSum(shown, left);
  const noise = noiseOfSum(shown, left);
  const rate = 1 / sampleInterval({ time, columns: {} });
  const read = (channel: string, value: number) => {
    const instrument = context.instruments.get(channel);
    return instrument ? readingComponents(instrument, value, context.date) : [];
  };
  const middle = sensor.supply / 2;
  const notes: AnalysisProblem[] = [
    { code: 'sum-worst-at', channel: 'rod_travel', at: max(0, round(worst.at * 1e4) / 1e4) },
    ...(long > 0 ? [{ code: 'track-stays-off', times: long } as const] : []),
  ];
  const track = (line: TrackLine, sign: 1 | -1): readonly [Characteristic, Characteristic] => {
    const slope = (sign * (sensor.end - sensor.start)) / sensor.stroke;
    const start = sign > 0 ? sensor.start : 1 - sensor.start;
    // A travel that is read late against its track turns up on the way out and back with opposite signs.
    const travelStandard = hypot(travelError(shown, context), speedOf(shown) * readsLate) / reached;
    const share = (channel: string, value: number) =>
      hypot(...read(channel, value).map((part) => part.standard)) / value;
    const volts = hypot(
      share('sensor_a', middle),
      shown.supplyAssumed ? assumedShare : share('sensor_supply', sensor.supply),
    );
    const gain = line.slope / slope;
    const id = sign > 0 ? '@a' : '@b';
    return [
      measured(`track-gain${id}`, gain, [
        random('fit', line.slopeStandard / abs(slope)),
        systematic('gauge-gain', gain * hypot(travelStandard, volts)),
      ]),
      measured(`track-offset${id}`, (line.intercept - start) * sensor.supply, [
        random('fit', line.interceptStandard * sensor.supply),
        systematic('gauge-zero', volts * start * sensor.supply),
        systematic('gauge-linearity', travelError(shown, context) * abs(slope) * sensor.supply),
        systematic('timing', speedOf(shown) * readsLate * abs(slope) * sensor.supply),
      ]),
    ];
  };
  const dropped: Characteristic =
    rate < slowest
      ? absent('dropouts', { code: 'sampled-too-slowly', rate, needed: slowest })
      : measured('dropouts', short, []);
  return {
    characteristics: [
      long > 0
        ? beyond(
            'sum-error',
            'above',
            { value: leavesBy * sensor.supply, components: [] },
            { code: 'track-stays-off', times: long },
          )
        : measured('sum-error', abs(worst.value), [
            // The largest of many scatters upwards.
            random('noise', (noise * sqrt(2 * Math.log(max(2, time.length / 5)))) / 2),
            ...read('sensor_a', sensor.supply * sensor.start),
            ...read('sensor_b', sensor.supply * sensor.end),
            ...(shown.supplyAssumed
              ? [systematic('gauge-zero', assumedShare * sensor.supply)]
              : read('sensor_supply', sensor.supply)),
          ]),
      ...track(lineA, 1),
      ...track(lineB, -1),
      dropped,
    ],
    events: [],
    notes,
  };
}

/** What a travel gauge may bend over the stroke, one sigma, m: over part of its range its linearity counts in full all the same. */
function travelError({ channel, reached }: Stroke, context: Context): number {
  const instrument = context.instruments.get(channel);
  if (!instrument) return 0;
  const over = instrument.classOf === 'reading' ? reached : max(reached, 0.2 * instrument.range);
  const parts = differenceComponents(instrument, 0, over, context.date);
  return hypot(...parts.map((part) => part.standard)) / (channel === 'rod_travel' ? 1 : context.unit.pedalRatio);
}

/** Scatter of the sum from sample to sample, of a median of five, V. */
function noiseOfSum({ a, b, supply }: Stroke, left: readonly boolean[]): number {
  let [sum, count] = [0, 0];
  for (let i = 1; i < a.length; i++) {
    if (left[i] || left[i - 1]) continue;
    const step = a[i] + b[i] - supply[i] - (a[i - 1] + b[i - 1] - supply[i - 1]);
    sum += step * step;
    count++;
  }
  // A median of five scatters 1.2 times as much as their mean.
  return count === 0 ? 0 : (1.2 * sqrt(sum / count / 2)) / sqrt(5);
}

/** Median speed of the stroke while it moves, m/s. */
function speedOf({ time, travel, reached }: Stroke): number {
  const speeds: number[] = [];
  const stride = max(1, round(travel.length / 200));
  for (let i = stride; i < travel.length; i += stride) {
    const speed = abs(travel[i] - travel[i - stride]) / (time[i] - time[i - stride]);
    if (speed > 0.02 * reached) speeds.push(speed);
  }
  return speeds.length === 0 ? 0 : min(reached / 0.2, median(speeds));
}

/**
 * Two tracks over travel: worst |A + B − U_s| (V), gain (1) and offset (V) of each track's line against the sheet's, and the stretches
 * of up to 200 ms in which a track leaves its own line. Channels `sensor_a`, `sensor_b`, `rod_travel` (else `pedal_travel`), `sensor_supply`.
 */
export function analyseTracks(trace: Trace, context: Context): Answered {
  const question: Question<Context, Stroke, Stroke> = {
    characteristics: ids,
    happened: (read) => findStroke(read, context),
    shows: strokeEvidence,
    comesTo: tracksOf,
  };
  return answer(question, trace, context);
}
