/* A booster with a motor on a bench: straight lines at the rod, two tracks over a travel, and a battery behind its wires. */

import { goodGauge, writeLog, type Dice, type Gauging, type Signal } from '../logger';
import { pullLog } from '../pull-logs';
import { gauge, onOff } from '../step-case';
import { offBy, pushedLog } from './pushed-log';
import { log, wholeUnit } from './whole-unit';

const { exp, max, min } = Math;

interface Booster {
  /** Pa/N while it helps and without; N; Pa. */
  readonly slope: number;
  readonly plain: number;
  readonly cutIn: number;
  readonly jump: number;
  readonly play: number;
  readonly springs: number;
  /** Most force of the motor at its rated voltage, N. */
  readonly motor: number;
  /** Ω */
  readonly feed: number;
  readonly ground: number;
  /** Whether it gets its power, and is told to wake. */
  readonly fed: boolean;
  readonly woken: boolean;
  /** A, with the motor at its most, and asleep. */
  readonly amperes: number;
  readonly asleep: number;
  /** How it follows a quick push and how it lets go, s; Pa that stays. */
  readonly follows: number;
  readonly lets: number;
  readonly stays: number;
  /** Volts that track A is off, seconds that it is dead at one place, and metres that the magnet sits off. */
  readonly offA: number;
  readonly drops: number;
  readonly shifted: number;
}

const battery = 12.7;
const stroke = 0.04;
const volts = (luck: Dice): Gauging => ({ ...goodGauge, white: 0.006, division: 0.01, gain: luck.normal() * 0.0015 });
const clamp = (luck: Dice): Gauging => ({ ...goodGauge, white: 0.15, division: 0.1, gain: luck.normal() * 0.006 });

const works = ({ fed, woken }: Booster) => fed && woken;
/** What the motor has for the rod, N: less where its wires leave it less. */
function mostOf(booster: Booster): number {
  if (!works(booster)) return 0;
  const left = battery - booster.amperes * (booster.feed + booster.ground);
  return booster.motor * min(1, left / 12);
}

function outputAt(booster: Booster, force: number): number {
  const { cutIn, jump, slope, plain, springs } = booster;
  const bare = max(0, plain * (force - springs));
  if (!works(booster)) return bare;
  if (force < cutIn) return 0;
  return max(0, min(jump + slope * (force - cutIn), plain * (force - springs + mostOf(booster))));
}

const forceGauge = (luck: Dice): Gauging => gauge(luck, 1_500);
const outGauge = (luck: Dice): Gauging => gauge(luck, 1.6e7, 1e3);

/** Share of its current that the motor takes at a rod force. */
const loaded = (booster: Booster, force: number) =>
  works(booster) && force > booster.cutIn ? min(1, 0.1 + (force - booster.cutIn) / 500) : 0;

/** Volts at the battery, the unit and its ground, and what flows. */
function wires(booster: Booster, current: (t: number) => number, luck: Dice): Record<string, Signal> {
  const open = (t: number) => battery - 0.006 * current(t);
  return {
    motor_current: { at: current, gauging: clamp(luck) },
    battery_voltage: { at: open, gauging: volts(luck) },
    supply_voltage: {
      at: (t) => (booster.fed ? open(t) - current(t) * (booster.feed + booster.ground) : 0),
      gauging: volts(luck),
    },
    ground_voltage: {
      at: (t) => current(t) * booster.ground,
      gauging: { ...volts(luck), division: 1e-3, white: 1e-3 },
    },
  };
}

function pulled(booster: Booster, luck: Dice) {
  const { slope, plain, cutIn, jump, springs } = booster;
  const helps = works(booster);
  const runOut = (plain * (mostOf(booster) - springs) - jump + slope * cutIn) / (slope - plain);
  const lines = helps
    ? { below: 0, cutIn, jump, slope, runOut, beyond: plain, play: booster.play, playOnlyWhileModulating: false }
    : {
        below: 0,
        cutIn: springs,
        jump: 0,
        slope: plain,
        runOut: Infinity,
        beyond: 0,
        play: 8,
        playOnlyWhileModulating: false,
      };
  return log(
    pullLog(
      {
        story: luck.oneOf(['in-order', 'in-order', 'jerky']),
        lever: { channel: 'rod_force', top: luck.between(850, 1_000), gauging: forceGauge(luck) },
        outputs: [{ channel: 'output_pressure', gauging: outGauge(luck), lines }],
        others: {
          supply_voltage: {
            at: (played) =>
              booster.fed
                ? battery - loaded(booster, played) * booster.amperes * (0.006 + booster.feed + booster.ground)
                : 0,
            gauging: volts(luck),
          },
        },
        line: luck.between(0.01, 0.04),
        rate: luck.oneOf([50, 100]),
      },
      luck,
    ),
  );
}

function pushed(booster: Booster, luck: Dice) {
  const fed = { supply_voltage: { at: () => 0, gauging: volts(luck) } };
  return pushedLog({ plain: booster.plain, springs: booster.springs, lever: forceGauge(luck), fed }, luck);
}

function asleep(booster: Booster, luck: Dice) {
  const sleeps = luck.between(560, 600);
  const current = (t: number) => (!booster.fed ? 0 : t < sleeps ? 1.1 : booster.asleep);
  return log(
    writeLog(
      {
        motor_current: { at: current, gauging: clamp(luck) },
        sleep_current: { at: current, gauging: { ...goodGauge, white: 2e-4, division: 1e-4 } },
        ignition_on: { at: () => 0, gauging: onOff },
      },
      { seconds: 720, rate: luck.oneOf([1, 2, 5]), jitter: 0.1 },
      luck,
    ),
  );
}

function supplied(booster: Booster, luck: Dice) {
  const rod = (t: number) => 800 * min(1, max(0, (t - 3) / 3)) * min(1, max(0, (14 - t) / 2));
  const current = (t: number) => (booster.fed ? 1.1 + booster.amperes * loaded(booster, rod(t)) : 0);
  return log(
    writeLog(
      { ...wires(booster, current, luck), rod_force: { at: rod, gauging: forceGauge(luck) } },
      { seconds: 17, rate: luck.oneOf([20, 50]), jitter: 0.1 },
      luck,
    ),
  );
}

function tracks(booster: Booster, luck: Dice) {
  const travel = (t: number) => stroke * 0.95 * min(1, max(0, (t - 2) / 6)) * min(1, max(0, (17 - t) / 6));
  const gainA = luck.between(0.99, 1.01);
  // The worn place is passed once on the way out and once on the way home.
  const passes = [2 + 6 * 0.45, 17 - 6 * 0.45];
  const dead = (t: number) => booster.drops > 0 && passes.some((at) => t >= at && t < at + booster.drops);
  const own = works(booster) ? 5 : 0;
  const at = (t: number) => 0.1 + (0.8 * (travel(t) + booster.shifted)) / stroke;
  const wiper: Gauging = { ...goodGauge, white: 0.002, division: 0.001 };
  return log(
    writeLog(
      {
        rod_travel: { at: travel, gauging: { ...goodGauge, white: 2e-5, division: 1e-5, gain: luck.normal() * 0.002 } },
        sensor_supply: { at: () => own, gauging: { ...wiper, gain: luck.normal() * 5e-4 } },
        sensor_a: {
          at: (t) => (dead(t) ? 0 : min(own, own * (0.1 + (at(t) - 0.1) * gainA) + (own > 0 ? booster.offA : 0))),
          gauging: wiper,
        },
        sensor_b: { at: (t) => own * (1 - at(t)), gauging: wiper },
      },
      { seconds: 20, rate: luck.oneOf([200, 500]), jitter: 0.05 },
      luck,
    ),
  );
}

/** What follows its target with one time constant on the way up, and another, down to what stays, on the way home. */
function following(booster: Booster, rod: (t: number) => number, seconds: number) {
  const step = 1e-3;
  let now = 0;
  const column = Float64Array.from({ length: Math.ceil(seconds / step) + 2 }, (_, i) => {
    const wanted = outputAt(booster, rod(i * step));
    const target = wanted < now ? max(wanted, min(now, booster.stays)) : wanted;
    now += (target - now) * (1 - exp(-step / (target < now ? booster.lets : booster.follows)));
    return now;
  });
  return (t: number) => column[min(column.length - 1, max(0, Math.round(t / step)))];
}

function quick(booster: Booster, luck: Dice) {
  const rod = (t: number) => 450 * min(1, max(0, (t - 2) / 0.06)) * min(1, max(0, (6 - t) / 0.5));
  const surge = (t: number) => (t > 2.05 && t < 2.05 + 3 * booster.follows ? 0.35 : 0);
  const current = (t: number) =>
    booster.fed ? 1.1 + booster.amperes * (loaded(booster, rod(t)) + (works(booster) ? surge(t) : 0)) : 0;
  return log(
    writeLog(
      {
        rod_force: { at: rod, gauging: { ...forceGauge(luck), lag: 0.005 } },
        output_pressure: {
          at: following(booster, rod, 8),
          gauging: { ...outGauge(luck), lag: luck.between(0, 0.02) },
        },
        motor_current: wires(booster, current, luck).motor_current,
        supply_voltage: wires(booster, current, luck).supply_voltage,
      },
      { seconds: 8, rate: luck.oneOf([100, 200, 500]), jitter: 0.1 },
      luck,
    ),
  );
}

function released(booster: Booster, luck: Dice) {
  const letGo = 7;
  const rod = (t: number) => 500 * min(1, max(0, (t - 2) / 1.5)) * min(1, max(0, (letGo - t) / 0.25 + 1));
  return log(
    writeLog(
      {
        rod_force: { at: rod, gauging: forceGauge(luck) },
        output_pressure: {
          at: following(booster, rod, letGo + 9),
          gauging: { ...gauge(luck, 1e7, 1e3), white: 2e3, lag: 0.02 },
        },
        supply_voltage: { at: () => (booster.fed ? battery - 0.1 : 0), gauging: volts(luck) },
      },
      { seconds: letGo + 8, rate: luck.oneOf([50, 100]), jitter: 0.1 },
      luck,
    ),
  );
}

export const motorBooster = wholeUnit<Booster>({
  family: 'motor-boost',
  plan: 'bench',
  sound: (luck) => {
    const little = offBy(luck);
    const plain = (0.95 / ((Math.PI / 4) * 0.0238 ** 2)) * little(0.02);
    return {
      plain,
      slope: 5.5 * plain * little(0.04),
      cutIn: 70 * little(0.08),
      jump: 0.292e6 * little(0.12),
      play: 20 * little(0.2),
      springs: 183 * little(0.06),
      motor: 2_600 * little(0.02),
      feed: luck.between(3e-3, 7e-3),
      ground: luck.between(1e-3, 2.5e-3),
      fed: true,
      woken: true,
      amperes: 38 * little(0.08),
      asleep: luck.between(4e-3, 12e-3),
      follows: 0.035 * little(0.3),
      lets: 0.05 * little(0.3),
      stays: luck.between(0, 8e3),
      offA: luck.normal() * 0.01,
      drops: 0,
      shifted: luck.normal() * 1e-4,
    };
  },
  faults: {
    'sensor-track-a-offset': (sound, severe) => ({ ...sound, offA: 0.22 + 0.5 * severe }),
    'sensor-track-dropout': (sound, severe) => ({ ...sound, drops: 0.012 + 0.04 * severe }),
    'sensor-magnet-shifted': (sound, severe) => ({ ...sound, shifted: (1.7 + 2.5 * severe) * 1e-3 }),
    'supply-drop': (sound, severe) => ({ ...sound, feed: 0.022 + 0.05 * severe }),
    'ground-resistance': (sound, severe) => ({ ...sound, ground: 0.012 + 0.04 * severe }),
    'fuse-open': (sound) => ({ ...sound, fed: false }),
    'motor-weak': (sound, severe) => ({ ...sound, motor: sound.motor * (0.75 - 0.4 * severe) }),
    'gear-worn': (sound, severe) => ({
      ...sound,
      play: sound.play + 30 + 60 * severe,
      follows: 0.25 + 0.35 * severe,
    }),
    'return-spring-weak': (sound, severe) => ({ ...sound, stays: 50e3 + 130e3 * severe, lets: 0.35 + 0.7 * severe }),
    'ignition-line-missing': (sound) => ({ ...sound, woken: false }),
    'controller-in-fallback': (sound, severe) => ({ ...sound, motor: sound.motor * (0.48 - 0.25 * severe) }),
    'never-sleeps': (sound, severe) => ({ ...sound, asleep: 0.05 + 0.25 * severe }),
  },
  looks: {
    'sensor-track-a-offset': { codes: 'stored' },
    'sensor-track-dropout': { codes: 'stored' },
    'sensor-magnet-shifted': { codes: 'stored' },
    'supply-drop': { codes: 'stored' },
    'ground-resistance': { codes: 'stored' },
    'fuse-open': { codes: 'present' },
    'motor-weak': { codes: 'stored' },
    'ignition-line-missing': { codes: 'present' },
    'controller-in-fallback': { codes: 'present' },
  },
  write: (step, booster, luck) => {
    switch (step) {
      case 'make-safe-before':
      case 'drain':
      case 'make-safe-after':
        return asleep(booster, luck);
      case 'supply-check':
        return supplied(booster, luck);
      case 'sensor-tracks':
        return tracks(booster, luck);
      case 'unassisted-curve':
        return pushed(booster, luck);
      case 'assist-curve':
        return pulled(booster, luck);
      case 'step-response':
        return quick(booster, luck);
      case 'release':
        return released(booster, luck);
      default:
        return null;
    }
  },
});
