import { differenceComponents, differenceResolution, random, readingComponents } from '../../instruments/uncertainty';
import { fitLine } from '../../fitting/line';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type NoEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, saying, type Answered, type Question } from '../../procedure/question';
import type { StepContext } from '../../procedure/step-context';
import { scatterOf } from '../../traces/own-samples';
import type { Span } from '../../traces/pull';
import { movingMean } from '../../traces/smoothing';
import { findStrokes } from '../../traces/strokes';
import { columnOf, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { HydraulicBoostUnit } from './geometry';
import { lever } from './step-parts';

type Context = StepContext<HydraulicBoostUnit>;

/** No pump may stand against its dead end for longer, s. */
export const longestDeadHead = 5;
/** A relief is read where it was held for so long at least, s. */
const leastHeld = 0.5;

/** A pump that was shut off: where its pressure was within 3 % of its highest, and what flowed where it idled. */
interface DeadHeadFound {
  readonly trace: Trace;
  readonly shut: Span;
  /** The part of it in which the pressure is read. */
  readonly held: Span;
  readonly seconds: number;
  readonly peak: number;
  /** Whether hardly anything flowed meanwhile. */
  readonly shutOff: boolean;
  readonly idling: ReturnType<typeof meanOf> | null;
}

function findDeadHead(trace: Trace): DeadHeadFound | NoEvidence {
  const line = columnOf(trace, 'pump_pressure');
  const flow = columnOf(trace, 'flow');
  if (!line || !flow) return noEvidence({ code: 'channel-missing', channel: line ? 'flow' : 'pump_pressure' });
  const interval = sampleInterval(trace);
  const half = Math.max(1, Math.round(0.1 / interval));
  const smooth = movingMean(line, half);
  let peak = 0;
  for (let i = 0; i < smooth.length; i++) if (smooth[i] > smooth[peak]) peak = i;
  let from = peak;
  while (from > 0 && smooth[from - 1] > 0.97 * smooth[peak]) from--;
  let to = peak;
  while (to < smooth.length && smooth[to] > 0.97 * smooth[peak]) to++;
  return {
    trace,
    shut: { from, to },
    held: { from: from + Math.floor((to - from) / 3), to: to - 2 * half },
    seconds: (to - from) * interval,
    peak: smooth[peak],
    shutOff: isShutOff(flow, { from, to }),
    idling: idleFlow(trace, flow, smooth, { from, to }),
  };
}

const reliefQuestion: Question<Context, DeadHeadFound, DeadHeadFound> = {
  characteristics: ['relief-pressure'],
  happened: findDeadHead,
  shows: (found) =>
    found.seconds < leastHeld || !found.shutOff
      ? noEvidence({ code: 'relief-not-reached', peak: found.peak })
      : evidence(found),
  comesTo: ({ trace, shut, held: span }, context) => {
    const held = meanOf(trace.columns.pump_pressure, span.from, Math.max(shut.from + 2, span.to));
    const instrument = context.instruments.get('pump_pressure');
    const relief = measured('relief-pressure', held.mean, [
      random('noise', held.deviation / Math.sqrt(Math.max(1, held.count))),
      ...(instrument ? readingComponents(instrument, held.mean, context.date) : []),
    ]);
    return { characteristics: [relief], events: [], notes: reliefManner(trace, span, held.mean) };
  },
};

const idleQuestion: Question<Context, DeadHeadFound, { readonly idling: ReturnType<typeof meanOf> }> = {
  characteristics: ['pump-flow'],
  happened: findDeadHead,
  shows: ({ idling }) => (idling ? evidence({ idling }) : noEvidence({ code: 'never-idled' })),
  comesTo: ({ idling }, context) => {
    const meter = context.instruments.get('flow');
    const flow = measured('pump-flow', idling.mean, [
      random('noise', idling.deviation / Math.sqrt(Math.max(1, idling.count))),
      ...(meter ? readingComponents(meter, idling.mean, context.date) : []),
    ]);
    return { characteristics: [flow], events: [], notes: [] };
  },
};

/**
 * Relief pressure of a pump against its dead end (Pa gauge), and what it pumps where it idles (m3/s). Channels `pump_pressure`,
 * `flow`.
 */
export function analyseRelief(trace: Trace, context: Context): Answered {
  const found = findDeadHead(trace);
  const overrun: AnalysisProblem[] =
    'seconds' in found && found.seconds > longestDeadHead
      ? [{ code: 'charged-too-long', of: 'dead-head', seconds: found.seconds }]
      : [];
  return saying(joinAnswers([answer(reliefQuestion, trace, context), answer(idleQuestion, trace, context)]), overrun);
}

/** A line is shut while less than this share of the most that ever flowed goes through its meter. */
const shutBelow = 0.3;

/** Whether the pump's line was shut over a span: nothing much flowed. */
function isShutOff(flow: Float64Array, { from, to }: Span): boolean {
  const most = flow.reduce((highest, value) => (value > highest ? value : highest), 0);
  const third = Math.floor((to - from) / 3);
  return !(meanOf(flow, from + third, Math.max(from + 2, to - third)).mean > shutBelow * most);
}

/** A pump idles below this share of what its relief holds, so long after its start and before its line is shut, s. */
const idleBelow = 0.3;
const idleSettles = 1;
const leastIdle = 1;

/** Flow where the pump idles: before or after its line was shut, its pressure low and the pump turning; null where it never did. */
function idleFlow(trace: Trace, flow: Float64Array, pressure: Float64Array, shut: Span) {
  const high = idleBelow * pressure[shut.from];
  const kept = flow.map((value, i) => {
    const t = trace.time[i];
    const clear =
      t < trace.time[shut.from] - idleSettles / 2 || t > trace.time[Math.min(shut.to, flow.length - 1)] + idleSettles;
    return clear && pressure[i] < high && t - trace.time[0] > idleSettles ? value : Number.NaN;
  });
  // A pump that is still to start, or has stopped, pumps nothing: only what flows is idling.
  const most = kept.reduce((highest, value) => (value > highest ? value : highest), 0);
  const running = kept.map((value) => (value > most / 4 ? value : Number.NaN));
  const idling = meanOf(running);
  return idling.count * sampleInterval(trace) >= leastIdle ? idling : null;
}

/** A relief that creeps over this share of its pressure while held, or goes to and fro by it, is told of. */
const creepShare = 0.02;
const chatterShare = 0.03;

/** How a relief held: steadily, creeping, or chattering. */
function reliefManner(trace: Trace, span: Span, level: number): AnalysisProblem[] {
  if (span.to - span.from < 10) return [];
  const fit = fitLine(trace.time, trace.columns.pump_pressure, span);
  if (fit.termination !== 'converged') return [];
  const crept = Math.abs(fit.slope) * (trace.time[span.to - 1] - trace.time[span.from]);
  const chatter = 2 * Math.SQRT2 * fit.residual;
  return [
    ...(crept > creepShare * level ? [{ code: 'relief-creeps', by: crept } as const] : []),
    ...(chatter > chatterShare * level ? [{ code: 'relief-chatters', by: chatter } as const] : []),
  ];
}

/** A brake that asks for less than this share of the relief shows no starving. */
const boostedShare = 0.3;
/** The pump's line rises by this share of the relief when the wheel is held hard over. */
const steeringShows = 0.1;

/** Whether the pump's line rose while the brake was held. */
function steered(trace: Trace, hold: Span, relief: number): boolean {
  const line = columnOf(trace, 'pump_pressure');
  if (!line) return false;
  const half = Math.max(1, Math.round(0.2 / sampleInterval(trace)));
  const part = movingMean(line.subarray(hold.from, hold.to), half);
  let [low, high] = [Infinity, -Infinity];
  for (const value of part) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low > steeringShows * relief || low > (1 - 2 * steeringShows) * relief;
}

/** A brake that was held while somebody steered: what it was boosted by at first and at the least, Pa gauge. */
interface SteeringFound {
  readonly trace: Trace;
  readonly hold: Span;
  /** Boost once the foot had arrived. */
  readonly boosted: number;
  readonly before: number;
  readonly lowest: number;
  readonly steered: boolean;
}

const halfOf = (trace: Trace) => Math.max(1, Math.round(0.15 / sampleInterval(trace)));

function findSteering(trace: Trace, context: Context): SteeringFound | NoEvidence {
  const boost = columnOf(trace, 'boost_pressure');
  const force = columnOf(trace, lever);
  if (!boost || !force) return noEvidence({ code: 'channel-missing', channel: boost ? lever : 'boost_pressure' });
  const hold = findStrokes(trace, force).at(-1);
  if (!hold) return noEvidence({ code: 'no-hold', channel: lever, seconds: 4 });
  const half = halfOf(trace);
  const smooth = movingMean(boost, half);
  let lowest = Infinity;
  for (let i = hold.from + 2 * half; i < hold.to - half; i++) lowest = Math.min(lowest, smooth[i]);
  return {
    trace,
    hold,
    boosted: smooth[Math.min(hold.from + 3 * half, hold.to - 1)],
    before: meanOf(boost, hold.from, Math.min(hold.to, hold.from + 5 * half)).mean,
    lowest,
    steered: steered(trace, hold, context.unit.relief),
  };
}

const steeringQuestion: Question<Context, SteeringFound, SteeringFound> = {
  characteristics: ['boost-sag'],
  happened: findSteering,
  shows: (found, { unit }) => {
    const needed = boostedShare * unit.relief;
    if (!(found.boosted > needed))
      return noEvidence({ code: 'too-little-pressure', channel: 'boost_pressure', pressure: found.boosted, needed });
    // Nobody who does not steer starves the brake.
    return evidence(found, [], found.steered ? [] : [{ code: 'steering-not-seen' }]);
  },
  comesTo: ({ trace, before, lowest }, context) => {
    const instrument = context.instruments.get('boost_pressure');
    const sag = measured('boost-sag', before - lowest, [
      random('noise', (2 * scatterOf({ value: trace.columns.boost_pressure })) / Math.sqrt(halfOf(trace))),
      ...(instrument
        ? [differenceResolution(instrument), ...differenceComponents(instrument, lowest, before, context.date)]
        : []),
    ]);
    return { characteristics: [sag], events: [], notes: [] };
  },
};

/** By how much the boost of a held brake falls (Pa) while the wheel is held hard over. Channels `boost_pressure`, the pedal's force, `pump_pressure`. */
export function analyseSteering(trace: Trace, context: Context): Answered {
  return answer(steeringQuestion, trace, context);
}
