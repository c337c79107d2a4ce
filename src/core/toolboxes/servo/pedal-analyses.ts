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
import type { Characteristic, MeasuredStroke } from '../../procedure/step-analysis';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { exhaustion, strokesOf } from './reserve-analysis';
import { findStrokes } from '../../traces/strokes';

const { max } = Math;

/** Means are taken over this long, s. */
const meanSeconds = 0.8;
/** A foot that changed by more than this share was not still. */
const steady = 0.15;

/** A foot held on a pedal while the engine starts; indices in the trace. */
interface HeldAtStart {
  readonly trace: Trace;
  readonly hold: Span;
  /** Where the engine starts, by its own signal; null where nobody recorded it. */
  readonly engineStarts: number | null;
  readonly strokes: readonly MeasuredStroke[];
}

/** The same once the start is known, or taken from the hold. */
interface ShownStart extends HeldAtStart {
  readonly start: number;
  /** What was left of the reserve when the foot was held: the pedal was assisted already. */
  readonly left: readonly AnalysisProblem[];
}

/** The last hold of the pedal, and where the engine starts in it. */
function findStart(trace: Trace): HeldAtStart | NoEvidence {
  const force = columnOf(trace, 'pedal_force');
  if (!force || !columnOf(trace, 'pedal_travel')) return noEvidence({ code: 'no-pull', channel: 'pedal_travel' });
  const hold = findStrokes(trace, force).at(-1);
  if (!hold) return noEvidence({ code: 'no-hold', channel: 'pedal_force', seconds: 3 });
  const engine = columnOf(trace, 'engine_on');
  let starts = hold.from;
  if (engine) while (starts < hold.to && !(engine[starts] > 0.5)) starts++;
  return { trace, hold, engineStarts: engine ? starts : null, strokes: strokesOf(trace, 'pedal_force').strokes };
}

function startEvidence(found: HeldAtStart, context: StepContext<unknown>): Judged<ShownStart> {
  const { trace, hold, engineStarts, strokes } = found;
  if (trace.time[hold.to - 1] - trace.time[hold.from] < 2.5 * meanSeconds)
    return noEvidence({ code: 'no-hold', channel: 'pedal_force', seconds: 3 });
  if (engineStarts !== null && (engineStarts >= hold.to || engineStarts === hold.from))
    return noEvidence({ code: 'engine-not-started' });
  const start = engineStarts ?? indexAtTime(trace, trace.time[hold.from] + meanSeconds);
  const moved = forceMoved(trace, hold, start);
  const left = exhaustion(strokes.slice(0, -1), context);
  return evidence(
    { ...found, start, left },
    [...(moved > steady ? [{ code: 'foot-not-still', share: moved } as const] : []), ...left],
    // Without the engine's own signal a pedal that creeps away by itself looks like one that sinks to it.
    engineStarts === null ? [{ code: 'engine-not-started' }] : [],
  );
}

/** Means of a column before the engine's start and at the end of the hold. */
function beforeAndAfter(trace: Trace, channel: string, hold: Span, start: number) {
  const column = trace.columns[channel];
  const mean = (from: number, to: number) => meanOf(column, Math.max(hold.from, from), to);
  return {
    before: mean(indexAtTime(trace, trace.time[start] - meanSeconds), start),
    after: mean(indexAtTime(trace, trace.time[hold.to - 1] - meanSeconds), hold.to),
  };
}

/** Strokes that read the same do so within about this share. */
const readsTheSame = 0.05;

/**
 * Share of the assist that may still have been there before the engine's start, one sigma: by the boost before and after, by the vacuum
 * left against what the source gives, else by how alike two strokes are that count as the same.
 */
function leftShare({ trace, hold, start, strokes }: ShownStart): number {
  if (columnOf(trace, 'boost_pressure')) {
    const { before, after } = beforeAndAfter(trace, 'boost_pressure', hold, start);
    return after.mean > 0 ? max(0, before.mean / after.mean) / Math.sqrt(3) : 0;
  }
  const last = strokes.at(-1);
  if (!columnOf(trace, 'supply_vacuum') || !last || Number.isNaN(last.vacuum)) return readsTheSame / Math.sqrt(3);
  const source = beforeAndAfter(trace, 'supply_vacuum', hold, start).after.mean;
  return source > 0 ? max(0, last.vacuum / source) / Math.sqrt(3) : 0;
}

/** By what share the foot's force differs at the end of the hold from before the start. */
function forceMoved(trace: Trace, hold: Span, start: number): number {
  const { before, after } = beforeAndAfter(trace, 'pedal_force', hold, start);
  return Math.abs(after.mean - before.mean) / before.mean;
}

const pedalDrop: Question<StepContext<unknown>, HeldAtStart, ShownStart> = {
  characteristics: ['pedal-sink'],
  happened: findStart,
  shows: startEvidence,
  comesTo: (shown, context) => {
    const { trace, hold, start, left } = shown;
    const { before, after } = beforeAndAfter(trace, 'pedal_travel', hold, start);
    const instrument = context.instruments.get('pedal_travel');
    const seconds = trace.time[hold.to - 1] - trace.time[start];
    const creep = creepOf(trace, { before: { from: hold.from, to: start }, until: hold.to }, seconds);
    const sink = measured('pedal-sink', after.mean - before.mean - creep.amount, [
      random('fit', creep.standard),
      systematic('reserve-left', (after.mean - before.mean) * leftShare(shown)),
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
      notes: [],
    };
  },
};

/**
 * How far the pedal sinks (m) under a held foot when the engine starts, after the reserve was pumped away, less what it
 * crept by itself before. The hold is the last stroke; the engine's start is read from `engine_on`, else the first and last
 * part of the hold are compared. Channels `pedal_force`, `pedal_travel`.
 */
export function analysePedalDrop(trace: Trace, context: StepContext<unknown>): Answered {
  return answer(pedalDrop, trace, context);
}

/** A creep is read from this long of the hold before the engine starts at least, s; the foot's arrival is left off, s. */
const creepSeconds = 1;
const arrival = 0.4;

/**
 * How far the pedal would have crept by itself (m) from the engine's start to the end of the hold, by what it did before; where
 * the foot was hardly there before, by what it still does at the end, which may be the rest of its sinking.
 */
function creepOf(trace: Trace, { before, until }: { readonly before: Span; readonly until: number }, seconds: number) {
  const travel = trace.columns.pedal_travel;
  const from = indexAtTime(trace, trace.time[before.from] + arrival);
  const length = trace.time[Math.max(from, before.to - 1)] - trace.time[from];
  const line = fitLine(trace.time, travel, { from, to: before.to });
  if (length < creepSeconds || line.termination !== 'converged') {
    const last = fitLine(trace.time, travel, {
      from: indexAtTime(trace, trace.time[until - 1] - creepSeconds),
      to: until,
    });
    const still = last.termination === 'converged' ? Math.max(0, last.slope * seconds) : 0;
    return { amount: 0, standard: still / Math.sqrt(3) };
  }
  const standard = Math.sqrt(line.slopeVariance) * seconds;
  // What cannot be told from none is no creep; a pedal that rises is a foot that gives way, not a creep to be added.
  const amount = line.slope * seconds;
  return { amount: amount > 2 * standard ? amount : 0, standard };
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

/** Two pushes of one force. */
interface TwoPushes {
  readonly strokes: readonly MeasuredStroke[];
  /** Of the push without, N. */
  readonly pedalForce: number;
  /** By what share their forces differ. */
  readonly apart: number;
  readonly assist: AssistSeen;
}

function findPushes(trace: Trace): TwoPushes | NoEvidence {
  if (!columnOf(trace, 'pedal_force') || !columnOf(trace, 'output_pressure'))
    return noEvidence({ code: 'no-pull', channel: 'pedal_force' });
  const { strokes, held } = strokesOf(trace, 'pedal_force');
  if (strokes.length < 2) return noEvidence({ code: 'no-strokes', channel: 'pedal_force' });
  const apart = Math.abs(held[held.length - 1].level - held[0].level) / held[0].level;
  return { strokes, pedalForce: held[0].level, apart, assist: assistSeen(trace, held) };
}

function pushesEvidence(found: TwoPushes): Judged<TwoPushes> {
  if (found.apart > steady) return noEvidence({ code: 'foot-not-still', share: found.apart });
  return found.assist.kind === 'not-as-asked' ? noEvidence(found.assist.problem) : evidence(found);
}

const sameForcePair: Question<StepContext<unknown>, TwoPushes, TwoPushes> = {
  characteristics: ['vehicle-ratio'],
  happened: findPushes,
  shows: pushesEvidence,
  comesTo: ({ strokes, pedalForce, apart, assist }, context) => {
    const pair = ratio(strokes[0].output, strokes[strokes.length - 1].output, apart, context);
    return {
      characteristics: [
        // A low ratio is the unit's only where the source is known to have been off, then on.
        assist.kind === 'seen' || pair.kind !== 'measured'
          ? pair
          : beyond(pair.id, 'above', pair.estimate, assist.problem),
      ],
      events: [],
      notes: [],
      strokes,
      pedalForce,
    };
  },
};

/**
 * Output pressure with vacuum over output without at one pedal force: the first stroke is without, the last with.
 * Forces that differ are counted as doubt, in proportion. Channels `pedal_force`, `output_pressure`.
 */
export function analyseSameForcePair(trace: Trace, context: StepContext<unknown>): Answered {
  return answer(sameForcePair, trace, context);
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
