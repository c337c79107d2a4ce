/* A booster on a motor, a pump and a store of its own: gas by its own steps, a switch with a band, straight lines at the rod. */

import { goodGauge, writeLog, type Dice, type Gauging, type Signal } from '../logger';
import { pullLog } from '../pull-logs';
import { ambient, foot, gauge, onOff } from '../step-case';
import { gasPressures } from '../store-gas';
import { offBy, pushedLog } from './pushed-log';
import { log, wholeUnit } from './whole-unit';

const { max, min, round, sqrt } = Math;

interface Booster {
  readonly precharge: number;
  /** m3; what is left of it where the bladder has gone. */
  readonly volume: number;
  readonly starts: number;
  readonly stops: number;
  /** Whether the switch lets the motor stop, and where a relief valve holds it. */
  readonly sticks: boolean;
  readonly relief: number;
  /** m3/s: of the pump, of what it leaks at its stop, and of what goes back through its outlet as it stands. */
  readonly pump: number;
  readonly leak: number;
  readonly back: number;
  readonly lamp: number;
  /** A at its stop; V lost in its wires at that. */
  readonly amperes: number;
  readonly lost: number;
  /** Servo: Pa/N with help and without, N, Pa; help at the rod for each pascal. */
  readonly slope: number;
  readonly plain: number;
  readonly cutIn: number;
  readonly jump: number;
  readonly play: number;
  readonly springs: number;
  readonly help: number;
}

const storeGauge = (luck: Dice): Gauging => ({
  ...gauge(luck, 2.5e7, 2e3),
  white: luck.between(2e3, 6e3),
  lag: luck.between(0, 0.02),
  gain: luck.normal() * 0.0015,
});

interface Drive {
  readonly seconds: number;
  /** Pa gauge */
  readonly from: number;
  /** Whether the motor has its power, and fluid that is taken (m3/s). */
  readonly live: (t: number) => boolean;
  readonly taken: (t: number, gauge: number) => number;
}

/** The store over the time, and whether its pump ran. */
function driven(booster: Booster, { seconds, from, live, taken }: Drive, luck: Dice) {
  const step = seconds > 300 ? 0.02 : 5e-3;
  const pump: number[] = [];
  let on = false;
  const flow = (t: number, p: number): number => {
    const level = p - ambient;
    if (level < booster.starts) on = true;
    else if (level > booster.stops && !booster.sticks) on = false;
    const runs = on && live(t);
    pump.push(runs ? 1 : 0);
    const held = level >= booster.relief;
    const given = runs && !held ? booster.pump * (1 - 0.03 * (level / booster.stops)) : 0;
    const leaks = (max(0, level) / 18e6) * (booster.leak + (runs ? 0 : booster.back));
    return given - leaks - (level > 2e4 ? taken(t, level) : 0) - (level > booster.relief + 1e5 ? booster.pump / 2 : 0);
  };
  const column = gasPressures(
    {
      precharge: booster.precharge + ambient,
      volume: booster.volume,
      shell: 284.15 + luck.between(-3, 3),
      tau: luck.between(20, 42),
    },
    from + ambient,
    flow,
    { seconds: seconds + 1, step, ambient },
  );
  const at = (t: number) => min(column.length - 1, max(0, round(t / step)));
  return { level: (t: number) => column[at(t)] - ambient, runs: (t: number) => pump[at(t)] ?? 0 };
}

function storeLog(
  booster: Booster,
  drive: Drive,
  luck: Dice,
  rate: number,
  more: (level: (t: number) => number, runs: (t: number) => number) => Record<string, Signal> = () => ({}),
) {
  const { level, runs } = driven(booster, drive, luck);
  return log(
    writeLog(
      {
        accumulator_pressure: { at: level, gauging: storeGauge(luck) },
        pump_on: { at: runs, gauging: onOff },
        ...more(level, runs),
      },
      { seconds: drive.seconds, rate, jitter: 0.1 },
      luck,
    ),
  );
}

/** Where a store stands that its own pump has filled. */
const filled = (booster: Booster) => min(booster.stops, booster.relief);

const nothing = () => 0;
const opening = (share: number) => (_t: number, level: number) => share * sqrt(level / 18e6);

/** Amperes and volts as the motor turns against so much. */
function motorSignals(booster: Booster, luck: Dice) {
  return (level: (t: number) => number, runs: (t: number) => number): Record<string, Signal> => {
    const current = (t: number) => runs(t) * booster.amperes * (0.35 + 0.65 * min(1, max(0, level(t)) / 18e6));
    return {
      motor_current: { at: current, gauging: { ...goodGauge, white: 0.2, division: 0.1, gain: luck.normal() * 0.006 } },
      supply_voltage: {
        at: (t) => 12.6 - (booster.lost * current(t)) / booster.amperes,
        gauging: { ...goodGauge, white: 0.01, division: 0.01 },
      },
    };
  };
}

function applications(booster: Booster, luck: Dice) {
  const spacing = luck.between(5, 7);
  const count = 24;
  const times = Array.from({ length: count }, (_, n) => 3 + n * spacing);
  const drive: Drive = {
    seconds: 3 + count * spacing,
    from: filled(booster),
    live: () => false,
    taken: (t) => (times.some((at) => t >= at && t < at + 0.5) ? 6e-6 / 0.5 : 0),
  };
  return storeLog(booster, drive, luck, luck.oneOf([20, 50]), (level) => ({
    rod_force: { at: foot(times, 1.5, () => 700), gauging: gauge(luck, 1_500) },
    lamp_red: { at: (t) => (level(t) < booster.lamp ? 1 : 0), gauging: onOff },
  }));
}

function pulled(booster: Booster, luck: Dice) {
  const { slope, plain, cutIn, jump, springs, help } = booster;
  const supply = 0.97 * filled(booster);
  const runOut = (plain * (help * supply - springs) - jump + slope * cutIn) / (slope - plain);
  return log(
    pullLog(
      {
        story: luck.oneOf(['in-order', 'in-order', 'jerky']),
        lever: { channel: 'rod_force', top: luck.between(1_450, 1_600), gauging: gauge(luck, 2_000) },
        outputs: [
          {
            channel: 'output_pressure',
            gauging: gauge(luck, 1.6e7, 1e3),
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
        others: { accumulator_pressure: { at: () => supply, gauging: storeGauge(luck) } },
        line: luck.between(0.01, 0.05),
        rate: luck.oneOf([50, 100]),
      },
      luck,
    ),
  );
}

function pushed(booster: Booster, luck: Dice) {
  const fed = { accumulator_pressure: { at: () => 0, gauging: storeGauge(luck) } };
  return pushedLog({ plain: booster.plain, springs: booster.springs, lever: gauge(luck, 1_500), fed }, luck);
}

export const pumpBooster = wholeUnit<Booster>({
  family: 'motor-pump-boost',
  plan: 'bench',
  sound: (luck) => {
    const little = offBy(luck);
    const plain = (0.95 / ((Math.PI / 4) * 0.0254 ** 2)) * little(0.02);
    return {
      precharge: 8e6 * little(0.02),
      volume: 250e-6,
      starts: 14e6 * little(0.012),
      stops: 18e6 * little(0.01),
      sticks: false,
      relief: 21e6 * little(0.02),
      pump: 6e-6 * little(0.06),
      leak: (6e-6 / 60) * luck.between(0.6, 1.4),
      back: 0,
      lamp: 10.5e6 * little(0.015),
      amperes: 38 * little(0.05),
      lost: luck.between(0.2, 0.4),
      plain,
      slope: 5 * plain * little(0.04),
      cutIn: 90 * little(0.08),
      jump: 0.35e6 * little(0.12),
      play: 25 * little(0.2),
      springs: 163 * little(0.06),
      help: 0.95 * 300e-6 * little(0.01),
    };
  },
  faults: {
    'motor-worn': (sound, severe) => ({
      ...sound,
      pump: sound.pump * (0.85 - 0.4 * severe),
      amperes: sound.amperes * (1.35 + 0.45 * severe),
      lost: sound.lost * (1.35 + 0.45 * severe),
    }),
    'pump-vanes-worn': (sound, severe) => ({ ...sound, pump: sound.pump * (0.8 - 0.45 * severe) }),
    'accumulator-precharge-low': (sound, severe) => ({ ...sound, precharge: sound.precharge * (0.85 - 0.5 * severe) }),
    'accumulator-bladder-failed': (sound) => ({ ...sound, precharge: 3e4, volume: 1.5e-6 }),
    'pressure-switch-low': (sound, severe) => ({
      ...sound,
      starts: sound.starts * (0.92 - 0.15 * severe),
      stops: sound.stops * (0.92 - 0.12 * severe),
    }),
    'pressure-switch-high': (sound, severe) => ({
      ...sound,
      starts: sound.starts * (1.08 + 0.05 * severe),
      stops: sound.stops * (1.08 + 0.05 * severe),
      relief: 3e7,
    }),
    'internal-leak': (sound, severe) => ({ ...sound, leak: sound.leak * (2.5 + 9 * severe) }),
    'outlet-check-leak': (sound, severe) => ({ ...sound, back: (90e-6 + 500e-6 * severe) / 60 }),
    'relay-or-supply-drop': (sound, severe) => ({
      ...sound,
      lost: sound.lost + 0.9 + 1.6 * severe,
      pump: sound.pump * (0.92 - 0.28 * severe),
    }),
    'relief-stuck-open': (sound, severe) => ({ ...sound, relief: 18e6 * (0.93 - 0.4 * severe) }),
    'switch-band-narrow': (sound, severe) => ({ ...sound, starts: sound.starts + 4e6 * (0.35 + 0.45 * severe) }),
  },
  looks: {},
  write: (step, booster, luck) => {
    switch (step) {
      case 'make-dead-before':
      case 'make-dead-after':
        return storeLog(
          booster,
          {
            seconds: 60,
            from: filled(booster),
            live: () => false,
            taken: (t, level) => (t > 3 ? opening(12e-6)(t, level) : 0),
          },
          luck,
          20,
        );
      case 'supply-check':
        return storeLog(
          booster,
          { seconds: 30, from: 0.5 * filled(booster), live: (t) => t > 3, taken: nothing },
          luck,
          luck.oneOf([20, 50]),
          motorSignals(booster, luck),
        );
      case 'charge-from-empty': {
        const begins = luck.between(2, 4);
        return storeLog(
          booster,
          { seconds: 75, from: 0, live: (t) => t > begins, taken: nothing },
          luck,
          luck.oneOf([50, 100]),
        );
      }
      case 'bleed-down': {
        let started = Infinity;
        const live = (t: number) => t < started + 0.4;
        const taken = (t: number, level: number) => {
          if (level < booster.starts && started === Infinity) started = t;
          return t > 2 ? opening(1.7e-6)(t, level) : 0;
        };
        return storeLog(booster, { seconds: 170, from: filled(booster), live, taken }, luck, luck.oneOf([50, 100]));
      }
      case 'pump-switch':
        return storeLog(
          booster,
          {
            seconds: 160,
            from: filled(booster),
            live: () => true,
            taken: (t, level) => (t > 2 ? opening(1.6e-6)(t, level) : 0),
          },
          luck,
          luck.oneOf([20, 50]),
        );
      case 'rest-cycle':
        return storeLog(
          booster,
          { seconds: 1_300, from: filled(booster), live: () => true, taken: nothing },
          luck,
          luck.oneOf([5, 10]),
        );
      case 'applications':
        return applications(booster, luck);
      case 'assist-curve':
        return pulled(booster, luck);
      case 'unassisted-curve':
        return pushed(booster, luck);
      default:
        return null;
    }
  },
});
