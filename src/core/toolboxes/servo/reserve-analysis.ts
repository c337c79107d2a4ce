import { differenceComponents, differenceResolution, expandedUncertainty, random } from '../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, MeasuredStroke, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { findStrokes, type Stroke } from '../../traces/strokes';

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

/**
 * Useful strokes from the reserve, counted from the first after the source is lost: a stroke is assisted when its
 * output reaches at least halfway from the unassisted prediction to the first stroke's output. And the vacuum (Pa)
 * that the first stroke cost. Channels: the lever's, `output_pressure`, `supply_vacuum`.
 */
export function analyseReserve(trace: Trace, context: StepContext<unknown>, options: ReserveOptions): StepAnalysis {
  const { strokes, held } = strokesOf(trace, options.lever);
  if (strokes.length === 0) return nothingMeasured(ids, { code: 'no-strokes', channel: options.lever });
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
    characteristics.push(measured('assisted-applications', 0, []));
  } else {
    const lost = strokes.findIndex((stroke) => stroke.output < threshold);
    const count = lost < 0 ? strokes.length : lost;
    const close = strokes.some((stroke) => Math.abs(stroke.output - threshold) < doubt);
    characteristics.push(measured('assisted-applications', count, close ? [random('counting', 0.5)] : []));
    if (lost < 0) notes.push({ code: 'reserve-not-used-up', strokes: strokes.length });
  }
  characteristics.push(vacuumOfFirst(strokes, context));
  return { characteristics, events: [], notes, strokes, vacuum: strokes[0].vacuum };
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
