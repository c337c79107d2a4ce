import { fitTracking, type TrackingFit } from '../../fitting/first-order-tracking';
import { fitLine } from '../../fitting/line';
import {
  differenceComponents,
  random,
  readingComponents,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, type Answered, type Question } from '../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import type { CharacteristicId } from '../../quantities/characteristics';
import { ownInterval, ownSamples, sampleAt, samplesBetween, scatterOf, type Samples } from '../../traces/own-samples';
import { integrated, largestWindow } from '../../traces/time-mean';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { gaugeLag } from './gauge-doubt';
import { wheels, type ByWireUnit, type Wheel } from './geometry';
import { plateausOf, stepsBetween, type Plateau, type TargetStep } from './plateaus';

type Context = StepContext<ByWireUnit>;

const { abs, hypot, max, min, sqrt } = Math;

/** What is held is the mean over so long at the end of a plateau, s. */
const heldSeconds = 0.5;
/** Below this rate neither times nor overshoot can be told, Hz. */
const slowest = 50;
/** An overshoot is the largest mean over so long, s. */
const overshootSeconds = 0.02;
/** A target that never passes this share of hard braking asks for nothing. */
const leastTarget = 0.05;
/** A line through fewer plateaus is none; they must differ by this share of the largest. */
const fewestPlateaus = 3;
const spreadShare = 0.3;

export function trackingIds(wheel: Wheel) {
  return [
    `tracking-gain@${wheel}`,
    `steady-error@${wheel}`,
    `dead-time@${wheel}`,
    `lag@${wheel}`,
    `overshoot@${wheel}`,
  ] as const satisfies readonly CharacteristicId[];
}

/** One wheel behind its target, Pa gauge. */
interface Followed {
  readonly wheel: Wheel;
  readonly target: Samples;
  readonly pressure: Samples;
  readonly plateaus: readonly Plateau[];
  readonly steps: readonly TargetStep[];
  readonly largest: number;
}

/** What a wheel held at a plateau: target and pressure, and one sigma of that mean, Pa. */
interface Held {
  readonly target: number;
  readonly pressure: number;
  readonly standard: number;
}

function findFollowed(trace: Trace, wheel: Wheel): Followed | NoEvidence {
  const [targetAt, pressureAt] = [`target_pressure_${wheel}`, `wheel_pressure_${wheel}`];
  const [targetColumn, pressureColumn] = [columnOf(trace, targetAt), columnOf(trace, pressureAt)];
  if (!targetColumn) return noEvidence({ code: 'channel-missing', channel: targetAt });
  if (!pressureColumn) return noEvidence({ code: 'channel-missing', channel: pressureAt });
  const [target, pressure] = [ownSamples(trace, targetColumn), ownSamples(trace, pressureColumn)];
  const plateaus = target.time.length > 1 ? plateausOf(target) : [];
  return {
    wheel,
    target,
    pressure,
    plateaus,
    steps: stepsBetween(plateaus),
    largest: target.value.reduce((most, value) => max(most, value), 0),
  };
}

function followedEvidence(found: Followed, { unit }: Context): Judged<Followed> {
  const channel = `wheel_pressure_${found.wheel}`;
  const { length } = found.pressure.time;
  if (length < 10) return noEvidence({ code: 'too-few-samples', channel, samples: length, needed: 10 });
  const needed = leastTarget * unit.working;
  if (found.largest < needed)
    return noEvidence({
      code: 'not-applied',
      channel: `target_pressure_${found.wheel}`,
      peak: found.largest,
      needed,
    });
  return evidence(found);
}

/** Mean of a channel that stands at each sample until the next, by its samples from `from` to before `to`; NaN without any. */
function heldMean({ time, value }: Samples, from: number, to: number): number {
  let [sum, count] = [0, 0];
  for (let i = sampleAt({ time }, from); i < time.length && time[i] < to; i++) {
    sum += value[i];
    count++;
  }
  return count > 0 ? sum / count : Number.NaN;
}

/** What was held at every plateau that lasted; a plateau with no reading of the wheel is left out. */
function heldAt({ plateaus, target, pressure }: Followed): readonly Held[] {
  const ofPressure = integrated(pressure);
  const scatter = scatterOf(pressure);
  return plateaus.flatMap(({ to }): Held[] => {
    const from = to - heldSeconds;
    const [asked, got] = [heldMean(target, from, to), ofPressure.mean(from, to)];
    if (!Number.isFinite(asked) || !Number.isFinite(got)) return [];
    const count = samplesBetween(pressure, from, to).time.length;
    // What still moves at the end of a plateau is not held yet.
    const drift = ofPressure.mean(to - heldSeconds / 2, to) - ofPressure.mean(from, from + heldSeconds / 2);
    const unsettled = Number.isFinite(drift) ? max(0, abs(drift) - (4 * scatter) / sqrt(max(1, count / 2))) : 0;
    return [{ target: asked, pressure: got, standard: hypot(scatter / sqrt(max(1, count)), unsettled) }];
  });
}

function partsAt(wheel: Wheel, value: number, context: Context): readonly UncertaintyComponent[] {
  const gauge = context.instruments.get(`wheel_pressure_${wheel}`);
  return gauge ? readingComponents(gauge, value, context.date) : [];
}

function gainOf(wheel: Wheel, held: readonly Held[], context: Context): Characteristic {
  const id = `tracking-gain@${wheel}` as const;
  const targets = held.map((each) => each.target);
  const spread = max(...targets) - min(...targets);
  if (held.length < fewestPlateaus || !(spread > spreadShare * max(...targets)))
    return absent(id, { code: 'too-few-levels', found: held.length, needed: fewestPlateaus });
  const line = fitLine(
    targets,
    held.map((each) => each.pressure),
  );
  if (line.termination !== 'converged') return absent(id, { code: 'fit-failed', termination: line.termination });
  const mean = targets.reduce((sum, each) => sum + each, 0) / targets.length;
  const squares = targets.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  // Of the means' own noise, and where they lie off their line by clearly more than that, of what they do.
  const own = sqrt(held.reduce((sum, each, at) => sum + ((targets[at] - mean) * each.standard) ** 2, 0)) / squares;
  const seen = sqrt(line.slopeVariance);
  const gauge = context.instruments.get(`wheel_pressure_${wheel}`);
  const parts = gauge ? differenceComponents(gauge, 0, spread, context.date) : [];
  return measured(id, line.slope, [
    random('fit', seen > 3 * own ? seen : own),
    systematic('gauge-gain', (abs(line.slope) * hypot(...parts.map((part) => part.standard))) / spread),
  ]);
}

function steadyErrorOf(wheel: Wheel, held: readonly Held[], context: Context): Characteristic {
  const id = `steady-error@${wheel}` as const;
  if (held.length === 0) return absent(id, { code: 'too-few-levels', found: 0, needed: 1 });
  const worst = held.reduce((p, q) => (abs(q.pressure - q.target) > abs(p.pressure - p.target) ? q : p));
  return measured(id, abs(worst.pressure - worst.target), [
    random('noise', worst.standard),
    ...partsAt(wheel, worst.pressure, context),
  ]);
}

function timesOf(fit: TrackingFit, wheel: Wheel, context: Context): readonly [Characteristic, Characteristic] {
  const [, , deadTime, lag] = trackingIds(wheel);
  if (fit.termination !== 'converged') {
    const problem: AnalysisProblem = { code: 'fit-failed', termination: fit.termination };
    return [absent(deadTime, problem), absent(lag, problem)];
  }
  const gauge = gaugeLag(context, `wheel_pressure_${wheel}`);
  const value = fit.deadTime - gauge.lag;
  const parts = [random('fit', fit.deadTimeStandard), ...gauge.components];
  const early = -value > 2 * hypot(...parts.map((part) => part.standard));
  return [
    // Nothing follows what was not asked yet.
    early ? absent(deadTime, { code: 'follows-before', wheel, by: -value }) : measured(deadTime, value, parts),
    measured(lag, fit.timeConstant, [random('fit', fit.timeConstantStandard), ...gauge.components]),
  ];
}

function overshootOf({ wheel, steps, pressure, largest }: Followed): Characteristic {
  const id = `overshoot@${wheel}` as const;
  const rising = steps.filter(({ from, to }) => to.level > from.level);
  const ofPressure = integrated(pressure);
  const scatter = scatterOf(pressure) / sqrt(max(1, overshootSeconds / ownInterval(pressure)));
  let worst: { share: number; standard: number } | null = null;
  for (const { window, from, to } of rising) {
    const held = ofPressure.mean(to.to - heldSeconds, to.to);
    const top = largestWindow(samplesBetween(pressure, window.from, window.to), overshootSeconds);
    const size = to.level - from.level;
    if (!top || !Number.isFinite(held) || size < 0.1 * largest) continue;
    const many = sqrt(2 * Math.log(max(2, (window.to - window.from) / overshootSeconds)));
    const found = { share: max(0, top.mean - held) / size, standard: (scatter * many) / size };
    if (!worst || found.share > worst.share) worst = found;
  }
  return worst ? measured(id, worst.share, [random('noise', worst.standard)]) : absent(id, { code: 'no-step' });
}

function trackingOf(shown: Evidence<Followed>, context: Context): StepAnalysis {
  const { wheel, target, pressure, steps } = shown;
  const [, , deadTime, lag, overshoot] = trackingIds(wheel);
  const held = heldAt(shown);
  const gain = gainOf(wheel, held, context);
  const steady = [gain, steadyErrorOf(wheel, held, context)];
  // Neither of the two may be told more seldom: what was asked between its samples was not seen to be asked.
  const rate = 1 / max(ownInterval(pressure), ownInterval(target));
  const none = (problem: AnalysisProblem) => [deadTime, lag, overshoot].map((id) => absent(id, problem));
  const untimed: AnalysisProblem | null =
    rate < slowest * 0.99
      ? { code: 'sampled-too-slowly', rate, needed: slowest }
      : steps.length === 0
        ? { code: 'no-step' }
        : null;
  if (untimed) return { characteristics: [...steady, ...none(untimed)], events: [], notes: [] };
  const guess = { gain: gain.kind === 'measured' ? gain.estimate.value : 1, offset: 0 };
  const fit = fitTracking(
    target,
    pressure,
    steps.map((step) => step.window),
    guess,
  );
  return {
    characteristics: [...steady, ...timesOf(fit, wheel, context), overshootOf(shown)],
    events: [],
    notes: Number.isFinite(fit.rateLimit)
      ? [{ code: 'rate-limited', channel: `wheel_pressure_${wheel}`, rate: fit.rateLimit }]
      : [],
  };
}

/**
 * Wheel pressures behind their targets, wheel by wheel: gain (1) and steady error (Pa) of what is held at the plateaus; dead time and lag
 * (s) of first order with dead time fitted to all steps at once; overshoot (share of the step). Channels `target_pressure_…` (held between
 * its samples) and `wheel_pressure_…`, Pa gauge. One clock is assumed, and said.
 */
export function analyseTracking(trace: Trace, context: Context): Answered {
  const question = (wheel: Wheel): Question<Context, Followed, Followed> => ({
    characteristics: trackingIds(wheel),
    happened: (read) => findFollowed(read, wheel),
    shows: followedEvidence,
    comesTo: trackingOf,
  });
  return joinAnswers(wheels.map((wheel) => answer(question(wheel), trace, context)));
}
