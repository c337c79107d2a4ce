import { stuckProblem } from '../../procedure/stuck-problem';
import { expandedUncertainty, random, scaleComponents } from '../../instruments/uncertainty';
import type { CharacteristicId } from '../../quantities/characteristics';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { findPull, isPull } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { longestGap, ownInterval, ownSamples, sampleAt, samplesBetween, type Samples } from '../../traces/own-samples';
import { findStuck, neverMoved, type Stuck } from '../../traces/stuck';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { earliestCall } from './early-call';
import { fittedChange, gaugeOfChange, predictedChange, type HeldChange } from './held-change';

const { max, min, round } = Math;

export interface PressureHoldOptions {
  /** Time of the full hold, s. */
  readonly seconds: number;
  readonly withInputCreep: boolean;
  /** Where there is no output gauge it is the input that is locked in and watched. */
  readonly held?: 'input_pressure';
  /** Pressures (Pa gauge) between which the hold has to be made to tell what it is made for. */
  readonly between: readonly [number, number];
}

/** A pressure locked in, from where it has settled to where the lever is let back or the log ends (s). */
interface LockedIn {
  readonly trace: Trace;
  readonly from: number;
  readonly to: number;
  readonly level: number;
  readonly early: boolean;
}

/** Left off once the lever has arrived: valve movement and the first of the settling, s. */
const settling = 1;
/** The lever is let back where the pressure falls by this share of its highest within this, s. */
const letBackShare = 0.05;
const letBackSeconds = 0.25;
/** A lever that pulls again raises the pressure by this share. */
const pulledAgainShare = 0.03;
/** Where a log begins in a hold it begins this close to its highest. */
const atLevel = 0.9;
const fullShare = 0.95;
const shortBy = 0.1;
const longestGapShare = 0.3;

/** What happened to a pressure that was to be locked in; times in s, pressures Pa gauge. */
interface LockingFound {
  readonly trace: Trace;
  readonly samples: Samples;
  readonly neverMoved: boolean;
  readonly stuck: Stuck | null;
  /** The log begins at the level that is held. */
  readonly begun: boolean;
  /** From where it is held and to where it is let back or pulled again; null where nothing was pulled and held. */
  readonly span: { readonly from: number; readonly to: number; readonly level: number } | null;
}

function findLocking(
  trace: Trace,
  context: StepContext<unknown>,
  channel: 'output_pressure' | 'input_pressure',
): LockingFound | NoEvidence {
  const column = columnOf(trace, channel);
  if (!column) return noEvidence({ code: 'channel-missing', channel });
  const samples = ownSamples(trace, column);
  const { time, value } = samples;
  const pull = findPull(trace, column);
  const highest = value.reduce((most, each) => max(most, each), -Infinity);
  const begun = value[0] > atLevel * highest;
  const found = {
    trace,
    samples,
    neverMoved: neverMoved(samples),
    stuck: findStuck(samples, context.instruments.get(channel)?.range ?? null),
    begun,
  };
  if (!begun && !isPull(pull)) return { ...found, span: null };
  const from = begun || !isPull(pull) ? time[0] : trace.time[pull.plateau.from] + settling;
  const held = heldFrom(samples, from, pulledAgainShare);
  // The unit's own friction keeps an output up for a while after the lever has gone; what slips back to the input raises that.
  const lever = channel === 'input_pressure' ? undefined : columnOf(trace, 'input_pressure');
  const letBack = lever ? heldFrom(ownSamples(trace, lever), from, Infinity).to : held.to;
  return { ...found, span: { from, to: min(held.to, letBack), level: held.level } };
}

/** Level of a gauge at `from` (s), and when it stops being held: let back, pulled up again by a share of its highest, or the log's end (s). */
function heldFrom(samples: Samples, from: number, rises: number): { readonly to: number; readonly level: number } {
  const { time, value } = samples;
  const highest = value.reduce((most, each) => max(most, each), -Infinity);
  const smooth = movingMean(value, max(0, round(0.06 / ownInterval(samples))));
  const begin = sampleAt(samples, from);
  let lowest = smooth[begin];
  let to = begin;
  for (let later = begin; to + 1 < time.length; to++) {
    while (later + 1 < time.length && time[later] - time[to] < letBackSeconds) later++;
    lowest = min(lowest, smooth[to]);
    if (smooth[to] - smooth[later] > letBackShare * highest) break;
    if (smooth[to] - lowest > rises * highest) break;
  }
  return { to: time[to] ?? from, level: smooth[begin] };
}

/** Whether a trace shows a pressure that was locked in, at the level and for the time that the step asks for. */
function lockedInEvidence(
  { trace, samples, neverMoved: frozen, stuck, begun, span }: LockingFound,
  channel: 'output_pressure' | 'input_pressure',
  options: PressureHoldOptions,
): Judged<LockedIn> {
  if (frozen) return noEvidence({ code: 'gauge-never-moved', channel });
  if (!span) return noEvidence({ code: 'no-hold', channel, seconds: options.seconds });
  const { from, to, level } = span;
  const covered = to - from;
  const needed = min(fullShare * options.seconds, earliestCall(options.seconds));
  if (!(covered >= needed - shortBy)) return noEvidence({ code: 'hold-too-short', seconds: max(0, covered), needed });
  if (stuck && stuck.from < to && stuck.to > from) return noEvidence(stuckProblem(stuck, channel));
  const gap = longestGap(samples, from, to);
  if (gap > longestGapShare * covered) return noEvidence({ code: 'gap-in-hold', channel, seconds: gap });
  const [low, high] = options.between;
  if (level < low || level > high) return noEvidence({ code: 'held-elsewhere', at: level, low, high });
  const early = covered < fullShare * options.seconds;
  const notes: AnalysisProblem[] = [
    ...(begun ? [{ code: 'begins-in-hold' } as const] : []),
    ...(early ? [{ code: 'called-early', at: covered, of: options.seconds } as const] : []),
  ];
  return evidence({ trace, from, to, level, early }, notes);
}

/**
 * Decay and input creep (Pa/s, positive = falling output, rising input) of a locked-in pressure, from the fitted decay
 * over the hold. Channels `output_pressure`, `input_pressure`; the input alone where that is what is held.
 */
export function analysePressureHold(
  trace: Trace,
  context: StepContext<unknown>,
  options: PressureHoldOptions,
): Answered {
  return answer(pressureHold(options), trace, context);
}

function pressureHold(options: PressureHoldOptions): Question<StepContext<unknown>, LockingFound, LockedIn> {
  const channel = options.held ?? 'output_pressure';
  const decayRate = options.held ? 'input-decay-rate' : 'output-decay-rate';
  const ids: readonly CharacteristicId[] = options.withInputCreep ? [decayRate, 'input-creep'] : [decayRate];
  const { seconds } = options;
  return {
    characteristics: ids,
    happened: (trace, context) => findLocking(trace, context, channel),
    shows: (found) => lockedInEvidence(found, channel, options),
    comesTo: (locked, context) => {
      const rate = rateOf(locked, context, { channel, seconds });
      if (!rate)
        return nothingMeasured(ids, { code: 'hold-too-short', seconds: locked.to - locked.from, needed: seconds });
      const decay = rate.as(decayRate, 1);
      return {
        characteristics: options.withInputCreep ? [decay, creepOf(locked, context, seconds)] : [decay],
        events: [
          { id: 'hold', time: locked.from, y: rate.change.start },
          { id: 'hold', time: locked.to, y: rate.change.start - rate.change.soFar },
        ],
        notes: [],
        held: rate.change.start,
      };
    },
  };
}

interface Watched {
  readonly channel: string;
  readonly seconds: number;
}

/** Rate (Pa/s) at which a channel fell while the pressure was locked in; null where the hold is too short for one. */
function rateOf(locked: Evidence<LockedIn>, context: StepContext<unknown>, { channel, seconds }: Watched) {
  const { trace } = locked;
  const samples = samplesBetween(ownSamples(trace, trace.columns[channel]), locked.from, locked.to);
  if (samples.time.length < 2) return null;
  const over = locked.early ? seconds : locked.to - locked.from;
  const change: HeldChange | null = locked.early
    ? predictedChange(samples, seconds, null)
    : fittedChange(samples, over, 0);
  if (!change) return null;
  const components = [
    random('fit', change.standard),
    ...gaugeOfChange(samples, context, { channel, change, seconds: over }),
  ];
  const expanded = expandedUncertainty({ value: change.value, components });
  const as = (id: CharacteristicId, sign: 1 | -1): Characteristic =>
    // What is locked in can fall, never rise by itself; an input may be pushed up by what comes back.
    sign === 1 && change.value < -expanded
      ? absent(id, { code: 'gains', channel, gain: -change.value })
      : measured(id, (sign * change.value) / over, scaleComponents(components, 1 / over));
  return { change, as };
}

function creepOf(locked: Evidence<LockedIn>, context: StepContext<unknown>, seconds: number): Characteristic {
  if (!columnOf(locked.trace, 'input_pressure'))
    return absent('input-creep', { code: 'channel-missing', channel: 'input_pressure' });
  const rate = rateOf(locked, context, { channel: 'input_pressure', seconds });
  return rate
    ? rate.as('input-creep', -1)
    : absent('input-creep', { code: 'hold-too-short', seconds: locked.to - locked.from, needed: seconds });
}
