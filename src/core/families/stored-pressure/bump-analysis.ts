import { differenceComponents, differenceResolution, random } from '../../instruments/uncertainty';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepContext } from '../../procedure/step-context';
import { stuckProblem } from '../../procedure/stuck-problem';
import { ownSamples } from '../../traces/own-samples';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { findStuck, type Stuck } from '../../traces/stuck';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { lever } from './step-parts';

const { abs, max, round, sqrt } = Math;

/** A body that moved by more than this was driven over something, m. */
const bumpShows = 8e-3;
/** Time before and after a movement of the body that belongs to it, s; time after a stroke in which the brake still empties. */
const around = 1;
const emptiesWithin = 1.5;
/** Share of the body's movement in which the foot must be off. */
const leastUncovered = 0.8;
/** A foot is on the pedal above this, N. */
const footOn = 15;
/** A gauge that moved by so many times what a bump may give was seen to work; and by more than so much of its noise. */
const aliveTimes = 2;
const aliveNoise = 10;

/** Samples within `seconds` of one that `is` so. */
function near(trace: Trace, seconds: readonly [number, number], is: (i: number) => boolean): boolean[] {
  const marked = new Array<boolean>(trace.time.length).fill(false);
  let last = -Infinity;
  for (let i = 0; i < marked.length; i++) {
    if (is(i)) last = trace.time[i];
    if (trace.time[i] - last <= seconds[1]) marked[i] = true;
  }
  let next = Infinity;
  for (let i = marked.length - 1; i >= 0; i--) {
    if (is(i)) next = trace.time[i];
    if (next - trace.time[i] <= seconds[0]) marked[i] = true;
  }
  return marked;
}

/** What a brake's gauge showed while a vehicle was driven over a bump; pressures Pa gauge. */
interface BumpFound {
  readonly trace: Trace;
  readonly stuck: Stuck | null;
  /** Whether the body's height was recorded: without it nobody can tell where the bump was. */
  readonly heightSeen: boolean;
  /** Share of the body's movement in which the foot was off. */
  readonly uncovered: number;
  /** Pressure at rest, the highest with the foot off over the bump, and how far it ever went from rest. */
  readonly zero: number;
  readonly peak: number;
  readonly furthest: number;
  readonly noise: number;
}

function findBump(trace: Trace, context: StepContext<unknown>): BumpFound | NoEvidence {
  const front = columnOf(trace, 'front_pressure');
  if (!front) return noEvidence({ code: 'channel-missing', channel: 'front_pressure' });
  const height = columnOf(trace, 'ride_height');
  const pedal = columnOf(trace, lever);
  if (!height && !pedal) return noEvidence({ code: 'channel-missing', channel: lever });
  const pressed = pedal ? near(trace, [0.2, emptiesWithin], (i) => pedal[i] > footOn) : null;
  const level = height ? middleOf(height) : 0;
  const shows = (i: number) => height !== undefined && abs(height[i] - level) > bumpShows;
  const moved = height ? near(trace, [around, around], shows) : null;
  const still = (i: number) => !pressed?.[i] && !moved?.[i];
  const over = (i: number) => !pressed?.[i] && (moved?.[i] ?? true);
  const smooth = movingMean(front, max(1, round(0.05 / sampleInterval(trace))));
  const rest = meanOf(Float64Array.from(front, (each, i) => (still(i) || !moved ? each : Number.NaN)));
  const zero = moved ? rest.mean : middleOf(Float64Array.from(front, (each, i) => (pressed?.[i] ? Number.NaN : each)));
  let [peak, furthest] = [-Infinity, 0];
  for (let i = 0; i < smooth.length; i++) {
    if (Number.isNaN(smooth[i])) continue;
    furthest = max(furthest, smooth[i] - zero);
    if (over(i)) peak = max(peak, smooth[i]);
  }
  const body = height ? [...height.keys()].filter(shows) : [];
  return {
    trace,
    stuck: findStuck(ownSamples(trace, front), context.instruments.get('front_pressure')?.range ?? null),
    heightSeen: height !== undefined,
    uncovered: body.filter((i) => !pressed?.[i]).length / max(1, body.length),
    zero,
    peak,
    furthest,
    noise: noiseOf(front),
  };
}

/** Whether that is a bump with the foot off, on a gauge that was seen to work; `most` is what a sound one gives, Pa. */
function bumpEvidence(found: BumpFound, most: number): Judged<BumpFound> {
  const { stuck, heightSeen, uncovered, zero, peak, furthest, noise } = found;
  if (stuck) return noEvidence(stuckProblem(stuck, 'front_pressure'));
  // A wheel's push that a braking foot covers shows nothing.
  if (heightSeen && uncovered < leastUncovered) return noEvidence({ code: 'bump-not-seen' });
  if (!Number.isFinite(peak) || Number.isNaN(zero)) return noEvidence({ code: 'bump-not-seen' });
  const doubts: AnalysisProblem[] = [];
  if (!heightSeen) doubts.push({ code: 'bump-not-seen' });
  if (furthest < max(aliveTimes * most, aliveNoise * noise))
    doubts.push({ code: 'gauge-never-moved', channel: 'front_pressure' });
  return evidence(found, [], doubts);
}

/**
 * Highest brake pressure (Pa gauge, less that at rest) while the vehicle goes over a bump with the foot off the brake. The bump is
 * where `ride_height` moves; without that column every part with the foot off counts, and a pass does not. The gauge must have
 * been seen to work, by a stroke of the brake in the same trace. Channels `front_pressure`, `pedal_force`, `ride_height`.
 */
export function analyseBump(trace: Trace, context: StepContext<unknown>, most: number): Answered {
  const question: Question<StepContext<unknown>, BumpFound, BumpFound> = {
    characteristics: ['bump-pressure'],
    happened: findBump,
    shows: (found) => bumpEvidence(found, most),
    comesTo: ({ trace: read, zero, peak, noise }) => {
      const instrument = context.instruments.get('front_pressure');
      const pressure = measured('bump-pressure', peak - zero, [
        random('noise', (2 * noise) / sqrt(max(1, round(0.1 / sampleInterval(read))))),
        ...(instrument
          ? [differenceResolution(instrument), ...differenceComponents(instrument, zero, peak, context.date)]
          : []),
      ]);
      return { characteristics: [pressure], events: [], notes: [] };
    },
  };
  return answer(question, trace, context);
}

/** Median of a column's readings. */
function middleOf(column: Float64Array): number {
  const sorted = column.filter((value) => !Number.isNaN(value)).sort();
  return sorted[sorted.length >> 1] ?? Number.NaN;
}
