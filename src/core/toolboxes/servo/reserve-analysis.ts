import {
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  random,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, MeasuredStroke, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { CharacteristicId } from '../../quantities/characteristics';
import { movingMean } from '../../traces/smoothing';
import { findStrokes, type Stroke } from '../../traces/strokes';

const { max } = Math;

const ids = ['assisted-applications', 'vacuum-per-application'] as const;

/** Output is the mean of the last part of a stroke, vacuum that of the rest before it, s. */
const outputSeconds = 0.5;
const restSeconds = 0.4;
/** Strokes that differ by less than this share read the same. */
const alike = 0.05;

export interface ReserveOptions {
  /** Channel of the lever. */
  readonly lever: string;
  /** Output (Pa gauge) at the stroke's own lever level without any assist. */
  readonly unassisted: (level: number) => number;
  /**
   * What the reserve is kept in, and what the source leaves in it, SI. `filledBy` is a signal that shows the source at work: what
   * is in the store then is the unit's own affair.
   */
  readonly store: { readonly channel: string; readonly full: number; readonly filledBy?: string };
}

/** Strokes of a reserve test with the output held in each and the vacuum before each. */
export function strokesOf(trace: Trace, lever: string): { strokes: MeasuredStroke[]; held: Stroke[] } {
  const column = columnOf(trace, lever);
  const output = columnOf(trace, 'output_pressure');
  if (!column || !output) return { strokes: [], held: [] };
  const held = findStrokes(trace, column);
  const zero = held.length > 0 ? (restBefore(trace, output, startOf(trace, column, held[0].from)) ?? 0) : 0;
  const supply = columnOf(trace, 'supply_vacuum');
  const strokes = held.map(({ from, to }, at): MeasuredStroke => {
    const late = Math.max(from, indexAtTime(trace, trace.time[to - 1] - outputSeconds));
    const before = at === 0 ? startOf(trace, column, from) : lowestBetween(column, held[at - 1].to, from);
    return {
      output: meanOf(output, late, to).mean - zero,
      vacuum: supply ? (restBefore(trace, supply, before) ?? Number.NaN) : Number.NaN,
      time: trace.time[from],
    };
  });
  return { strokes, held };
}

/** Sample at which the lever had not left its rest yet. */
function startOf(trace: Trace, lever: Float64Array, from: number): number {
  const floor = 0.05 * lever[from];
  let at = from;
  while (at > 0 && !(lever[at] < floor)) at--;
  return Math.max(1, indexAtTime(trace, trace.time[at] - 0.1));
}

/** The lever is at rest where it is lowest between two strokes; the vacuum has settled shortly before the next. */
function lowestBetween(lever: Float64Array, from: number, to: number): number {
  let at = to;
  const level = 0.1 * lever[Math.min(to, lever.length - 1)];
  while (at > from && !(lever[at] < level)) at--;
  return at;
}

function restBefore(trace: Trace, column: Float64Array, at: number): number | null {
  const from = indexAtTime(trace, trace.time[Math.min(at, trace.time.length - 1)] - restSeconds);
  const { mean, count } = meanOf(column, from, at);
  return count > 0 ? mean : null;
}

/** What happened in a reserve test; levels are what the reserve is kept in, SI. */
export interface StrokesDrawn {
  readonly trace: Trace;
  readonly strokes: readonly MeasuredStroke[];
  readonly held: readonly Stroke[];
  /** Largest difference of the strokes' levels from their median, as a share. */
  readonly uneven: number;
  /** What was stored before the first stroke and at the most before that; null where nobody recorded it. */
  readonly before: { readonly first: number; readonly most: number } | null;
  /** The most that it came back to between the last two strokes. */
  readonly last: number;
  /** Whether the source was seen at work before the first stroke. */
  readonly filled: boolean;
}

/** Strokes that drew from a reserve. */
export interface ShownReserve extends StrokesDrawn {
  /** The most that the store held before the first stroke, SI; null where nobody recorded it. */
  readonly left: number | null;
  readonly enough: boolean;
  readonly full: number;
}

/** Strokes of a reserve test, what each drew from, and whether the source was at work before. */
export function findReserve(trace: Trace, { lever, store }: ReserveOptions): StrokesDrawn | NoEvidence {
  const { strokes, held } = strokesOf(trace, lever);
  if (strokes.length === 0) return noEvidence({ code: 'no-strokes', channel: lever });
  const column = columnOf(trace, store.channel);
  const before = column ? restBefore(trace, column, startOf(trace, trace.columns[lever], held[0].from)) : null;
  const back = held.at(-2);
  return {
    trace,
    strokes,
    held,
    uneven: unevenness(held),
    // What the source gave counts, not what a leak left of it.
    before:
      column && before !== null
        ? { first: before, most: max(before, highestBefore(trace, column, held[0].from)) }
        : null,
    last:
      column && back
        ? highestBefore(trace, column.subarray(back.to), held[held.length - 1].from - back.to)
        : (before ?? Number.NaN),
    filled: store.filledBy !== undefined && wasOn(trace, store.filledBy, held[0].from),
  };
}

/** Whether strokes drew from a reserve: alike, something was stored, and nothing filled it meanwhile. */
export function reserveEvidence(found: StrokesDrawn, { lever, store }: ReserveOptions): Judged<ShownReserve> {
  const { held, uneven, before, last, filled } = found;
  if (uneven > steadyStrokes) return noEvidence({ code: 'strokes-uneven', channel: lever, share: uneven });
  if (before === null)
    // Whether the source was off nobody can tell without a word on what the strokes drew from.
    return evidence(
      { ...found, left: null, enough: false, full: store.full },
      [],
      [{ code: 'channel-missing', channel: store.channel }],
    );
  const { first, most: left } = before;
  const seen = { strokes: found.strokes };
  if (left < storedShare * store.full && !filled)
    return noEvidence(
      store.channel === 'supply_vacuum'
        ? { code: 'source-never-opened', vacuum: max(0, left) }
        : { code: 'too-little-pressure', channel: store.channel, pressure: left, needed: storedShare * store.full },
      seen,
    );
  if (held.length > 2 && first > storedShare * store.full && last > refilledShare ** (held.length - 1) * first)
    return noEvidence({ code: 'source-still-on' }, seen);
  const enough = filled || left >= fullShare * store.full;
  return evidence(
    { ...found, left, enough, full: store.full },
    enough || store.channel !== 'supply_vacuum'
      ? []
      : [{ code: 'reserve-from-too-little', vacuum: left, should: store.full }],
  );
}

/**
 * Useful strokes from the reserve, counted from the first after the source is lost: a stroke is assisted when its
 * output reaches at least halfway from the unassisted prediction to the first stroke's output. And the vacuum (Pa)
 * that the first stroke cost. Channels: the lever's, `output_pressure`, `supply_vacuum`.
 */
export function analyseReserve(trace: Trace, context: StepContext<unknown>, options: ReserveOptions): Answered {
  return answer(
    reserveQuestion(ids, options, (shown) => reserveOf(shown, context, options)),
    trace,
    context,
  );
}

/** What a reserve test is asked, whatever it has to come to. */
export function reserveQuestion<Context>(
  characteristics: readonly CharacteristicId[],
  options: ReserveOptions,
  comesTo: (shown: Evidence<ShownReserve>, context: Context) => StepAnalysis,
): Question<Context, StrokesDrawn, ShownReserve> {
  return {
    characteristics,
    happened: (trace) => findReserve(trace, options),
    shows: (found) => reserveEvidence(found, options),
    comesTo,
  };
}

/** Strokes that were assisted, and the vacuum of the first. */
export function reserveOf(
  shown: Evidence<ShownReserve>,
  context: StepContext<unknown>,
  options: ReserveOptions,
): StepAnalysis {
  const { strokes, held } = shown;
  const unassisted = options.unassisted(held[0].level);
  const characteristics: Characteristic[] = [];
  const notes: AnalysisProblem[] = [];
  const first = strokes[0].output;
  const instrument = context.instruments.get('output_pressure');
  const parts = instrument
    ? [differenceResolution(instrument), ...differenceComponents(instrument, 0, first, context.date)]
    : [];
  const doubt = expandedUncertainty({ value: first, components: parts });
  const threshold = (first + unassisted) / 2;
  if (first - unassisted <= 2 * doubt) {
    // Not even the first stroke stands out from an unassisted one.
    characteristics.push(
      shown.left === null
        ? absent('assisted-applications', { code: 'channel-missing', channel: options.store.channel })
        : counted(0, [], shown),
    );
  } else {
    const lost = strokes.findIndex((stroke) => stroke.output < threshold);
    const count = lost < 0 ? strokes.length : lost;
    const close = strokes.some((stroke) => Math.abs(stroke.output - threshold) < doubt);
    characteristics.push(counted(count, close ? [random('counting', 0.5)] : [], shown));
    if (lost < 0) notes.push({ code: 'reserve-not-used-up', strokes: strokes.length });
  }
  characteristics.push(vacuumOfFirst(strokes, context));
  return { characteristics, events: [], notes, strokes, vacuum: strokes[0].vacuum };
}

/** Strokes of one count must be alike within this share. */
const steadyStrokes = 0.15;
/** From less than this share of what the source leaves, a count may be enough, but not too few. */
const fullShare = 0.85;
/** Below this share of it nothing was stored at all. */
const storedShare = 0.2;
/** A source that ran for less than this has filled nothing, s. */
const leastOn = 2;
/** A store that each stroke leaves at more than this share was being filled meanwhile. */
const refilledShare = 0.985;

/** Largest difference of the strokes' levels from their median, as a share. */
function unevenness(held: readonly Stroke[]): number {
  const levels = held.map((stroke) => stroke.level).sort((p, q) => p - q);
  const middle = levels[levels.length >> 1];
  return Math.max(...levels.map((level) => Math.abs(level / middle - 1)));
}

/** Highest level that a column was at, smoothed over a quarter of a second, before a sample. */
function highestBefore(trace: Trace, column: Float64Array, to: number): number {
  const smooth = movingMean(column.subarray(0, to), max(1, Math.round(0.12 / sampleInterval(trace))));
  return smooth.reduce((most, each) => (each > most ? each : most), -Infinity);
}

/** Whether a 0/1 signal was seen on for some seconds before a sample. */
function wasOn(trace: Trace, channel: string, to: number): boolean {
  const column = columnOf(trace, channel);
  if (!column) return false;
  let on = 0;
  for (let i = 1; i < to; i++) if (column[i] > 0.5) on += trace.time[i] - trace.time[i - 1];
  return on >= leastOn;
}

/** A count as it stands; from too little stored it is only known to be at least that. */
function counted(count: number, parts: readonly UncertaintyComponent[], shown: Evidence<ShownReserve>): Characteristic {
  const id = 'assisted-applications';
  if (shown.left === null || shown.enough) return measured(id, count, parts);
  return beyond(
    id,
    'above',
    { value: count, components: parts },
    { code: 'reserve-from-too-little', vacuum: shown.left, should: shown.full },
  );
}

function vacuumOfFirst(strokes: readonly MeasuredStroke[], context: StepContext<unknown>): Characteristic {
  const [first, second] = strokes;
  if (!second || Number.isNaN(first.vacuum)) return absent('vacuum-per-application', { code: 'supply-missing' });
  const instrument = context.instruments.get('supply_vacuum');
  return measured('vacuum-per-application', first.vacuum - second.vacuum, [
    random('noise', 20),
    ...(instrument
      ? [
          differenceResolution(instrument),
          ...differenceComponents(instrument, second.vacuum, first.vacuum, context.date),
        ]
      : []),
  ]);
}

/** Whether the reserve was pumped down as the workshop's school asks. */
export function exhaustion(strokes: readonly MeasuredStroke[], context: StepContext<unknown>): AnalysisProblem[] {
  const { schools, workshopLimits } = context;
  if (schools.exhaust === 'count')
    return strokes.length >= workshopLimits.exhaustStrokes
      ? []
      : [{ code: 'too-few-strokes', strokes: strokes.length, needed: workshopLimits.exhaustStrokes }];
  const [last, before] = [strokes.at(-1), strokes.at(-2)];
  if (last && before && Math.abs(last.output - before.output) <= alike * Math.max(last.output, before.output, 1))
    return [];
  return [{ code: 'last-strokes-differ', strokes: strokes.length }];
}
