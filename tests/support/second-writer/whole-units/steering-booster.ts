/* A booster in the steering pump's line: straight lines at the pedal, a pump with a relief, and a small store by its own gas. */

import { goodGauge, writeLog, type Dice } from '../logger';
import { pullLog } from '../pull-logs';
import { ambient, foot, gauge, onOff } from '../step-case';
import { gasPressures } from '../store-gas';
import { offBy } from './pushed-log';
import { log, wholeUnit } from './whole-unit';

const { exp, max, min, round } = Math;

interface Booster {
  /** Output for each newton of the foot while it modulates and without help, Pa/N; N; Pa. */
  readonly slope: number;
  readonly plain: number;
  readonly cutIn: number;
  readonly jump: number;
  readonly play: number;
  /** Force at the foot that springs take where nothing helps, N. */
  readonly springs: number;
  /** Help at the foot for each pascal of the pump's, N/Pa. */
  readonly help: number;
  /** Pa, m3/s. */
  readonly relief: number;
  readonly flow: number;
  /** Share of the pump's flow that goes as it is loaded, and of its help that goes past the spool. */
  readonly slips: number;
  readonly past: number;
  /** Pa that trembles, Pa that stays, and the time constant of letting go, s. */
  readonly trembles: number;
  readonly stays: number;
  readonly lets: number;
  /** Share of the boost that the steering takes. */
  readonly steered: number;
  /** Back pressure, Pa. */
  readonly back: number;
  /** The store: Pa gauge, m3/s as it stands. */
  readonly precharge: number;
  readonly charged: number;
  readonly leak: number;
}

const volume = 75e-6;
const stroke = 15e-6;
/** Pedal travel at the output of a stroke on the reserve. */
const travel = 0.07;

/** What the pump holds against the spool: a slipping belt does not get there. */
const pumped = ({ relief, slips }: Booster) => relief * (1 - 0.8 * slips);

/** Output at a foot with at most so much of the pump's pressure. */
function outputAt(booster: Booster, force: number, available: number): number {
  const { cutIn, jump, slope, plain, springs, help } = booster;
  const most = plain * (force - springs + help * available * (1 - booster.past));
  const bare = max(0, plain * (force - springs));
  return force < cutIn ? 0 : max(bare, min(jump + slope * (force - cutIn), most));
}

/** Pressure that the spool takes at a foot. */
const taken = (booster: Booster, force: number) =>
  force < booster.cutIn
    ? 0
    : max(0, (booster.jump + booster.slope * (force - booster.cutIn)) / booster.plain - force + booster.springs) /
      booster.help;

const tremble = ({ trembles }: Booster, t: number) => trembles * Math.sin(2 * Math.PI * 7.3 * t);

function pulled(booster: Booster, luck: Dice) {
  const { slope, plain, cutIn, jump, springs, help } = booster;
  const most = help * pumped(booster) * (1 - booster.past);
  const runOut = (plain * (most - springs) - jump + slope * cutIn) / (slope - plain);
  const shows = (played: number) => min(pumped(booster), taken(booster, played));
  return log(
    pullLog(
      {
        story: luck.oneOf(['in-order', 'in-order', 'jerky']),
        lever: { channel: 'pedal_force', top: luck.between(330, 380), gauging: gauge(luck, 500) },
        outputs: [
          {
            channel: 'output_pressure',
            gauging: { ...gauge(luck, 1e7, 1e3), white: 4e3 + booster.trembles / 2 },
            lines: {
              below: 0,
              cutIn,
              jump,
              slope,
              runOut,
              beyond: plain,
              play: booster.play,
              playOnlyWhileModulating: false,
            },
          },
        ],
        others: {
          boost_pressure: { at: shows, gauging: { ...gauge(luck, 1e7, 1e3), white: 5e3 + booster.trembles / 2 } },
        },
        line: luck.between(0.01, 0.05),
        rate: luck.oneOf([50, 100]),
      },
      luck,
    ),
  );
}

function deadHead(booster: Booster, luck: Dice) {
  const [starts, shuts] = [luck.between(1, 2), luck.between(7, 10)];
  const opens = shuts + luck.between(2.5, 4);
  const idle = luck.between(4e5, 7e5);
  const pressure = (t: number) => {
    if (t < starts) return 0;
    if (t < shuts) return idle;
    const rose = idle + (pumped(booster) - idle) * (1 - exp(-(t - shuts) / 0.08));
    return t < opens ? rose : idle + (pumped(booster) - idle) * exp(-(t - opens) / 0.06);
  };
  const through = (t: number) => (t < starts || (t > shuts && t < opens) ? 0 : booster.flow);
  return log(
    writeLog(
      {
        pump_pressure: {
          at: (t) => pressure(t) + (t > starts ? tremble(booster, t) / 2 : 0),
          gauging: gauge(luck, 1.6e7, 1e3),
        },
        flow: {
          at: through,
          gauging: { ...goodGauge, white: 4e-7, division: 1e-7, gain: luck.normal() * 0.006, lag: 0.1 },
        },
        pump_on: { at: (t) => (t > starts ? 1 : 0), gauging: onOff },
      },
      { seconds: opens + 4, rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
      luck,
    ),
  );
}

/** The store from the engine's start on: filled within seconds, let down by its leak, and by what each stroke takes. */
function stored(booster: Booster, times: readonly number[], seconds: number, step: number, luck: Dice) {
  const off = 6;
  const dead = booster.precharge < 1e6;
  const gas = {
    precharge: booster.precharge + ambient,
    volume: dead ? volume / 12 : volume,
    shell: 284.15 + luck.between(-3, 3),
    tau: luck.between(12, 30),
  };
  const wants = stroke / 0.5;
  const flow = (t: number, p: number) => {
    if (t < off) return 0;
    const foot = times.some((at) => t >= at && t < at + 0.5) && p - ambient > 2e5 ? wants : 0;
    return -foot * min(1, (p - ambient) / 4e6) - (booster.leak * max(0, p - ambient)) / booster.charged;
  };
  const column = gasPressures(gas, booster.charged + ambient, flow, { seconds, step, ambient });
  return (t: number) => column[min(column.length - 1, max(0, round(t / step)))] - ambient;
}

function strokes(
  booster: Booster,
  { first, count, rate }: { readonly first: number; readonly count: number; readonly rate: number },
  luck: Dice,
) {
  const spacing = luck.between(3, 3.6);
  const times = Array.from({ length: count }, (_, n) => first + n * spacing);
  const seconds = times[count - 1] + 4;
  const left = stored(booster, times, seconds + 1, seconds > 600 ? 0.1 : 0.01, luck);
  const force = foot(times, 1.7, () => 200);
  // What a stroke is helped by is what is left once it has taken its fluid.
  const output = (t: number) => outputAt(booster, force(t), max(0, left(t)));
  return log(
    writeLog(
      {
        pedal_force: { at: force, gauging: gauge(luck, 400) },
        output_pressure: { at: output, gauging: gauge(luck, 1e7, 1e3) },
        accumulator_pressure: { at: left, gauging: gauge(luck, 1.6e7, 1e3) },
        engine_on: { at: (t) => (t < 6 ? 1 : 0), gauging: onOff },
      },
      { seconds, rate, jitter: 0.1 },
      luck,
    ),
  );
}

function sinks(booster: Booster, luck: Dice) {
  const times = Array.from({ length: 9 }, (_, n) => 2 + 2 * n);
  const holds = 23;
  const starts = holds + luck.between(2, 4);
  const end = starts + 6;
  const pumping = foot(times, 1, () => 170);
  const held = (t: number) => 120 * min(1, max(0, (t - holds) / 0.8)) * min(1, max(0, (end - t) / 0.4));
  const force = (t: number) => max(pumping(t), held(t));
  // The store helps the first strokes, and then no more.
  const kept = (t: number) =>
    max(0, booster.precharge > 1e6 ? 7e6 * (1 - 0.34 * times.filter((at) => t > at + 1).length) : 0);
  const helped = (t: number) => (t > starts ? pumped(booster) * (1 - exp(-(t - starts) / 0.3)) : kept(t));
  const full = outputAt(booster, 200, booster.relief);
  const output = (t: number) => outputAt(booster, force(t), helped(t));
  return log(
    writeLog(
      {
        pedal_force: { at: force, gauging: gauge(luck, 400) },
        pedal_travel: {
          at: (t) => (travel * output(t)) / full + (0.004 * force(t)) / 200,
          gauging: { ...goodGauge, white: 5e-5, division: 5e-5 },
        },
        output_pressure: { at: output, gauging: gauge(luck, 1e7, 1e3) },
        boost_pressure: { at: (t) => min(helped(t), taken(booster, force(t))), gauging: gauge(luck, 1e7, 1e3) },
        engine_on: { at: (t) => (t > starts ? 1 : 0), gauging: onOff },
      },
      { seconds: end + 1, rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
      luck,
    ),
  );
}

function steering(booster: Booster, luck: Dice) {
  const level = 265;
  const push = foot([2], 10, () => level);
  const hard = (t: number) => min(1, max(0, (t - 5) / 0.5)) * min(1, max(0, (9.5 - t) / 0.5));
  const wanted = (t: number) => min(pumped(booster), taken(booster, push(t)));
  const boost = (t: number) => wanted(t) * (1 - booster.steered * hard(t));
  return log(
    writeLog(
      {
        pedal_force: { at: push, gauging: gauge(luck, 400) },
        boost_pressure: { at: (t) => boost(t) + tremble(booster, t), gauging: gauge(luck, 1e7, 1e3) },
        pump_pressure: {
          at: (t) => 5e5 + max(wanted(t), 0.95 * pumped(booster) * hard(t)),
          gauging: gauge(luck, 1.6e7, 1e3),
        },
        output_pressure: { at: (t) => outputAt(booster, push(t), boost(t)), gauging: gauge(luck, 1e7, 1e3) },
      },
      { seconds: 14, rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
      luck,
    ),
  );
}

export const steeringBooster = wholeUnit<Booster>({
  family: 'hydraulic-boost',
  plan: 'vehicle',
  sound: (luck) => {
    const little = offBy(luck);
    const plain = ((4 * 0.95) / ((Math.PI / 4) * 0.03175 ** 2)) * little(0.02);
    return {
      plain,
      slope: 6 * plain * little(0.05),
      cutIn: 25 * little(0.1),
      jump: 0.284e6 * little(0.15),
      play: 7.5 * little(0.2),
      springs: 46 * little(0.1),
      help: (0.95 * 620e-6) / 4,
      relief: 9e6 * little(0.015),
      flow: (7e-3 / 60) * little(0.06),
      slips: 0,
      past: 0,
      trembles: 0,
      stays: luck.between(0, 1e4),
      lets: 0.06,
      steered: luck.between(0.03, 0.13),
      back: luck.between(5e4, 1.2e5),
      precharge: 3.5e6 * little(0.03),
      charged: 7.5e6 * little(0.02),
      leak: (0.1e-6 / 60) * luck.between(0.3, 1.5),
    };
  },
  faults: {
    'pump-relief-low': (sound, severe) => ({ ...sound, relief: sound.relief * (0.82 - 0.35 * severe) }),
    'pump-flow-low': (sound, severe) => ({
      ...sound,
      flow: sound.flow * (0.7 - 0.35 * severe),
      steered: 0.35 + 0.3 * severe,
    }),
    'belt-slip': (sound, severe) => ({ ...sound, slips: 0.25 + 0.4 * severe, steered: 0.35 + 0.3 * severe }),
    'reserve-accumulator-dead': (sound) => ({ ...sound, precharge: 2e5 }),
    'reserve-check-leak': (sound, severe) => ({ ...sound, leak: sound.leak * (15 + 45 * severe) }),
    'spool-sticking': (sound, severe) => ({
      ...sound,
      play: sound.play * (2.4 + 1.2 * severe),
      cutIn: sound.cutIn * (1 + 0.1 * severe),
      lets: 0.6 + severe,
    }),
    'spool-seal-leak': (sound, severe) => ({ ...sound, past: 0.2 + 0.35 * severe }),
    'rod-seal-leak': (sound) => sound,
    'return-restricted': (sound, severe) => ({ ...sound, back: 320e3 + 500e3 * severe, lets: 0.5 + severe }),
    'air-in-fluid': (sound, severe) => ({ ...sound, trembles: 70e3 + 180e3 * severe }),
    'hose-underrated': (sound) => sound,
    'steering-flow-priority': (sound, severe) => ({ ...sound, steered: 0.36 + 0.35 * severe }),
  },
  looks: {
    'belt-slip': { belt: 'unfit' },
    'spool-seal-leak': { 'spool-plug': 'damp' },
    'rod-seal-leak': { 'rod-seal': 'dripping' },
    'air-in-fluid': { foam: 'unfit' },
    'hose-underrated': { rating: 'unfit' },
  },
  write: (step, booster, luck) => {
    switch (step) {
      case 'off-drop':
        return sinks(booster, luck);
      case 'pump-relief':
        return deadHead(booster, luck);
      case 'assist-curve':
        return pulled(booster, luck);
      case 'reserve':
        return strokes(booster, { first: 9, count: 9, rate: luck.oneOf([20, 50]) }, luck);
      case 'reserve-soak':
        return strokes(booster, { first: 3_606, count: 2, rate: 10 }, luck);
      case 'return-pressure':
        return log(
          writeLog(
            {
              return_pressure: {
                at: (t) => (t < 2 ? 0 : booster.back * (1 - exp(-(t - 2) / 0.3))),
                gauging: { ...gauge(luck, 1.6e6), white: 2e3 },
              },
              engine_on: { at: (t) => (t < 2 ? 0 : 1), gauging: onOff },
            },
            { seconds: 12, rate: luck.oneOf([10, 20, 50]), jitter: 0.1 },
            luck,
          ),
        );
      case 'steering-share':
        return steering(booster, luck);
      default:
        return null;
    }
  },
});
