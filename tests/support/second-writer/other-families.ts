/* The steps that families share, fed once more by the figures of the other families. */

import { ambient, between, foot, freeze, gauge, onOff, rateOf, storeRate, vacuumGauge, type Case } from './step-case';
import { writeLog, type Dice, type Signal } from './logger';
import { gasPressures } from './store-gas';

const { exp, max, min, round } = Math;

/** A family's stores, both circuits alike, SI gauge. */
interface Stores {
  readonly family: 'stored-pressure' | 'pedal-valve';
  readonly plan?: 'vehicle';
  readonly precharge: number;
  readonly volume: number;
  readonly pump: number;
  readonly cutIn: number;
  readonly cutOut: number;
  readonly lamp: number;
  readonly perApplication: number;
  readonly lever: string;
  readonly pressed: number;
}

const storedPressure: Stores = {
  family: 'stored-pressure',
  plan: 'vehicle',
  precharge: 6.2e6,
  volume: 450e-6,
  pump: 14e-6,
  cutIn: 13.5e6,
  cutOut: 16.5e6,
  lamp: 9.5e6,
  perApplication: 12e-6,
  lever: 'pedal_force',
  pressed: 235,
};
const pedalValve: Stores = {
  family: 'pedal-valve',
  precharge: 5.5e6,
  volume: 1_400e-6,
  pump: 60e-6,
  cutIn: 11.5e6,
  cutOut: 14.5e6,
  lamp: 8.5e6,
  perApplication: 60e-6,
  lever: 'pedal_angle',
  pressed: 18.7,
};

const gasOf = (stores: Stores, luck: Dice, precharge = stores.precharge) => ({
  precharge: precharge + ambient,
  volume: stores.volume,
  shell: 284.15 + luck.between(-3, 3),
  tau: luck.between(25, 40),
});
const storeGauge = (luck: Dice) => ({
  ...gauge(luck, 2e7, 2e3),
  white: luck.between(2e3, 6e3),
  lag: 0.02,
  gain: luck.normal() * 0.001,
});
/** The same pressure in both circuits. */
const both = (at: (t: number) => number, luck: Dice): Record<string, Signal> => ({
  accumulator_pressure: { at, gauging: storeGauge(luck) },
  accumulator_pressure_2: { at, gauging: storeGauge(luck) },
});
const pumps = (at: (t: number) => number): Record<string, Signal> => ({
  pump_on: { at, gauging: onOff },
  pump_on_2: { at, gauging: onOff },
});

const charge = (stores: Stores): Case => ({
  family: stores.family,
  plan: stores.plan,
  step: 'charge-from-empty',
  whole: ['in-order'],
  others: { 'not-from-empty': { faultyMayFail: true }, frozen: {} },
  write: (story, sound, luck) => {
    const precharge = stores.precharge * between(luck, sound, [0.97, 1.03], [0.4, 0.72]);
    const step = 2e-3;
    const starts = luck.between(1, 3);
    let done = Infinity;
    const pressures = gasPressures(
      gasOf(stores, luck, precharge),
      story === 'not-from-empty' ? 9e6 : ambient,
      (t, p) => {
        if (t > starts && p - ambient > stores.cutOut && done === Infinity) done = t;
        return t > starts && t < done ? stores.pump : 0;
      },
      { seconds: 60, step, ambient },
    );
    const stop = Number.isFinite(done) ? done : 59;
    const at = (t: number) => pressures[round(t / step)] - ambient;
    const log = writeLog(
      { ...both(at, luck), ...pumps((t) => (t > starts && t < stop ? 1 : 0)) },
      { seconds: min(59, stop + 3), rate: storeRate(luck), jitter: 0.1 },
      luck,
    );
    const stuck = starts + 0.4 * (stop - starts);
    return {
      log:
        story === 'frozen' ? freeze(freeze(log, 'accumulator_pressure', stuck), 'accumulator_pressure_2', stuck) : log,
      told: `precharge ${(precharge / 1e6).toFixed(2)} MPa`,
    };
  },
});

const applications = (stores: Stores): Case => ({
  family: stores.family,
  plan: stores.plan,
  step: 'applications',
  whole: ['in-order'],
  // A store that is used up within three strokes shows it in three.
  others: { 'pump-on': {}, empty: {}, 'cut-short': { faultyMayFail: true } },
  write: (story, sound, luck) => {
    const gas = gasOf(stores, luck, stores.precharge * (sound ? 1 : luck.between(0.2, 0.35)));
    const spacing = luck.between(8, 11);
    const strokes = story === 'cut-short' ? 3 : 24;
    const times = Array.from({ length: strokes }, (_, n) => 3 + n * spacing);
    const step = 0.02;
    const seconds = 3 + strokes * spacing;
    let pumping = false;
    const pressures = gasPressures(
      gas,
      (story === 'empty' ? 1e5 : stores.cutOut) + ambient,
      (t, p) => {
        if (story === 'pump-on') pumping = p - ambient < stores.cutIn || (pumping && p - ambient < stores.cutOut);
        const taken = times.some((at) => t >= at && t < at + 0.5) ? stores.perApplication / 0.5 : 0;
        return (pumping ? stores.pump : 0) - (p > ambient + 1e5 ? taken : 0);
      },
      { seconds, step, ambient },
    );
    const at = (t: number) => pressures[round(t / step)] - ambient;
    const lamp = { at: (t: number) => (at(t) < stores.lamp ? 1 : 0), gauging: onOff };
    const log = writeLog(
      {
        ...both(at, luck),
        [stores.lever]: { at: foot(times, 1.6, () => stores.pressed), gauging: gauge(luck, 1.4 * stores.pressed) },
        lamp_red: lamp,
        lamp_amber: lamp,
      },
      { seconds: seconds - 0.5, rate: luck.oneOf([20, 50]), jitter: 0.1 },
      luck,
    );
    return { log, told: `precharge ${(gas.precharge / 1e6).toFixed(2)} MPa` };
  },
});

/** A store that leaks, starts at cut-in and stops at cut-out, from `start` on; bled on top of it where `bleed` says. */
function cycling(
  stores: Stores,
  luck: Dice,
  how: { readonly seconds: number; readonly leak: number; readonly cutIn: number; readonly cutOut: number },
) {
  const step = 0.02;
  let on = false;
  const pump: number[] = [];
  const pressures = gasPressures(
    gasOf(stores, luck),
    how.cutOut + ambient,
    (_t, p) => {
      if (p - ambient < how.cutIn) on = true;
      else if (p - ambient > how.cutOut) on = false;
      pump.push(on ? 1 : 0);
      return (on ? stores.pump : 0) - how.leak;
    },
    { seconds: how.seconds, step, ambient },
  );
  const index = (t: number) => min(pressures.length - 1, round(t / step));
  return { at: (t: number) => pressures[index(t)] - ambient, pump: (t: number) => pump[index(t)] ?? 0 };
}

const storeSwitch = (stores: Stores): Case => ({
  family: stores.family,
  plan: stores.plan,
  step: 'pump-switch',
  whole: ['in-order'],
  others: { 'no-signal': {}, frozen: {} },
  write: (story, sound, luck) => {
    const wrong = sound ? 'none' : luck.oneOf(['cut-in', 'cut-out'] as const);
    const little = () => luck.between(0.98, 1.02);
    const circuit = cycling(stores, luck, {
      seconds: 140,
      leak: stores.pump / 6,
      cutIn: stores.cutIn * (wrong === 'cut-in' ? luck.between(0.75, 0.88) : little()),
      cutOut: stores.cutOut * (wrong === 'cut-out' ? luck.between(1.1, 1.2) : little()),
    });
    const log = writeLog(
      { ...both(circuit.at, luck), ...(story === 'no-signal' ? {} : pumps(circuit.pump)) },
      { seconds: 139, rate: storeRate(luck), jitter: 0.1 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(freeze(log, 'accumulator_pressure', 1), 'accumulator_pressure_2', 1) : log,
      told: wrong,
    };
  },
});

const restCycle = (stores: Stores): Case => ({
  family: stores.family,
  plan: stores.plan,
  step: 'rest-cycle',
  whole: ['in-order'],
  others: { 'no-signal': {}, 'one-rest': { faultyMayFail: true } },
  write: (story, sound, luck) => {
    const leak = between(luck, sound, [2, 3.5], [18, 30]) * (1e-6 / 60);
    const seconds = story === 'one-rest' ? 40 : sound ? 2_600 : 700;
    const circuit = cycling(stores, luck, { seconds, leak, cutIn: stores.cutIn, cutOut: stores.cutOut });
    const log = writeLog(
      { ...both(circuit.at, luck), ...(story === 'no-signal' ? {} : pumps(circuit.pump)) },
      { seconds: seconds - 1, rate: luck.oneOf([5, 10]), jitter: 0.1 },
      luck,
    );
    return { log, told: `leak ${(leak * 6e7).toFixed(1)} cm3/min` };
  },
});

const supplySource: Case = {
  family: 'vacuum-supply',
  plan: 'vehicle',
  step: 'source-vacuum',
  whole: ['in-order'],
  others: { 'never-started': {}, frozen: {} },
  write: (story, sound, luck) => {
    const level = between(luck, sound, [50e3, 58e3], [22e3, 33e3]);
    const starts = luck.between(1, 3);
    const pedal = foot([starts + 14, starts + 17, starts + 20], 4, () => 150);
    const supply = (t: number) =>
      story === 'never-started' || t < starts ? 0 : level * (1 - exp(-(t - starts) / 1.2)) - (pedal(t) > 75 ? 500 : 0);
    const log = writeLog(
      {
        supply_vacuum: { at: supply, gauging: vacuumGauge(luck) },
        pedal_force: { at: pedal, gauging: gauge(luck, 300) },
      },
      { seconds: starts + 26, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return { log: story === 'frozen' ? freeze(log, 'supply_vacuum', -1) : log, told: `${level.toFixed(0)} Pa` };
  },
};

/** A unit without a control port is drawn down: a time is recorded, and held against nothing. */
const inlineDraw: Case = {
  family: 'vacuum-inline',
  step: 'vacuum-draw',
  whole: ['in-order'],
  others: { 'never-opened': {}, 'still-rising': {} },
  records: true,
  write: (story, _sound, luck) => {
    const tau = story === 'still-rising' ? 30 : luck.between(0.6, 2);
    const level = luck.between(55e3, 60e3);
    const supply = (t: number) => (story === 'never-opened' || t < 2 ? 0 : level * (1 - exp(-(t - 2) / tau)));
    const log = writeLog(
      { supply_vacuum: { at: supply, gauging: vacuumGauge(luck) } },
      { seconds: 22, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return { log, told: `tau ${tau.toFixed(1)} s` };
  },
};

const remoteRelease: Case = {
  family: 'vacuum-remote',
  step: 'release',
  whole: ['in-order'],
  others: { 'never-applied': {}, 'never-let-go': {}, frozen: {} },
  write: (story, sound, luck) => {
    const goes = between(luck, sound, [0.03, 0.15], [1.2, 3]);
    const letGo = 8;
    const lever = (t: number) =>
      3e6 * min(1, max(0, (t - 2) / 2)) * (story === 'never-let-go' ? 1 : min(1, max(0, (letGo - t) / 0.3 + 1)));
    const output = (t: number) => {
      if (story === 'never-applied') return 0;
      return t < letGo ? 2.2 * lever(min(t, letGo)) : 6.6e6 * exp(-(t - letGo) / goes);
    };
    const log = writeLog(
      {
        input_pressure: { at: lever, gauging: { ...gauge(luck, 1e7, 1e3), white: 2e3, lag: 0.01 } },
        output_pressure: { at: output, gauging: { ...gauge(luck, 1e7, 1e3), white: 2e3, lag: 0.02 } },
      },
      { seconds: letGo + 8, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(log, 'output_pressure', letGo - 1) : log,
      told: `goes within ${goes.toFixed(2)} s`,
    };
  },
};

export const otherFamilies: readonly Case[] = [
  charge(storedPressure),
  storeSwitch(storedPressure),
  restCycle(storedPressure),
  applications(storedPressure),
  applications(pedalValve),
  supplySource,
  inlineDraw,
  remoteRelease,
];
