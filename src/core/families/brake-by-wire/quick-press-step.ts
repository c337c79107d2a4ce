import { timedAsked, timedFigure } from '../../dials/timed';
import { entryFromReadings } from '../../dials/from-readings';
import { random, systematic } from '../../instruments/uncertainty';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Judged } from '../../procedure/evidence';
import { atMost } from '../../procedure/limit';
import { answer, saying, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import { ownInterval, ownSamples, samplesBetween, type Samples } from '../../traces/own-samples';
import { integrated } from '../../traces/time-mean';
import { columnOf, type Trace } from '../../traces/trace';
import { weakSupplyIn } from '../../toolboxes/electrical/weak-supply';
import { gaugeLag } from './gauge-doubt';
import { wheels, type Wheel, type ByWireUnit } from './geometry';
import { plateausOf } from './plateaus';
import { letGo, lever, provedSafe, restAwake, stampAndHold, wake, type Context, type Measured } from './step-parts';

const { hypot, max, min, sqrt } = Math;

const slowest = 100;
/** A press that is to be timed asks every wheel for at least this share of hard braking. */
const leastShare = 0.2;
/** A wheel that holds less than this share of what it was asked for has not answered, however soon it was there. */
const answersWith = 0.5;
/** A level is the mean over so long, s. */
const heldSeconds = 0.4;

/** One wheel's answer to a press: s from its target passing a tenth to its pressure passing nine tenths; null where it never did. */
interface Answering {
  readonly wheel: Wheel;
  readonly seconds: number | null;
  /** s that were left for it. */
  readonly watched: number;
  readonly interval: number;
  /** One sigma of the moment, s: the noise over how fast the pressure rises there. */
  readonly standard: number;
}

interface Pressed {
  readonly answers: readonly Answering[];
  /** s that the target itself took from a tenth to nine tenths, the longest of the wheels. */
  readonly foot: number;
  readonly rate: number;
  readonly missing: readonly string[];
  /** Wheels that were hardly asked for anything: target and most, Pa gauge. */
  readonly unasked: readonly { readonly channel: string; readonly peak: number }[];
}

/** First moment from `from` on (s) at which a channel is at or above a level, straight between samples; null where it never is. */
function passes({ time, value }: Samples, level: number, from: number): number | null {
  for (let i = 1; i < value.length; i++) {
    if (time[i] < from || value[i] < level) continue;
    const rise = value[i] - value[i - 1];
    return value[i - 1] < level && rise > 0
      ? max(from, time[i - 1] + ((time[i] - time[i - 1]) * (level - value[i - 1])) / rise)
      : time[i];
  }
  return null;
}

/** When a held target first stands at or above a level, s: it jumps at its samples. */
function jumps({ time, value }: Samples, level: number, from: number): number | null {
  const at = value.findIndex((each, i) => time[i] >= from && each >= level);
  return at < 0 ? null : time[at];
}

function findPressed(trace: Trace, { unit }: Context): Pressed {
  const answers: Answering[] = [];
  const missing: string[] = [];
  const unasked: { channel: string; peak: number }[] = [];
  let [foot, rate] = [0, Infinity];
  for (const wheel of wheels) {
    const channels = [`target_pressure_${wheel}`, `wheel_pressure_${wheel}`];
    const [target, pressure] = channels
      .map((channel) => columnOf(trace, channel))
      .map((column) => column && ownSamples(trace, column));
    if (!target || !pressure || target.time.length < 4 || pressure.time.length < 4) {
      missing.push(channels[target ? 1 : 0]);
      continue;
    }
    rate = min(rate, 1 / ownInterval(pressure), 1 / ownInterval(target));
    const plateaus = plateausOf(target);
    const top = plateaus.reduce((best, each) => (each.level > best.level ? each : best), { from: 0, to: 0, level: 0 });
    if (top.level < leastShare * unit.working) {
      unasked.push({ channel: channels[0], peak: top.level });
      continue;
    }
    const held = integrated(pressure).mean(top.to - heldSeconds, top.to);
    // The press that led to it begins where the target was last near nothing.
    const rest = lastBelow(target, 0.1 * top.level, top.from);
    const begins = jumps(target, 0.1 * top.level, rest);
    const arrived = jumps(target, 0.9 * top.level, rest);
    if (begins === null || arrived === null || !Number.isFinite(held)) {
      missing.push(channels[1]);
      continue;
    }
    foot = max(foot, arrived - begins);
    const until = samplesBetween(pressure, begins - 0.1, top.to);
    const reaches = held < answersWith * top.level ? null : passes(until, 0.9 * held, begins);
    answers.push({
      wheel,
      seconds: reaches === null ? null : reaches - begins,
      watched: top.to - begins,
      interval: hypot(ownInterval(pressure), ownInterval(target)),
      standard: reaches === null ? 0 : noiseOf(until) / max(1, slopeAt(until, reaches)),
    });
  }
  return { answers, foot, rate, missing, unasked };
}

function lastBelow({ time, value }: Samples, level: number, before: number): number {
  for (let i = value.length - 1; i >= 0; i--) if (time[i] < before && value[i] < level) return time[i];
  return time[0];
}

function slopeAt(samples: Samples, at: number): number {
  const near = samplesBetween(samples, at - 0.02, at + 0.02);
  const last = near.time.length - 1;
  return last < 1 ? 1 : Math.abs(near.value[last] - near.value[0]) / (near.time[last] - near.time[0]);
}

function noiseOf({ value }: Samples): number {
  let [sum, count] = [0, 0];
  for (let i = max(1, value.length - 40); i < value.length; i++) {
    sum += (value[i] - value[i - 1]) ** 2;
    count++;
  }
  return count === 0 ? 0 : sqrt(sum / count / 2);
}

function pressedEvidence(found: Pressed, { unit }: Context): Judged<Pressed> {
  const needed = leastShare * unit.working;
  const [unasked] = found.unasked;
  if (found.answers.length === 0)
    return unasked
      ? noEvidence({ code: 'not-applied', ...unasked, needed })
      : found.missing.length > 0
        ? noEvidence({ code: 'channel-missing', channel: found.missing[0] })
        : noEvidence({ code: 'no-step' });
  if (found.rate < slowest * 0.99) return noEvidence({ code: 'sampled-too-slowly', rate: found.rate, needed: slowest });
  const quick = unit.spec.panicRiseTimeMaxS;
  // A foot slower than the limit says nothing of the unit.
  if (found.foot > quick) return noEvidence({ code: 'pressed-slowly', seconds: found.foot, needed: quick });
  return evidence(
    found,
    [],
    [
      ...found.missing.map((channel) => ({ code: 'channel-missing', channel }) as const),
      ...found.unasked.map((each) => ({ code: 'not-applied', ...each, needed }) as const),
    ],
  );
}

function riseOf(answers: readonly Answering[], context: Context): Characteristic {
  const never = answers.find((each) => each.seconds === null);
  if (never) {
    const bound = { value: never.watched, components: [] };
    return beyond('rise-time', 'above', bound, { code: 'never-reached', channel: `wheel_pressure_${never.wheel}` });
  }
  const slowestWheel = answers.reduce((p, q) => ((q.seconds ?? 0) > (p.seconds ?? 0) ? q : p));
  const gauge = gaugeLag(context, `wheel_pressure_${slowestWheel.wheel}`);
  const toNineTenths = Math.log(10);
  return answers.length === 0
    ? absent('rise-time', { code: 'no-step' })
    : measured('rise-time', max(0, (slowestWheel.seconds ?? 0) - gauge.lag * toNineTenths), [
        random('timing', hypot(slowestWheel.interval / sqrt(12), slowestWheel.standard)),
        ...gauge.components.map((part) => systematic(part.source, part.standard * toNineTenths)),
      ]);
}

const question: Question<Context, Pressed, Pressed> = {
  characteristics: ['rise-time'],
  happened: findPressed,
  shows: pressedEvidence,
  comesTo: ({ answers }, context) => ({
    characteristics: [riseOf(answers, context)],
    events: [],
    notes: answers.flatMap(({ wheel, seconds }) =>
      seconds === null ? [] : [{ code: 'wheel-took', wheel, seconds } as const],
    ),
  }),
};

/** The fastest press: how long the slowest wheel takes. */
export const panic: Measured = {
  id: 'panic',
  kind: 'measured',
  title: 'Fastest press',
  why: 'Stamp as hard as in fright: the slowest wheel must be there in time, or the vehicle is not.',
  minutes: 2,
  cautions: ['fluid-jet', 'wakes-by-itself'],
  optional: false,
  characteristics: ['rise-time'],
  ...provedSafe,
  feeds: {
    log: {
      needs: [],
      uses: [
        ...wheels.flatMap((wheel) => [`target_pressure_${wheel}`, `wheel_pressure_${wheel}`]),
        lever,
        'motor_current',
        'supply_voltage',
      ],
      leastRows: 40,
      leastRate: slowest,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => [wake(3), ...stampAndHold(context, 1, 3, 0.02), letGo, restAwake(2)],
      bands: ({ unit }) => ({ wheel_pressure_fl: [0, unit.working * 1.1] }),
    },
    dials: entryFromReadings<ByWireUnit>({
      characteristics: () => ['rise-time'],
      once: () => timedAsked('pressed-up', 'From stamping until the slowest wheel stands'),
      reckon: ({ once }) => {
        const time = timedFigure(once, 'pressed-up', 'rise-time');
        return { figures: (moved) => ({ 'rise-time': time.of(moved.once) }), bounds: time.bounds };
      },
    }),
  },
  analyse: (trace, context) => saying(answer(question, trace, context), weakSupplyIn(trace, context.unit.ratedVoltage)),
  limits: (_analysis, { unit: { spec } }) => [
    atMost('rise-time', {
      value: spec.panicRiseTimeMaxS,
      source: { kind: 'sheet', field: 'panicRiseTimeMaxS' },
    }),
  ],
  pictures: [{ kind: 'over-time', channels: ['target_pressure_fl', 'wheel_pressure_fl', 'wheel_pressure_rr'] }],
};
