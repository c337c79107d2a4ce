import { stuckProblem } from './stuck-problem';
import { followingLag, lagged, type FollowingLag, type Stop } from '../fitting/following-lag';
import type { Instrument } from '../instruments/instrument';
import { divisionOf, longestGap, ownSamples, sampleAt, scatterOf, type Samples } from '../traces/own-samples';
import { movingMean } from '../traces/smoothing';
import { findPull, isPull, type Pull, type Span } from '../traces/pull';
import { findStuck } from '../traces/stuck';
import { together } from '../traces/together';
import { columnOf, indexAtTime, sampleInterval, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from './evidence';

const { abs, ceil, hypot, max, min } = Math;

/** One pull of a lever with all that follows it on the same rows. */
export interface ShownPull {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly lever: string;
}

export interface PullWanted {
  readonly lever: string;
  readonly outputs: readonly string[];
  readonly instruments: ReadonlyMap<string, Instrument>;
}

/** Fewest samples of a pull to its top, and of a line to be read from, that anything is read from. */
export const fewestOnLine = 20;
/** What a unit gives follows a lever that takes at least so long to its top, s. */
const quickest = 2.5;
/** Share of a pull that may be missing from it in one piece. */
const largestGap = 0.15;
/**
 * An output that moves by this share of all it does, so long after the lever's gauge came to stand at one figure (s), shows a gauge
 * at its stop.
 */
const movesAlone = 0.01;
const movesAfter = 0.7;

/** What happened to a lever and to what follows it. */
export interface PullFound {
  /** Rows in which all of them were read. */
  readonly trace: Trace;
  readonly lever: string;
  /** Null where the lever was not pulled to a top. */
  readonly pull: Pull | null;
  /** Gauges that stood still, or at their stop, while they had something to show. */
  readonly notFollowing: readonly AnalysisProblem[];
  /** The largest part of the way to the top that lies between two rows, and the longest time without one, s. */
  readonly gap: { readonly share: number; readonly seconds: number };
}

/** Finds the pull of a lever, with what its gauge and the outputs' did not show. */
export function findLeverPull(trace: Trace, wanted: PullWanted): PullFound | NoEvidence {
  const { lever, outputs } = wanted;
  const missing = [lever, ...outputs].find((channel) => !columnOf(trace, channel));
  if (missing !== undefined) return noEvidence({ code: 'channel-missing', channel: missing });
  const rows = fromItsStart(together(trace, [lever, ...outputs]));
  const none = { trace: rows, lever, pull: null, notFollowing: [], gap: { share: 0, seconds: 0 } };
  if (rows.time.length < fewestOnLine) return none;
  const pull = findPull(rows, rows.columns[lever]);
  if (!isPull(pull)) return none;
  const stood = leverStood(rows, pull, wanted);
  return {
    ...none,
    pull,
    notFollowing: [...(stood ? [stood] : []), ...gaugesStood(rows, pull, wanted)],
    gap: largestMissing(rows, pull, lever),
  };
}

/** Gauges of lever and outputs that were stuck while they had something to show. */
function gaugesStood(rows: Trace, pull: Pull, wanted: PullWanted): AnalysisProblem[] {
  const { lever, outputs, instruments } = wanted;
  const { apply, plateau, wayBack } = pull;
  const until = rows.time[min(rows.time.length - 1, max(wayBack.to, plateau.to) - 1)];
  return [lever, ...outputs].flatMap((channel): AnalysisProblem[] => {
    const samples = ownSamples(rows, rows.columns[channel]);
    const stuck = findStuck(samples, instruments.get(channel)?.range ?? null);
    if (
      stuck &&
      stuck.to > rows.time[apply.from] &&
      stuck.from < until &&
      !stillWith(rows, pull, channel, wanted, stuck)
    )
      return [stuckProblem(stuck, channel)];
    const never = channel === lever ? null : neverBack(samples, rows, pull);
    return never === null ? [] : [{ code: 'gauge-frozen', channel, seconds: never }];
  });
}

/**
 * Whether that is one pull that a curve can be read from: slow enough, with enough samples and no large part missing, the
 * lever's gauge and the outputs' neither frozen nor at their stops. Names the first thing that is missing.
 */
export function pullEvidence(found: PullFound): Judged<ShownPull> {
  const { trace, lever, pull, notFollowing, gap } = found;
  const few = (samples: number) =>
    noEvidence({ code: 'too-few-samples', channel: lever, samples, needed: fewestOnLine });
  if (!pull)
    return trace.time.length < 3 * fewestOnLine
      ? few(trace.time.length)
      : noEvidence({ code: 'no-pull', channel: lever });
  const { apply, plateau } = pull;
  if (plateau.from - apply.from < fewestOnLine) return few(plateau.from - apply.from);
  const seconds = trace.time[plateau.from] - trace.time[apply.from];
  if (seconds < quickest) return noEvidence({ code: 'pulled-too-quickly', seconds, needed: quickest });
  const [first] = notFollowing;
  if (first) return noEvidence(first);
  if (gap.share > largestGap) return noEvidence({ code: 'gap-in-pull', channel: lever, seconds: gap.seconds });
  return evidence({ trace, pull, lever });
}

/** Steps to the second in which a clock is counted. */
const clockSteps = 1e8;

/** A trace whose clock starts with it: a clock that starts late rounds its steps otherwise, and nothing may depend on that. */
function fromItsStart(trace: Trace): Trace {
  return { ...trace, time: trace.time.map((t) => Math.round((t - trace.time[0]) * clockSteps) / clockSteps) };
}

/** A lever's gauge that stands at one figure while the output goes on is at its stop, not at the top of the pull. */
function leverStood(rows: Trace, { plateau, peak }: Pull, { lever, outputs }: PullWanted): AnalysisProblem | null {
  const column = rows.columns[lever];
  const [from, to] = [plateau.from, min(plateau.to, column.length)];
  if (rows.time[to - 1] - rows.time[from] < 0.5) return null;
  let alike = 0;
  for (let i = from + 1; i < to; i++) if (column[i] === column[i - 1]) alike++;
  if (alike < 0.9 * (to - from - 1)) return null;
  const output = rows.columns[outputs[0]];
  const half = max(1, Math.round(0.1 / sampleInterval(rows)));
  const smooth = movingMean(output, half);
  const later = indexAtTime(rows, rows.time[from] + movesAfter);
  let [low, high, least, most] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < smooth.length; i++) {
    least = min(least, smooth[i]);
    most = max(most, smooth[i]);
    if (i < later || i >= to - half) continue;
    low = min(low, smooth[i]);
    high = max(high, smooth[i]);
  }
  const noise = scatterOf({ value: output }) / Math.sqrt(2 * half + 1);
  // Within a division of the lever's gauge the lever may have moved, and the output with it.
  const within = divisionOf({ value: column }) / max(peak, Number.EPSILON);
  const own = divisionOf({ value: output });
  return high - low > max((movesAlone + 2 * within) * (most - least), 8 * noise, 2 * own)
    ? { code: 'gauge-clipped', channel: lever, at: peak }
    : null;
}

/** A channel may stand while nothing drives it: the lever while it is held, an output while the lever is at rest or held. */
function stillWith(
  rows: Trace,
  { restBefore, apply, plateau, wayBack }: Pull,
  channel: string,
  { lever }: PullWanted,
  stuck: { readonly from: number; readonly to: number },
): boolean {
  const [from, to] = [indexAtTime(rows, stuck.from), indexAtTime(rows, stuck.to)];
  const moving = overlap(from, to, apply) + overlap(from, to, wayBack);
  if (channel === lever) return moving < 0.5 * (to - from);
  return to <= max(restBefore.to, apply.from) || from >= wayBack.to || (from >= plateau.from && to <= plateau.to);
}

function overlap(from: number, to: number, span: Span): number {
  return max(0, min(to, span.to) - max(from, span.from));
}

/** Seconds that an output stood at the very figure of the pull although the lever had come back; null where it did not. */
function neverBack(samples: Samples, rows: Trace, { wayBack, plateau }: Pull): number | null {
  const { time, value } = samples;
  if (wayBack.to <= wayBack.from || wayBack.to >= rows.time.length) return null;
  const last = value[value.length - 1];
  let first = value.length - 1;
  while (first > 0 && value[first - 1] === last) first--;
  return time[first] < rows.time[min(rows.time.length - 1, plateau.to)] &&
    sampleAt(samples, rows.time[plateau.from]) < value.length - 2
    ? time[value.length - 1] - time[first]
    : null;
}

/** The largest part of the way to the top that lies between two neighbouring rows. */
function largestMissing(
  rows: Trace,
  { apply, plateau, smooth }: Pull,
  lever: string,
): { share: number; seconds: number } {
  const range = smooth[plateau.from] - smooth[apply.from];
  const typical = sampleInterval(rows);
  let [share, seconds] = [0, 0];
  for (let i = apply.from + 1; i <= plateau.from; i++) {
    const part = abs(rows.columns[lever][i] - rows.columns[lever][i - 1]) / range;
    const step = rows.time[i] - rows.time[i - 1];
    if (step > 3 * typical && part > share) [share, seconds] = [part, step];
  }
  return {
    share,
    seconds: max(
      seconds,
      share > 0 ? longestGap({ time: rows.time }, rows.time[apply.from], rows.time[plateau.from]) : 0,
    ),
  };
}

/** A lever and what follows it brought to one moment, with how well their lag is known. */
export interface Following {
  /** The lever as late as the output reads it, and the output (as late as the lever reads it where that is the later), SI. */
  readonly lever: Float64Array;
  readonly output: Float64Array;
  readonly lag: FollowingLag;
  /** The pull on these columns: what was still on its way when the lever stopped belongs to pull and way back. */
  readonly pull: Pull;
}

/** Where the output follows the lever on a straight line, SI at the lever: from here to the top; up to there from rest. */
export interface Straight {
  readonly topFrom: number;
  readonly bottomTo?: number;
  /** The way back begins on the same line. */
  readonly wayBackToo?: boolean;
}

/** A speed is taken over so long to either side, s. */
const speedOver = 0.25;
/** Seconds around a stop that tell a lag. */
const beforeStop = 3;
const afterStop = 1.2;
/** Lag of two gauges on their lines of which nothing is known, one sigma, s: filters of a tenth of a second, a long thin hose. */
const unknownLag = 0.1;
/** What of a recorded lag is not known, and what the unit itself may take to follow, s. */
const recordShare = 0.4;
const recordLeast = 0.004;

/** Lag of one gauge after another by their records, s. */
function recordedLag(instruments: PullWanted['instruments'], lever: string, output: string): FollowingLag {
  const [first, second] = [instruments.get(lever)?.lagSeconds, instruments.get(output)?.lagSeconds];
  if (first === undefined || second === undefined) return { lag: 0, standard: unknownLag };
  return { lag: second - first, standard: hypot(recordShare * first, recordShare * second, recordLeast) };
}

/** Two findings of one lag: weighted together, or the trace's own where they contradict each other. */
function bothLags(found: FollowingLag, recorded: FollowingLag): FollowingLag {
  if (!Number.isFinite(found.standard)) return recorded;
  if (abs(found.lag - recorded.lag) > 3 * hypot(found.standard, recorded.standard)) return found;
  const [p, q] = [1 / found.standard ** 2, 1 / recorded.standard ** 2];
  return { lag: (p * found.lag + q * recorded.lag) / (p + q), standard: 1 / Math.sqrt(p + q) };
}

/** Lever and output as they stand in their rows, nothing known yet of how one follows the other. */
export function asRead({ trace, pull, lever }: ShownPull, output: string): Following {
  const lag = { lag: 0, standard: unknownLag };
  return { lever: trace.columns[lever], output: trace.columns[output], lag, pull };
}

/** Speed of the lever (SI a second) where a branch passes `at`, SI above its zero. */
export function leverSpeed({ time }: Trace, { smooth, zero }: Pull, span: Span, at: number): number {
  const target = at + (zero ?? 0);
  let nearest = span.from;
  for (let i = span.from; i < span.to; i++) if (abs(smooth[i] - target) < abs(smooth[nearest] - target)) nearest = i;
  let [from, to] = [nearest, nearest];
  while (from > span.from && time[nearest] - time[from] < speedOver) from--;
  while (to < span.to - 1 && time[to] - time[nearest] < speedOver) to++;
  const seconds = time[to] - time[from];
  return seconds > 0 ? abs(smooth[to] - smooth[from]) / seconds : 0;
}

/**
 * Brings lever and output to one moment: their lag is read from the trace where the lever stops on a straight line of the output,
 * and from the instruments' records; where neither tells it, it is not taken to be none, only to be small.
 */
export function followLever(
  shown: Evidence<ShownPull>,
  output: string,
  straight: Straight,
  instruments: PullWanted['instruments'],
): Following {
  const { trace, pull, lever } = shown;
  const { time } = trace;
  const column = trace.columns[output];
  const found = followingLag(time, trace.columns[lever], column, stopsOf(trace, pull, straight));
  const lag = bothLags(found, recordedLag(instruments, lever, output));
  const later = ceil((3 * max(0, lag.lag)) / max(1e-9, sampleInterval(trace)));
  const { apply, plateau, wayBack, restAfter } = pull;
  const back = wayBack.to > wayBack.from;
  return {
    lever: lagged(time, trace.columns[lever], lag.lag),
    output: withoutJerks(trace, pull, lagged(time, column, -lag.lag), 3 * abs(lag.lag)),
    lag,
    pull: {
      ...pull,
      smooth: lagged(time, pull.smooth, lag.lag),
      apply: { from: apply.from, to: min(plateau.to, apply.to + later) },
      wayBack: back ? { from: wayBack.from, to: min(max(wayBack.to, restAfter.to), wayBack.to + later) } : wayBack,
    },
  };
}

/** A lever that moves so many times as quickly as on the whole of its way takes nothing with it that follows. */
const jerk = 4;
/** A speed of the moment is taken over so long, s, and a jerk is over so long after it. */
const momentOver = 0.1;
const jerkSettles = 0.15;

/** An output without what it did while the lever jerked, and `settles` seconds (s) after: missing samples there. */
function withoutJerks({ time }: Trace, pull: Pull, output: Float64Array, settles: number): Float64Array {
  const out = output.slice();
  const { smooth } = pull;
  for (const { from, to } of [pull.apply, pull.wayBack]) {
    if (to - from < fewestOnLine) continue;
    const usual =
      abs(smooth[min(to, smooth.length) - 1] - smooth[from]) / max(1e-9, time[min(to, time.length) - 1] - time[from]);
    let until = -Infinity;
    for (let i = from, before = from; i < to; i++) {
      while (time[i] - time[before] > momentOver && before + 1 < i) before++;
      const seconds = time[i] - time[before];
      if (seconds > 0 && abs(smooth[i] - smooth[before]) > jerk * usual * seconds)
        until = time[i] + jerkSettles + settles;
      if (time[i] <= until) out[i] = Number.NaN;
    }
  }
  return out;
}

/** A lag worth a word, s. */
const worthSaying = 0.03;

/** What was taken of an output's lag: what was taken off, or that nothing told it. */
export function lagNotes({ lag }: Pick<Following, 'lag'>, channel: string): AnalysisProblem[] {
  if (lag.standard >= unknownLag) return [{ code: 'lag-not-known', channel, allowed: 2 * lag.standard }];
  return abs(lag.lag) > max(worthSaying, 2 * lag.standard) ? [{ code: 'lag-taken-off', channel, lag: lag.lag }] : [];
}

/** Stretches around the moments at which the lever stopped or began on a straight line. */
function stopsOf(trace: Trace, pull: Pull, { topFrom, bottomTo, wayBackToo }: Straight): Stop[] {
  const { restBefore, apply, plateau, wayBack, restAfter, smooth } = pull;
  const at = (time: number) => indexAtTime(trace, time);
  const stops: Stop[] = [];
  const atTop = { from: plateau.from, to: min(plateau.to, at(trace.time[plateau.from] + afterStop)) };
  let from = plateau.from;
  while (from > apply.from && smooth[from - 1] > topFrom) from--;
  stops.push({ from: max(from, at(trace.time[plateau.from] - beforeStop)), to: atTop.to });
  if (wayBackToo && wayBack.to > wayBack.from) {
    let to = wayBack.from;
    while (to < wayBack.to && smooth[to] > topFrom) to++;
    stops.push({
      from: max(plateau.from, at(trace.time[wayBack.from] - afterStop)),
      to: min(to, at(trace.time[wayBack.from] + beforeStop)),
    });
  }
  if (bottomTo !== undefined) {
    let to = apply.from;
    while (to < apply.to && smooth[to] < bottomTo) to++;
    if (restBefore.to > restBefore.from)
      stops.push({
        from: max(restBefore.from, at(trace.time[apply.from] - afterStop)),
        to: min(to, at(trace.time[apply.from] + beforeStop)),
      });
    if (restAfter.to > restAfter.from && wayBack.to > wayBack.from) {
      let begins = wayBack.to;
      while (begins > wayBack.from && smooth[begins - 1] < bottomTo) begins--;
      const still = wayBack.to;
      stops.push({
        from: max(begins, at(trace.time[min(still, trace.time.length - 1)] - beforeStop)),
        to: min(restAfter.to, at(trace.time[min(still, trace.time.length - 1)] + afterStop)),
      });
    }
  }
  return stops;
}
