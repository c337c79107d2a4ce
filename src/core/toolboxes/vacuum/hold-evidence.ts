import { stuckProblem } from '../../procedure/stuck-problem';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import type { StepContext } from '../../procedure/step-context';
import { findPull, isPull } from '../../traces/pull';
import { ownSamples, sampleAt, type Samples } from '../../traces/own-samples';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { earliestCall } from './early-call';
import { findVacuumHold, type VacuumHoldEvents } from './hold-events';

const { max, min } = Math;

/** What a vacuum hold is asked to show. */
export interface HoldDemand {
  /** Time over which the loss is stated, s. */
  readonly seconds: number;
  /** Vacuum that the source is to give here, Pa; the hold starts from four fifths of it at least. */
  readonly supplyVacuum: number;
  readonly leverChannel: string;
  /** Level of the lever (SI) at which the unit is fully applied; null for a hold at rest. */
  readonly appliedLevel: number | null;
  /** Level of the lever (SI) that would apply it, for a hold at rest. */
  readonly appliesAt: number;
}

/** A hold that may be judged: samples from where it has settled to where it ends, at most its full time. */
export interface HeldVacuum {
  readonly events: VacuumHoldEvents;
  /** s, in the trace's clock. */
  readonly from: number;
  readonly to: number;
  /** Less than the full time: what the full time would show is predicted. */
  readonly early: boolean;
}

/** The source counts as never opened below this, Pa, and as too weak below this share of what it should give. */
const noVacuum = 2_000;
const leastShare = 0.8;
/** A lever at rest stays below this share of what applies the unit; applied it stays above that share. */
const restShare = 0.08;
const appliedShare = 0.8;
/** A lever whose lowest reading is this many times what counts as rest was held from first to last. */
const heldThroughout = 3;
/** Left off after the source was shut or the lever arrived: valves that move, the first of the settling, s. */
const settling = 0.5;
const afterLever = 1;
/** What goes while that is waited for counts where it is more than this share of the level. */
const goesAtOnce = 0.05;
/** A hold that covers this share of its time is judged by its fit, a shorter one by what it is predicted to reach. */
const fullShare = 0.95;
/** A hold that was ended early misses its earliest call by no more than a sample or two, s. */
const shortBy = 0.1;
/** A gap longer than this share of the hold leaves too much unseen. */
const longestGapShare = 0.3;
/** Samples without which no line can be told from noise. */
const fewestSamples = 8;

/** Where the lever was: as the hold asks from when on and until when (s), or why not. */
export type LeverState =
  | { readonly kind: 'fits'; readonly notBefore: number; readonly leaves: number | null }
  | { readonly kind: 'problem'; readonly problem: AnalysisProblem };

/** What happened in a vacuum hold: to the lever and to the vacuum. */
export interface VacuumHoldFound {
  readonly lever: LeverState;
  /** Null where the vacuum was not recorded for long enough to tell. */
  readonly events: VacuumHoldEvents | null;
}

export function findHold(
  trace: Trace,
  context: StepContext<unknown>,
  demand: HoldDemand,
): VacuumHoldFound | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const lever = leverState(trace, demand);
  if (lever.kind === 'problem') return { lever, events: null };
  const range = context.instruments.get('supply_vacuum')?.range ?? null;
  const events = findVacuumHold(trace, supply, { notBefore: lever.notBefore, leverLeaves: lever.leaves, range });
  return { lever, events };
}

/** Whether that is evidence of a vacuum hold: under vacuum, shut off, at rest or applied as asked, measured and long enough. */
export function vacuumHoldEvidence({ lever, events }: VacuumHoldFound, demand: HoldDemand): Judged<HeldVacuum> {
  if (lever.kind === 'problem') return noEvidence(lever.problem);
  if (!events) return noEvidence({ code: 'hold-too-short', seconds: 0, needed: earliestCall(demand.seconds) });
  // A lever that had left its place before the hold began was not there in it.
  if (lever.leaves !== null && lever.leaves <= events.from)
    return noEvidence(demand.appliedLevel === null ? { code: 'not-at-rest' } : { code: 'lever-moved', after: 0 });
  const missing = gaugeProblem(events) ?? sourceProblem(events);
  if (missing) return noEvidence(missing);

  const begins = settledFrom(events);
  const to = min(events.to, begins + demand.seconds);
  const covered = max(0, to - begins);
  const needed = min(fullShare * demand.seconds, earliestCall(demand.seconds));
  if (covered < needed - shortBy) return noEvidence(tooShort(events, covered, needed));
  const count = events.samples.time.filter((t) => t >= begins && t <= to).length;
  if (count < fewestSamples)
    return noEvidence({ code: 'too-few-samples', channel: 'supply_vacuum', samples: count, needed: fewestSamples });
  if (events.gap > longestGapShare * covered)
    return noEvidence({ code: 'gap-in-hold', channel: 'supply_vacuum', seconds: events.gap });
  const early = covered < fullShare * demand.seconds;
  const enough = leastShare * demand.supplyVacuum;
  // Less vacuum leaks less: what it loses may fail, what it keeps proves little.
  const doubts: AnalysisProblem[] =
    events.level < enough ? [{ code: 'too-little-vacuum', vacuum: events.level, needed: enough }] : [];
  return evidence({ events, from: begins, to, early }, notesOf(events, demand, covered), doubts);
}

/** What keeps the gauge from having measured the hold. */
function gaugeProblem(events: VacuumHoldEvents): AnalysisProblem | null {
  if (events.neverMoved) return { code: 'gauge-never-moved', channel: 'supply_vacuum' };
  const { stuck } = events;
  if (!stuck || stuck.to <= events.from || stuck.from >= events.to) return null;
  return stuckProblem(stuck, 'supply_vacuum');
}

/** What keeps the trace from showing that the unit was put under vacuum and shut off. */
function sourceProblem(events: VacuumHoldEvents): AnalysisProblem | null {
  if (events.level < noVacuum) return { code: 'source-never-opened', vacuum: events.level };
  if (events.drawnAt !== null && !events.departs) return { code: 'source-not-seen-shut' };
  return null;
}

/** Where the hold is judged from: a moment after the source was shut, unless much of the vacuum went in that moment. */
function settledFrom({ departs, from, samples, level }: VacuumHoldEvents): number {
  if (!departs || !(from > samples.time[0])) return from;
  const after = samples.value[min(samples.time.length - 1, sampleAt(samples, from + settling))];
  return level - after > goesAtOnce * level ? from : from + settling;
}

function tooShort(events: VacuumHoldEvents, seconds: number, needed: number): AnalysisProblem {
  switch (events.endedBy.kind) {
    case 'recovers':
      return { code: 'source-reopened', after: seconds };
    case 'collapses':
      return { code: 'vacuum-collapsed', after: seconds };
    case 'lever-moves':
      return { code: 'lever-moved', after: seconds };
    case 'log-ends':
      return { code: 'hold-too-short', seconds, needed };
  }
}

function notesOf(events: VacuumHoldEvents, demand: HoldDemand, covered: number): AnalysisProblem[] {
  const notes: AnalysisProblem[] = [];
  if (!events.departs && events.drawnAt === null) notes.push({ code: 'begins-in-hold' });
  if (covered < fullShare * demand.seconds) {
    notes.push({ code: 'called-early', at: covered, of: demand.seconds });
    if (events.endedBy.kind !== 'log-ends') notes.push(tooShort(events, covered, demand.seconds));
  }
  return notes;
}

/** Where the lever was: at rest or applied as the hold asks, from when on, and until when. */
function leverState(trace: Trace, demand: HoldDemand): LeverState {
  const column = columnOf(trace, demand.leverChannel);
  if (demand.appliedLevel === null) {
    if (!column) return { kind: 'fits', notBefore: trace.time[0], leaves: null };
    return atRest(ownSamples(trace, column), restShare * demand.appliesAt);
  }
  if (!column) return { kind: 'problem', problem: { code: 'not-seen-applied', channel: demand.leverChannel } };
  return applied(trace, column, demand.leverChannel, appliedShare * demand.appliedLevel);
}

function atRest({ time, value }: Samples, band: number): LeverState {
  const zero = value.length > 0 ? value.reduce((least, each) => min(least, each), Infinity) : 0;
  // A gauge's own zero is small; a lever that was never lower than that was held.
  if (zero > heldThroughout * band) return { kind: 'problem', problem: { code: 'not-at-rest' } };
  const moves = lastingIndex(time, (i) => value[i] - zero > band);
  if (moves === null) return { kind: 'fits', notBefore: time[0] ?? 0, leaves: null };
  if (moves > 0) return { kind: 'fits', notBefore: time[0], leaves: time[moves] };
  const home = lastingIndex(time, (i) => value[i] - zero <= band);
  return home === null
    ? { kind: 'problem', problem: { code: 'not-at-rest' } }
    : { kind: 'fits', notBefore: time[home] + afterLever, leaves: null };
}

function applied(trace: Trace, column: Float64Array, channel: string, least: number): LeverState {
  const { time, value } = ownSamples(trace, column);
  const begins = lastingIndex(time, (i) => value[i] >= least);
  if (begins === null) {
    const peak = value.reduce((most, each) => max(most, each), -Infinity);
    return { kind: 'problem', problem: { code: 'not-applied', channel, peak, needed: least } };
  }
  const pull = findPull(trace, column);
  const arrives = isPull(pull) ? trace.time[pull.plateau.from] : time[begins];
  const after = time.findIndex((t) => t >= arrives);
  const leaves = lastingIndex(time, (i) => i >= after && value[i] < least);
  // A log that begins with the lever held has nothing to leave off.
  const moved = arrives > time[0];
  return {
    kind: 'fits',
    notBefore: moved ? arrives + afterLever : time[0],
    leaves: leaves === null ? null : time[leaves],
  };
}

/** First sample from which something holds for a fifth of a second (or to the end); null where it never does. */
function lastingIndex(time: Float64Array, holds: (index: number) => boolean): number | null {
  for (let i = 0; i < time.length; i++) {
    if (!holds(i)) continue;
    let j = i;
    while (j < time.length && time[j] - time[i] < 0.2 && holds(j)) j++;
    if (j >= time.length || time[j] - time[i] >= 0.2) return i;
    i = j;
  }
  return null;
}
