import { movingMean } from '../../traces/smoothing';
import {
  binMeans,
  divisionOf,
  longestGap,
  ownInterval,
  ownSamples,
  sampleAt,
  samplesBetween,
  scatterOf,
  type Samples,
} from '../../traces/own-samples';
import { findStuck, neverMoved, type Stuck } from '../../traces/stuck';
import type { Trace } from '../../traces/trace';

const { max, min, round, sqrt } = Math;

/** What ends a hold. */
export type HoldEnd =
  | { readonly kind: 'log-ends' }
  /** The vacuum came back: the source was opened again. */
  | { readonly kind: 'recovers' }
  /** After a while of holding all of it went at once: vented, or something gave way. */
  | { readonly kind: 'collapses' }
  /** The lever left where it was. */
  | { readonly kind: 'lever-moves' };

/** What happened to a vacuum that was drawn, shut off and watched; times in s of the trace's clock, pressures Pa vacuum. */
export interface VacuumHoldEvents {
  readonly samples: Samples;
  /** When the vacuum was seen to rise from less than half to what it was held at; null where the log begins under it. */
  readonly drawnAt: number | null;
  /** Where the hold begins: its first lasting departure, or where nothing departs, the first sample that may be judged. */
  readonly from: number;
  readonly to: number;
  readonly endedBy: HoldEnd;
  /** Whether the vacuum was seen to leave its level, as it does when the source is shut on anything but a perfect shell. */
  readonly departs: boolean;
  /** Highest level up to there. */
  readonly level: number;
  /** Scatter of a sample (one sigma) and the division it was written with. */
  readonly scatter: number;
  readonly division: number;
  readonly stuck: Stuck | null;
  readonly neverMoved: boolean;
  /** Longest time without a sample in the hold, s. */
  readonly gap: number;
}

export interface HoldLooking {
  /** Nothing before this is part of the hold (s): the lever was still on its way. */
  readonly notBefore: number;
  /** When the lever left where it has to be, s; null where it stayed. */
  readonly leverLeaves: number | null;
  /** Full scale of the gauge, Pa; null where it is not known. */
  readonly range: number | null;
}

/** A departure is at least this large, Pa, and lasts as long as this, s. */
const visible = 120;
const lasting = 2;
/** Window of the smoothing that events are found on, s each way. */
const halfWindow = 0.1;
/** Pieces each way over which a level is averaged at least. */
const calmBins = 2;
/** A long log is looked at in so many pieces. */
const mostBins = 8000;
/** A vacuum that was ever below this share of its level was drawn in this log. */
const drawnFrom = 0.5;
/** A recovery happens within this, s, and brings back this share of what was lost. */
const recoverySeconds = 3;
const recoveryShare = 0.3;
/** All of it went at once where so little is left so soon (s) after nearly all of it was there, as shares. */
const nearLevel = 0.9;
const collapsedTo = 0.15;
const collapseSeconds = 2;
/** After a hold of at least this, s: a fall within this, s, by this share of the level and this many times the usual. */
const heldBefore = 2;
const atOnceSeconds = 1;
const atOnceShare = 0.08;
const atOnceTimes = 8;

/**
 * Finds a vacuum hold, forwards: from the highest level that the vacuum had reached, the first departure that lasts; to
 * where it recovers, goes all at once, the lever moves, or the log ends. Null where there are not two samples.
 */
export function findVacuumHold(trace: Trace, column: Float64Array, looking: HoldLooking): VacuumHoldEvents | null {
  const samples = ownSamples(trace, column);
  const ends = samples.time[samples.time.length - 1];
  const later = samplesBetween(samples, looking.notBefore, ends);
  if (later.time.length < 2) return null;
  const interval = ownInterval(samples);
  const width = max(interval, halfWindow / 2, (ends - samples.time[0]) / mostBins);
  const bins = binMeans(samples, width);
  const half = round(halfWindow / width);
  const { time } = bins;
  const smooth = movingMean(bins.value, half);
  const begin = min(sampleAt(bins, looking.notBefore), time.length - 1);
  const last = time.length - 1;
  const scatter = scatterOf(later);
  const division = divisionOf(samples);
  const fine = scatter / sqrt((2 * half + 1) * max(1, width / interval));
  const quantum = scatter < division ? division : 0;
  const band = max(visible, 4 * fine, 1.5 * quantum);

  // A highest level is one of many: with few samples it is looked for on more of them at once, or noise would raise it.
  const calmHalf = max(half, calmBins);
  const calm = movingMean(bins.value, calmHalf);
  const calmScatter = scatter / sqrt((2 * calmHalf + 1) * max(1, width / interval));
  const departure = departureFrom(time, calm, { begin, band: max(visible, 5 * calmScatter, 1.5 * quantum) });
  const level = departure?.level ?? maximum(smooth, begin, last);
  let start = begin;
  if (departure) {
    start = departure.at;
    while (start > begin && smooth[start] < level - max(4 * fine, quantum / 2)) start--;
  }
  const drawnAt = drawn(time, smooth, start, level);
  const ended = endOf(time, smooth, { start, band, level, begin: time[begin] });
  const leverLeaves = looking.leverLeaves !== null && looking.leverLeaves > time[start] ? looking.leverLeaves : null;
  const byLever = leverLeaves !== null && leverLeaves < time[ended.at];
  const to = byLever ? leverLeaves : time[ended.at];
  return {
    samples,
    drawnAt,
    from: time[start],
    to,
    endedBy: byLever ? { kind: 'lever-moves' } : ended.by,
    departs: departure !== null,
    level,
    scatter,
    division,
    stuck: findStuck(samples, looking.range),
    neverMoved: neverMoved(samples),
    gap: longestGap(samples, time[start], to),
  };
}

function maximum(values: Float64Array, from: number, to: number): number {
  let highest = -Infinity;
  for (let i = from; i <= to; i++) highest = max(highest, values[i]);
  return highest;
}

interface Departing {
  readonly begin: number;
  readonly band: number;
}

/** First sample that lies a band below the highest so far and does not come back within two seconds. */
function departureFrom(time: Float64Array, smooth: Float64Array, { begin, band }: Departing) {
  let level = -Infinity;
  for (let i = begin; i < smooth.length; i++) {
    level = max(level, smooth[i]);
    if (!(smooth[i] < level - band)) continue;
    let lasts = true;
    for (let j = i; lasts && j < smooth.length && time[j] - time[i] <= lasting; j++)
      lasts = smooth[j] < level - band / 2;
    if (lasts) return { at: i, level };
  }
  return null;
}

/** When the vacuum last rose to nearly its level from less than half of it, before the hold; null where it never did. */
function drawn(time: Float64Array, smooth: Float64Array, start: number, level: number): number | null {
  let low = start;
  while (low >= 0 && smooth[low] >= drawnFrom * level) low--;
  if (low < 0) return null;
  let up = low;
  while (up < start && smooth[up] < 0.95 * level) up++;
  return time[up];
}

interface Holding {
  readonly start: number;
  readonly band: number;
  readonly level: number;
  /** s */
  readonly begin: number;
}

function endOf(
  time: Float64Array,
  smooth: Float64Array,
  { start, band, level, begin }: Holding,
): { readonly at: number; readonly by: HoldEnd } {
  let lowest = smooth[start];
  let before = start;
  let earlier = start;
  let high = start;
  for (let i = start; i < smooth.length; i++) {
    lowest = min(lowest, smooth[i]);
    while (time[i] - time[before] > recoverySeconds) before++;
    const since = minimum(smooth, before, i);
    if (smooth[i] - since.value > max(2 * band, recoveryShare * (level - lowest)))
      return { at: since.at, by: { kind: 'recovers' } };
    // What a source had held at its level for a while does not go all at once by leaking; a lever that has just arrived
    // may have opened a leak as large as that.
    if (smooth[i] > nearLevel * level) high = i;
    if (
      smooth[i] < collapsedTo * level &&
      time[i] - time[high] <= collapseSeconds &&
      time[high] - begin > heldBefore + 0.5
    )
      return { at: high, by: { kind: 'collapses' } };
    while (earlier < i - 1 && time[i] - time[earlier] > atOnceSeconds) earlier++;
    const heldFor = time[earlier] - time[start];
    const drop = smooth[earlier] - smooth[i];
    const usual = ((level - smooth[earlier]) / heldFor) * (time[i] - time[earlier]);
    if (heldFor >= heldBefore && drop > atOnceShare * level && drop > atOnceTimes * max(usual, band))
      return { at: earlier, by: { kind: 'collapses' } };
  }
  return { at: smooth.length - 1, by: { kind: 'log-ends' } };
}

function minimum(values: Float64Array, from: number, to: number): { readonly at: number; readonly value: number } {
  let at = from;
  for (let i = from; i <= to; i++) if (values[i] < values[at]) at = i;
  return { at, value: values[at] };
}
