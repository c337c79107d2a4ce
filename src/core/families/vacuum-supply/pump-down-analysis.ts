import { stuckProblem } from '../../procedure/stuck-problem';
import { fitLine } from '../../fitting/line';
import { fitExponentialDecay } from '../../fitting/decay';
import { random, systematic } from '../../instruments/uncertainty';
import { ambientStandard } from '../../quantities/standard-atmosphere';
import { longestGap, ownSamples, samplesBetween, type Samples } from '../../traces/own-samples';
import { movingMean } from '../../traces/smoothing';
import { findStuck, type Stuck } from '../../traces/stuck';
import { columnOf, sampleInterval, type Trace } from '../../traces/trace';
import { measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import { gaugeAt, sensorNotes, volumeOf, volumeShare, type Context } from './supply-context';

/** Vacuum from which a pump-down counts as begun, as a share of its highest. */
const begun = 0.03;

/** A draw as the trace shows it; vacuums in Pa. */
interface DrawFound {
  readonly trace: Trace;
  readonly samples: Samples;
  readonly highest: number;
  /** First sample of the draw, and the first after it. */
  readonly from: number;
  readonly to: number;
  readonly stuck: Stuck | null;
}

/** A draw that its exponential fits over long enough. */
interface ShownDraw {
  readonly trace: Trace;
  readonly from: number;
  readonly drawn: Samples;
  readonly fit: Extract<ReturnType<typeof fitExponentialDecay>, { kind: 'exponential' }>;
}

function findPumpDown(trace: Trace, context: Context): DrawFound | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const smooth = movingMean(supply, Math.max(1, Math.round(0.05 / sampleInterval(trace))));
  let highest = 0;
  for (const value of smooth) highest = Math.max(highest, value);
  let from = 0;
  while (from < smooth.length && !(smooth[from] >= begun * highest)) from++;
  const samples = ownSamples(trace, supply);
  const stuck = findStuck(samples, context.instruments.get('supply_vacuum')?.range ?? null);
  return { trace, samples, highest, from, to: drawnUntil(trace, smooth, from, highest), stuck };
}

function pumpDownEvidence({ trace, samples, highest, from, to, stuck }: DrawFound): Judged<ShownDraw> {
  if (highest < 2_000) return noEvidence({ code: 'nothing-builds', vacuum: highest });
  if (from === 0) return noEvidence({ code: 'no-draw' });
  if (stuck && stuck.from > trace.time[from]) return noEvidence(stuckProblem(stuck, 'supply_vacuum'));
  const covered = trace.time[to - 1] - trace.time[from];
  const gap = longestGap(samples, trace.time[from], trace.time[to - 1]);
  if (gap > longestGapShare * covered)
    return noEvidence({ code: 'gap-in-pull', channel: 'supply_vacuum', seconds: gap });
  const drawn = samplesBetween(samples, trace.time[from], trace.time[to - 1]);
  const fit = fitExponentialDecay(drawn.time, drawn.value);
  if (fit.termination !== 'converged' || fit.kind !== 'exponential' || fit.tau <= 0)
    return noEvidence({ code: 'fit-failed', termination: fit.termination });
  if (covered < 1.5 * fit.tau) return noEvidence({ code: 'not-settled', rate: (fit.settled - highest) / fit.tau });
  return evidence({ trace, from, drawn, fit });
}

const pumpDown: Question<Context, DrawFound, ShownDraw> = {
  characteristics: ['pump-speed', 'ultimate-pressure', 'draw-time'],
  happened: findPumpDown,
  shows: pumpDownEvidence,
  comesTo: ({ trace, from, drawn, fit }, context) => {
    const settled = settledOf(drawn, fit);
    const speed = volumeOf(context) / timeConstantOf(drawn, settled);
    const tauShare = Math.sqrt(Math.max(0, fit.tauVariance)) / fit.tau;
    // From the atmosphere, where the exponential would have begun, not from the first sample.
    const start = trace.time[from] - fit.tau * Math.log((fit.settled - 0) / (fit.settled - fit.start));
    const reaches = drawTime(drawn, settled, start);
    return {
      characteristics: [
        measured('pump-speed', speed, [
          random('fit', speed * tauShare),
          systematic('volume', speed * volumeShare),
          systematic('gas-heat', speed * Math.hypot(heatShare(drawn, settled), settledShare(drawn, settled))),
        ]),
        measured('ultimate-pressure', context.ambient.pressure - settled.vacuum, [
          random('fit', settled.fitted),
          systematic('gas-heat', settled.heat),
          ...gaugeAt(settled.vacuum, context),
          // What the gauge shows is a difference: the air itself is no better known.
          systematic('gauge-zero', ambientStandard(context.ambient)),
        ]),
        measured('draw-time', reaches.seconds, [
          random('fit', reaches.standard),
          random('timing', Math.max(sampleInterval(trace), Math.abs(trace.time[from] - start) * 0.1)),
        ]),
      ],
      events: [],
      notes: sensorNotes(trace),
      vacuum: settled.vacuum,
    };
  },
};

/**
 * Pump-down: p(t) = p_u + (p_0 − p_u)·exp(−S·t/Vol) fitted from where the vacuum leaves zero. Gives the pump's speed S
 * (m3/s, free air at its inlet), its ultimate pressure p_u (Pa absolute) and the time to 95 % of the settled vacuum (s).
 * Channel `supply_vacuum`; `pump_on` tells whether it was called for.
 */
export function analysePumpDown(trace: Trace, context: Context): Answered {
  return answer(pumpDown, trace, context);
}

/** Vacuum that a draw settles at (Pa), with what the fit and the warming of the air leave unknown of it, one sigma. */
interface SettledVacuum {
  readonly vacuum: number;
  readonly fitted: number;
  readonly heat: number;
  /** s, of the later part of the draw. */
  readonly tau: number;
}

/** A fit to the rest of a draw needs so many of its time constants. */
const leastRest = 1.5;

/**
 * Where a draw settles. Its beginning is quicker than its rest (air drawn off cools, and warms later), so that one
 * exponential through the whole bends down too early: what it settles at is read from the rest, begun half a time constant
 * on, and what it changes by when begun later still is not known of it.
 */
function settledOf(
  drawn: Samples,
  whole: { readonly tau: number; readonly settled: number; readonly settledVariance: number },
): SettledVacuum {
  const { time, value } = drawn;
  const last = time[time.length - 1];
  const restFrom = (timeConstants: number) => {
    const begin = time[0] + timeConstants * whole.tau;
    if (last - begin < leastRest * whole.tau) return null;
    const rest = samplesBetween(drawn, begin, last);
    const fit = fitExponentialDecay(rest.time, rest.value);
    return fit.termination === 'converged' && fit.kind === 'exponential' && fit.tau > 0 ? fit : null;
  };
  const highest = value.reduce((most, each) => Math.max(most, each), 0);
  const fitted = (variance: number) => Math.sqrt(Math.max(0, variance));
  const rest = restFrom(0.5);
  if (!rest) {
    // Too little of it was seen: it may settle anywhere between what was reached and half as far again.
    const heat = Math.max(0, whole.settled - highest) / Math.sqrt(3);
    return { vacuum: whole.settled, fitted: fitted(whole.settledVariance), heat, tau: whole.tau };
  }
  const later = restFrom(1);
  const heat = Math.hypot((later ?? whole).settled - rest.settled, rest.settled * settlingShare(rest.tau));
  return { vacuum: rest.settled, fitted: fitted(rest.settledVariance), heat, tau: rest.tau };
}

/**
 * Time constant (s) of a draw by its beginning and where two time constants of its rest are over: the air has left cold and
 * warmed again by then, so that heat has done its most and given nearly all of it back.
 */
function timeConstantOf({ time, value }: Samples, settled: SettledVacuum): number {
  const smooth = movingMean(value, 3);
  const end = time.findIndex((each) => each >= time[0] + 2 * settled.tau);
  const at = end < 0 ? time.length - 1 : end;
  const [first, last] = [settled.vacuum - smooth[0], settled.vacuum - smooth[at]];
  return first > 0 && last > 0 && first > last ? (time[at] - time[0]) / Math.log(first / last) : settled.tau;
}

/**
 * What is not known of where a draw settles, as a share of its time constant, one sigma: one that would settle higher is slower.
 */
function settledShare(drawn: Samples, settled: SettledVacuum): number {
  const unknown = Math.hypot(settled.fitted, settled.heat);
  const [usual, slower] = [settled.vacuum, settled.vacuum + unknown].map((vacuum) =>
    timeConstantOf(drawn, { ...settled, vacuum }),
  );
  return Math.abs(slower / usual - 1);
}

/** Share of the settled vacuum up to which a draw is timed. */
const drawnShare = 0.95;

/** Time (s) from `start` to where the vacuum reaches 95 % of the settled one: read in the trace, or carried on to there. */
function drawTime(
  { time, value }: Samples,
  settled: SettledVacuum,
  start: number,
): { seconds: number; standard: number } {
  const target = drawnShare * settled.vacuum;
  const last = value.length - 1;
  const smooth = movingMean(value, 5);
  const reached = smooth.findIndex((each) => each >= target);
  const open = settled.vacuum - target;
  const at =
    reached >= 0
      ? time[reached]
      : time[last] + settled.tau * Math.log(Math.max(1, (settled.vacuum - smooth[last]) / open));
  // What is not known of the settled vacuum moves the crossing by its share of the slope there.
  const unknown = Math.hypot(settled.fitted, settled.heat) * (1 - drawnShare);
  const slope = open / settled.tau;
  const carried = reached >= 0 ? 0 : 0.1 * (at - time[last]);
  return {
    seconds: at - start,
    standard: Math.hypot((unknown + drawnShare * settled.fitted) / slope, (drawnShare * settled.heat) / slope, carried),
  };
}

/** A draw that lost this share of its highest again was vented, or the pump was stopped. */
const ventedShare = 0.04;
const longestGapShare = 0.2;

/** First sample after a draw: where the vacuum goes again, or the trace ends. */
function drawnUntil(trace: Trace, smooth: Float64Array, from: number, highest: number): number {
  let peak = 0;
  for (let i = from; i < smooth.length; i++) {
    peak = Math.max(peak, smooth[i] || 0);
    if (peak > 0.5 * highest && smooth[i] < peak - ventedShare * highest) {
      // Back to where it began to go.
      let at = i;
      while (at > from && smooth[at - 1] >= smooth[at]) at--;
      return Math.max(from + 1, at);
    }
  }
  return trace.time.length;
}

/** Air in a closed shell takes on its walls' temperature within this, s: still air along the walls gives 3 W/(m2·K) or more. */
const exchangesWithin = 6;
/** What a draw without any heat from the walls does to a speed, less one: the ratio of specific heats. */
const adiabatic = 0.4;
/** The two points of a draw and the shape of its rest still leave this much, as a share. */
const heatLeft = 0.01;

/**
 * What heat may make of a speed, one sigma as a share: gas that is drawn off quickly cools and seems to be drawn 1.4 times as
 * fast (adiabatic), slowly it keeps its shell's temperature. Nothing in a quick draw tells the two apart, so that only its time
 * constant (s) says how much it may be; in a slower one heat that matters also bends it, and one that is straight had none.
 * Shape: what draws of the first law (`exchangeAir`) with walls of 3 to 100 W/(m2·K) give.
 */
function heatShare(drawn: Samples, settled: SettledVacuum): number {
  const { tau } = settled;
  const most = mostHeat(tau);
  const seen = tau < tellsFrom ? 1 : Math.min(1, bendOf(drawn, settled) / bendOfHeat);
  return Math.hypot(most * seen, heatLeft);
}

/** The most that heat may make of the speed of a draw by its time constant (s), one sigma as a share. */
const mostHeat = (tau: number) => (adiabatic * Math.exp(-((tau / (0.5 * exchangesWithin)) ** 1.5))) / Math.sqrt(3);

/** The same of a draw that was read too coarsely to show a bend. */
export const heatLeftOfDraw = (tau: number): number => Math.hypot(mostHeat(tau), heatLeft);

/** From this time constant on (s) heat shows as a bend of so much. */
const tellsFrom = 2;
const bendOfHeat = 0.1;

/** By what share the beginning of a draw is quicker than its rest, with twice what the scatter makes of it. */
function bendOf({ time, value }: Samples, { vacuum, tau }: SettledVacuum): number {
  const left = value.map((each) => Math.log(Math.max(1e-3, 1 - each / vacuum)));
  const piece = (from: number, to: number) =>
    fitLine(time, left, { keep: (i) => time[i] - time[0] >= from * tau && time[i] - time[0] < to * tau });
  const [early, late] = [piece(0, 0.8), piece(0.8, 2)];
  if (early.termination !== 'converged' || late.termination !== 'converged') return Infinity;
  const scatter = Math.hypot(Math.sqrt(early.slopeVariance) / early.slope, Math.sqrt(late.slopeVariance) / late.slope);
  return Math.abs(early.slope / late.slope - 1) + 2 * scatter;
}

/** The same for where a draw settles, as a share of its vacuum: air that still warms seems to settle at less. */
export function settlingShare(tau: number): number {
  return (0.023 * Math.exp(-((tau / (0.6 * exchangesWithin)) ** 2))) / Math.sqrt(3);
}
