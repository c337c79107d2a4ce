import {
  differenceComponents,
  differenceResolution,
  random,
  scaleComponents,
  systematic,
} from '../../instruments/uncertainty';
import { fitLine } from '../../fitting/line';
import type { Span } from '../../traces/pull';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { exhaustion, strokesOf } from './reserve-analysis';
import { findStrokes } from '../../traces/strokes';

const { max } = Math;

/** Means are taken over this long, s. */
const meanSeconds = 0.8;
/** A foot that changed by more than this share was not still. */
const steady = 0.15;

/**
 * How far the pedal sinks (m) under a held foot when the engine starts, after the reserve was pumped away, less what it
 * crept by itself before. The hold is
 * the last stroke; the engine's start is read from `engine_on`, else the first and last part of the hold are
 * compared. Channels `pedal_force`, `pedal_travel`.
 */
export function analysePedalDrop(trace: Trace, context: StepContext<unknown>): StepAnalysis {
  const ids = ['pedal-sink'] as const;
  const force = columnOf(trace, 'pedal_force');
  const travel = columnOf(trace, 'pedal_travel');
  if (!force || !travel) return nothingMeasured(ids, { code: 'no-pull', channel: 'pedal_travel' });
  const hold = findStrokes(trace, force).at(-1);
  if (!hold || trace.time[hold.to - 1] - trace.time[hold.from] < 2.5 * meanSeconds)
    return nothingMeasured(ids, { code: 'no-hold', channel: 'pedal_force', seconds: 3 });
  const engine = columnOf(trace, 'engine_on');
  let start = hold.from;
  if (engine) {
    while (start < hold.to && !(engine[start] > 0.5)) start++;
    if (start >= hold.to || start === hold.from) return nothingMeasured(ids, { code: 'engine-not-started' });
  } else start = indexAtTime(trace, trace.time[hold.from] + meanSeconds);
  const mean = (column: Float64Array, from: number, to: number) => meanOf(column, Math.max(hold.from, from), to);
  const beforeFrom = indexAtTime(trace, trace.time[start] - meanSeconds);
  const afterFrom = indexAtTime(trace, trace.time[hold.to - 1] - meanSeconds);
  const before = mean(travel, beforeFrom, start);
  const after = mean(travel, afterFrom, hold.to);
  const forceBefore = mean(force, beforeFrom, start).mean;
  const moved = Math.abs(mean(force, afterFrom, hold.to).mean - forceBefore) / forceBefore;
  const notes: AnalysisProblem[] = moved > steady ? [{ code: 'foot-not-still', share: moved }] : [];
  const { strokes } = strokesOf(trace, 'pedal_force');
  const left = exhaustion(strokes.slice(0, -1), context);
  notes.push(...left);
  const instrument = context.instruments.get('pedal_travel');
  const creep = creepBefore(trace, travel, { from: hold.from, to: start }, trace.time[hold.to - 1] - trace.time[start]);
  const sink: Characteristic = measured('pedal-sink', after.mean - before.mean - creep.amount, [
    random('fit', creep.standard),
    random('noise', Math.hypot(before.deviation / Math.sqrt(before.count), after.deviation / Math.sqrt(after.count))),
    ...(instrument
      ? [differenceResolution(instrument), ...differenceComponents(instrument, before.mean, after.mean, context.date)]
      : []),
  ]);
  const [unused] = left;
  return {
    characteristics: [
      // With a reserve left the pedal was assisted already: it sinks by at least this.
      unused && sink.kind === 'measured' ? beyond(sink.id, 'above', sink.estimate, unused) : sink,
    ],
    events: [{ id: 'engine-starts', time: trace.time[start] }],
    notes,
    // Without the engine's own signal a pedal that creeps away by itself looks like one that sinks to it.
    doubts: engine ? [] : [{ code: 'engine-not-started' }],
  };
}

/** A creep is read from this long of the hold before the engine starts at least, s; the foot's arrival is left off, s. */
const creepSeconds = 1;
const arrival = 0.4;

/** How far the pedal would have crept by itself (m) from the engine's start to the end of the hold, by what it did before. */
function creepBefore(trace: Trace, travel: Float64Array, before: Span, seconds: number) {
  const from = indexAtTime(trace, trace.time[before.from] + arrival);
  const length = trace.time[Math.max(from, before.to - 1)] - trace.time[from];
  const line = fitLine(trace.time, travel, { from, to: before.to });
  if (length < creepSeconds || line.termination !== 'converged') return { amount: 0, standard: 0 };
  const standard = Math.sqrt(line.slopeVariance) * seconds;
  // What cannot be told from none is no creep; a pedal that rises is a foot that gives way, not a creep to be added.
  const amount = line.slope * seconds;
  return { amount: amount > 2 * standard ? amount : 0, standard };
}

/**
 * Output pressure with vacuum over output without at one pedal force: the first stroke is without, the last with.
 * Forces that differ are counted as doubt, in proportion. Channels `pedal_force`, `output_pressure`.
 */
export function analyseSameForcePair(trace: Trace, context: StepContext<unknown>): StepAnalysis {
  const ids = ['vehicle-ratio'] as const;
  const force = columnOf(trace, 'pedal_force');
  if (!force || !columnOf(trace, 'output_pressure'))
    return nothingMeasured(ids, { code: 'no-pull', channel: 'pedal_force' });
  const { strokes, held } = strokesOf(trace, 'pedal_force');
  if (strokes.length < 2) return nothingMeasured(ids, { code: 'no-strokes', channel: 'pedal_force' });
  const without = strokes[0];
  const withVacuum = strokes[strokes.length - 1];
  const apart = Math.abs(held[held.length - 1].level - held[0].level) / held[0].level;
  if (apart > steady) return nothingMeasured(ids, { code: 'foot-not-still', share: apart });
  const seen = assistSeen(trace, held);
  if (seen.kind === 'not-as-asked') return nothingMeasured(ids, seen.problem);
  const pair = ratio(without.output, withVacuum.output, apart, context);
  return {
    characteristics: [
      // A low ratio is the unit's only where the source is known to have been off, then on.
      seen.kind === 'seen' || pair.kind !== 'measured' ? pair : beyond(pair.id, 'above', pair.estimate, seen.problem),
    ],
    events: [],
    notes: [],
    strokes,
  };
}

/** Below this a push is one without vacuum, above it one with some, Pa. */
const noVacuum = 3_000;

type AssistSeen =
  | { readonly kind: 'seen' }
  | { readonly kind: 'not-recorded'; readonly problem: AnalysisProblem }
  | { readonly kind: 'not-as-asked'; readonly problem: AnalysisProblem };

/** Whether a pair of pushes was made without, then with the source, by the vacuum or by the engine's own signal. */
function assistSeen(trace: Trace, held: readonly Span[]): AssistSeen {
  const [first, last] = [held[0], held[held.length - 1]];
  const supply = columnOf(trace, 'supply_vacuum');
  if (supply) {
    const [off, on] = [first, last].map((span) => meanOf(supply, span.from, span.to).mean);
    if (off > noVacuum)
      return { kind: 'not-as-asked', problem: { code: 'supply-not-off', channel: 'supply_vacuum', left: off } };
    if (!(on > noVacuum)) return { kind: 'not-as-asked', problem: { code: 'source-never-opened', vacuum: max(0, on) } };
    return { kind: 'seen' };
  }
  const engine = columnOf(trace, 'engine_on');
  if (!engine) return { kind: 'not-recorded', problem: { code: 'supply-missing' } };
  return meanOf(engine, first.from, first.to).mean < 0.5 && meanOf(engine, last.from, last.to).mean > 0.5
    ? { kind: 'seen' }
    : { kind: 'not-as-asked', problem: { code: 'engine-not-started' } };
}

function ratio(
  without: number,
  withVacuum: number,
  apart: number,
  { instruments, date }: StepContext<unknown>,
): Characteristic {
  // Below this the unassisted push gives nothing that a quotient could be formed with.
  if (without < 50e3) return absent('vehicle-ratio', { code: 'unassisted-too-small', pressure: without });
  const value = withVacuum / without;
  const gauge = instruments.get('output_pressure');
  return measured('vehicle-ratio', value, [
    systematic('force-match', value * apart),
    // One gauge reads both: what remains is its linearity, its division and a second or two of noise.
    systematic('gauge-linearity', value * 0.01),
    ...(gauge ? scaleComponents([differenceResolution(gauge)], value / without) : []),
    ...(gauge ? scaleComponents(differenceComponents(gauge, without, withVacuum, date), 1 / without) : []),
    random('noise', (value * 4e3) / without),
  ]);
}
