/* Strokes, sources, pumps, stores and valves that no rig worked, judged: the suite of the unit tests and of the studies. */

import { findFamily } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { evaluateStep } from '@/core/judging/evaluate-unit';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import type { StepVerdict } from '@/core/vocabulary/verdict';
import { ambient, between, foot, freeze, gauge, onOff, rateOf, storeRate, vacuumGauge, type Case } from './step-case';
import { moreSteps } from './more-steps';
import { otherFamilies } from './other-families';
import { dice, goodGauge, writeLog, type Gauging, type Signal } from './logger';
import { asksOften, writtenAs, type Rows } from './other-rows';
import { gasPressures } from './store-gas';
import { coverage, count, emptyTally, expectHonestStudy, type Tally } from './tally';

const { abs, exp, floor, max, min } = Math;

const sourceVacuum: Case = {
  family: 'vacuum-inline',
  plan: 'vehicle',
  step: 'source-vacuum',
  whole: ['in-order'],
  others: { 'never-started': {}, 'still-rising': {}, frozen: {}, 'no-pedal': { faultyMayFail: true } },
  write: (story, sound, luck) => {
    const level = between(luck, sound, [48e3, 56e3], [22e3, 33e3]);
    const starts = luck.between(1, 3);
    const strokes = [starts + 14, starts + 17, starts + 20];
    const pedal = foot(strokes, 4, () => 150);
    const supply = (t: number) => {
      if (story === 'never-started' || t < starts) return 0;
      const speed = story === 'still-rising' ? 9 : 1.2;
      return level * (1 - exp(-(t - starts) / speed)) - (pedal(t) > 75 ? 500 : 0);
    };
    const end = story === 'still-rising' ? starts + 6 : starts + 26;
    const signals: Record<string, Signal> = {
      supply_vacuum: { at: supply, gauging: vacuumGauge(luck) },
      ...(story === 'no-pedal' ? {} : { pedal_force: { at: pedal, gauging: gauge(luck, 300) } }),
    };
    const log = writeLog(signals, { seconds: end, rate: rateOf(luck), jitter: 0.2 }, luck);
    return {
      log: story === 'frozen' ? freeze(log, 'supply_vacuum', -1) : log,
      told: `${level.toFixed(0)} Pa`,
      truth: story === 'in-order' ? { 'idle-vacuum': level } : {},
    };
  },
};

/** A reserve that falls from stroke to stroke: each takes a share of what is left. */
const reserve: Case = {
  family: 'vacuum-inline',
  plan: 'vehicle',
  step: 'reserve',
  whole: ['in-order'],
  others: {
    'no-vacuum': {},
    'source-on': {},
    'too-little': { soundMayPass: true },
    'uneven-foot': { faultyMayFail: true, soundMayPass: true },
    'no-gauge': { faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const lost = luck.between(5, 8);
    const times = Array.from({ length: 7 }, (_, n) => lost + 2 + n * luck.between(2.6, 3));
    const keeps = between(luck, sound, [0.78, 0.85], [0.1, 0.3]);
    const full =
      story === 'no-vacuum' ? 0 : story === 'too-little' ? luck.between(22e3, 34e3) : luck.between(52e3, 57e3);
    const pedal = foot(times, 1.5, (n) => (story === 'uneven-foot' && n % 2 === 1 ? 110 : 200));
    const strokes = (t: number) => times.filter((at) => t > at + 0.2).length;
    const left = (t: number) => {
      if (story === 'source-on') return full * (1 - 0.1 * min(1, pedal(t) / 200));
      return full * keeps ** strokes(t);
    };
    const output = (t: number) => {
      const before = times.filter((at) => t > at + 0.6).length;
      const vacuum = story === 'source-on' ? full : full * keeps ** max(0, before - 1);
      return max(0, (pedal(t) / 200) * (1.1e6 + 70 * vacuum) - 1.5e5 * min(1, pedal(t) / 50));
    };
    const signals: Record<string, Signal> = {
      pedal_force: { at: pedal, gauging: gauge(luck, 300) },
      output_pressure: { at: output, gauging: gauge(luck, 6e6) },
      ...(story === 'no-gauge' ? {} : { supply_vacuum: { at: left, gauging: vacuumGauge(luck) } }),
    };
    return {
      log: writeLog(signals, { seconds: times[6] + 3, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 }, luck),
      told: `keeps ${keeps.toFixed(2)} of ${full.toFixed(0)} Pa`,
    };
  },
};

const samePair: Case = {
  family: 'vacuum-inline',
  plan: 'vehicle',
  step: 'same-force-pair',
  whole: ['in-order'],
  others: { 'never-started': {}, 'vacuum-left': {}, 'no-signal': { soundMayPass: true }, 'uneven-foot': {} },
  write: (story, sound, luck) => {
    const ratio = between(luck, sound, [2.6, 5], [1, 1.6]);
    const times = [2, 14];
    const pedal = foot(times, 2.5, (n) => (n === 1 && story === 'uneven-foot' ? 110 : 150));
    const on = (t: number) => (story !== 'never-started' && t > 6 ? 1 : 0);
    const vacuum = (t: number) => (story === 'vacuum-left' ? 50e3 : on(t) * 52e3 * (1 - exp(-(t - 6))));
    const boosted = (t: number) => (story === 'vacuum-left' ? ratio : 1 + (ratio - 1) * on(t));
    const signals: Record<string, Signal> = {
      pedal_force: { at: pedal, gauging: gauge(luck, 300) },
      output_pressure: { at: (t) => (pedal(t) / 150) * 9e5 * boosted(t), gauging: gauge(luck, 6e6) },
      ...(story === 'no-signal' ? {} : { supply_vacuum: { at: vacuum, gauging: vacuumGauge(luck) } }),
    };
    return {
      log: writeLog(signals, { seconds: 20, rate: rateOf(luck), jitter: 0.2 }, luck),
      told: `ratio ${ratio.toFixed(2)}`,
    };
  },
};

const release: Case = {
  family: 'vacuum-inline',
  step: 'release',
  whole: ['in-order', 'long-line'],
  others: { 'never-applied': {}, frozen: {}, 'never-let-go': {} },
  write: (story, sound, luck) => {
    const goes = between(luck, sound, [0.03, 0.15], [1.2, 3]);
    const letGo = 7;
    const rod = (t: number) =>
      1_000 * min(1, max(0, (t - 2) / 1.5)) * (story === 'never-let-go' ? 1 : min(1, max(0, (letGo - t) / 0.3 + 1)));
    const output = (t: number) => {
      if (story === 'never-applied') return 0;
      return t < letGo ? 6_000 * rod(min(t, letGo)) : 6e6 * exp(-(t - letGo) / goes);
    };
    const log = writeLog(
      {
        rod_force: { at: rod, gauging: gauge(luck, 1_500) },
        output_pressure: {
          at: output,
          gauging: {
            ...gauge(luck, 1e7, 1e3),
            white: 2e3,
            lag: story === 'long-line' ? luck.between(0.05, 0.2) : 0.02,
          },
        },
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

const pumpDown: Case = {
  family: 'vacuum-supply',
  plan: 'vehicle',
  step: 'pump-down',
  whole: ['in-order', 'vented-after'],
  others: {
    adiabatic: { soundMayPass: true, faultyMayFail: true },
    'cut-short': {},
    frozen: {},
    gap: { soundMayPass: true, faultyMayFail: true },
    'nothing-builds': {},
  },
  write: (story, sound, luck) => {
    // A volume measured with rule and calliper.
    const volume = 4_800e-6 * (1 + 0.05 * luck.normal());
    const speed = (95e-3 / 60) * between(luck, sound, [0.97, 1.1], [0.3, 0.6]);
    const tau = volume / speed;
    const settled = ambient * 0.868;
    const starts = luck.between(1, 3);
    const end = starts + tau * (story === 'cut-short' ? luck.between(0.3, 0.9) : luck.between(5, 8));
    // A shell that gives no heat at first: drawn 1.4 times as fast, the rest comes as the gas warms.
    const share = story === 'adiabatic' ? 1 + 0.4 * luck.between(0.3, 1) : 1;
    const drawn = (t: number) => {
      if (t < starts || story === 'nothing-builds') return 0;
      const vacuum = settled * (1 - exp((-(t - starts) / tau) * (1 + (share - 1) * exp(-(t - starts) / 3))));
      return story === 'vented-after' && t > end - 1.5 ? vacuum * exp(-(t - end + 1.5) / 0.3) : vacuum;
    };
    const log = writeLog(
      { supply_vacuum: { at: drawn, gauging: vacuumGauge(luck, luck.between(20, 120)) } },
      {
        seconds: end,
        rate: rateOf(luck),
        jitter: 0.2,
        ...(story === 'gap' ? { lost: [starts + 0.2 * tau, starts + 1.5 * tau] as const } : {}),
      },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(log, 'supply_vacuum', starts + tau * luck.between(0.4, 0.9)) : log,
      told: `speed ${(speed * 6e4).toFixed(0)} L/min`,
      truth: story === 'in-order' ? { 'pump-speed': speed, 'ultimate-pressure': ambient - settled } : {},
    };
  },
};

/** A pump that keeps a reservoir between two thresholds, its rests falling at `leak` (Pa/s). */
function cycling(low: number, high: number, leak: number, seconds: number, starts = high) {
  const times: number[] = [];
  const step = 0.01;
  const vacuum = new Float64Array(floor(seconds / step) + 2);
  const pump = new Float64Array(vacuum.length);
  let [level, on] = [starts, 0];
  for (let i = 0; i < vacuum.length; i++) {
    if (on === 0 && level <= low) on = 1;
    if (on === 1 && level >= high) on = 0;
    level += on === 1 ? 3_500 * step : -leak * step;
    vacuum[i] = level;
    pump[i] = on;
    if (i > 0 && pump[i] !== pump[i - 1]) times.push(i * step);
  }
  const at = (column: Float64Array) => (t: number) => column[min(column.length - 1, max(0, Math.round(t / step)))];
  return { vacuum: at(vacuum), pump: at(pump) };
}

const pumpSwitch: Case = {
  family: 'vacuum-supply',
  plan: 'vehicle',
  step: 'pump-switch',
  whole: ['in-order'],
  others: { 'slow-log': { soundMayPass: true, faultyMayFail: true }, 'never-starts': {}, 'no-signal': {} },
  write: (story, sound, luck) => {
    const shift = sound ? luck.between(-600, 600) : luck.oneOf([-1, 1]) * luck.between(7e3, 12e3);
    const [low, high] = [54e3 + shift, 68e3 + shift];
    const run = cycling(low, high, story === 'never-starts' ? 1 : luck.between(600, 1_500), 70);
    const signals: Record<string, Signal> = {
      supply_vacuum: { at: run.vacuum, gauging: vacuumGauge(luck) },
      ...(story === 'no-signal' ? {} : { pump_on: { at: run.pump, gauging: onOff } }),
    };
    return {
      log: writeLog(signals, { seconds: 70, rate: story === 'slow-log' ? 1 : luck.oneOf([10, 50]), jitter: 0.2 }, luck),
      told: `shift ${shift.toFixed(0)} Pa`,
      truth: story === 'in-order' ? { 'pump-cut-in': low, 'pump-cut-out': high } : {},
    };
  },
};

const restLeak: Case = {
  family: 'vacuum-supply',
  plan: 'vehicle',
  step: 'rest-leak',
  whole: ['in-order'],
  others: {
    'never-pumped': {},
    'no-signal': { faultyMayFail: true, soundMayPass: true },
    'pump-runs-on': {},
    frozen: {},
  },
  write: (story, sound, luck) => {
    // 50 standard cubic centimetres a minute are 16 Pa/s of 4.8 litres.
    const leak = between(luck, sound, [0, 7], [30, 400]);
    const run = cycling(54e3, 68e3, leak, 90, story === 'never-pumped' ? 0 : 60e3);
    const seen = (t: number): number =>
      story === 'never-pumped'
        ? 0
        : story === 'pump-runs-on'
          ? 68e3
          : t < 3
            ? 60e3 + (8e3 * t) / 3
            : run.vacuum(t - 3 + 2.3);
    const level = (t: number) =>
      story === 'never-pumped' || story === 'pump-runs-on'
        ? seen(t)
        : t < 3
          ? seen(t)
          : max(54e3, 68e3 - leak * (t - 3));
    const pumping = (t: number) => (story === 'pump-runs-on' || (t < 3 && story !== 'never-pumped') ? 1 : 0);
    const end = leak > 0 ? min(70, 3 + 13e3 / leak) : 70;
    const signals: Record<string, Signal> = {
      supply_vacuum: { at: level, gauging: vacuumGauge(luck, luck.between(20, 80)) },
      ...(story === 'no-signal' ? {} : { pump_on: { at: pumping, gauging: onOff } }),
    };
    const log = writeLog(signals, { seconds: max(end, 14), rate: luck.oneOf([10, 50]), jitter: 0.2 }, luck);
    return { log: story === 'frozen' ? freeze(log, 'supply_vacuum', 5) : log, told: `leak ${leak.toFixed(1)} Pa/s` };
  },
};

const charge: Case = {
  family: 'motor-pump-boost',
  step: 'charge-from-empty',
  whole: ['in-order'],
  others: {
    'not-from-empty': {},
    'no-signal': { soundMayPass: true, faultyMayFail: true },
    frozen: {},
    'warm-shell': { soundMayPass: true, faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const precharge = 8e6 * between(luck, sound, [0.97, 1.03], [0.4, 0.72]);
    const shell = 284.15 + (story === 'warm-shell' ? 5 : luck.between(-5, 5));
    const gas = {
      precharge: precharge + ambient,
      volume: 250e-6 * luck.between(0.98, 1.02),
      shell,
      tau: luck.between(20, 45),
    };
    const starts = luck.between(1, 3);
    const begin = story === 'not-from-empty' ? (precharge + 2e6) * 0.97 : ambient;
    let done = Infinity;
    const step = 2e-3;
    const pump = 6e-6 * luck.between(0.95, 1.05);
    const pressures = gasPressures(
      gas,
      begin,
      (t, p) => {
        if (t > starts && p - ambient > 18e6 && done === Infinity) done = t;
        return t > starts && t < done ? pump : 0;
      },
      { seconds: 70, step, ambient },
    );
    const stop = Number.isFinite(done) ? done : 69;
    const log = writeLog(
      {
        accumulator_pressure: {
          at: (t) => pressures[Math.round(t / step)] - ambient,
          gauging: { ...gauge(luck, 2e7, 2e3), white: luck.between(2e3, 1.2e4), lag: luck.between(0, 0.02) },
        },
        ...(story === 'no-signal'
          ? {}
          : { pump_on: { at: (t: number) => (t > starts && t < stop ? 1 : 0), gauging: onOff } }),
      },
      { seconds: min(69, stop + 3), rate: storeRate(luck), jitter: 0.1 },
      luck,
    );
    return {
      log:
        story === 'frozen'
          ? freeze(log, 'accumulator_pressure', starts + luck.between(0.2, 0.6) * (stop - starts))
          : log,
      told: `precharge ${(precharge / 1e6).toFixed(2)} MPa`,
      truth: story === 'in-order' ? { precharge } : {},
    };
  },
};

const applications: Case = {
  family: 'motor-pump-boost',
  step: 'applications',
  whole: ['in-order'],
  others: { 'pump-on': {}, 'half-charged': { soundMayPass: true }, empty: {}, 'cut-short': {} },
  write: (story, sound, luck) => {
    const gas = {
      precharge: 8e6 * (sound ? 1 : luck.between(0.3, 0.5)) + ambient,
      volume: 250e-6,
      shell: 284.15,
      tau: luck.between(20, 45),
    };
    const from = story === 'half-charged' ? 12e6 : story === 'empty' ? 1e5 : 18e6;
    const spacing = luck.between(8, 11);
    const strokes = story === 'cut-short' ? 3 : 20;
    const times = Array.from({ length: strokes }, (_, n) => 3 + n * spacing);
    const step = 0.02;
    const seconds = 3 + strokes * spacing;
    let pumping = false;
    const pressures = gasPressures(
      gas,
      from + ambient,
      (t, p) => {
        if (story === 'pump-on') pumping = p - ambient < 14e6 || (pumping && p - ambient < 18e6);
        const taken = times.some((at) => t >= at && t < at + 0.5) ? 6e-6 / 0.5 : 0;
        return (pumping ? 6e-6 : 0) - (p > ambient + 1e5 ? taken : 0);
      },
      { seconds, step, ambient },
    );
    const log = writeLog(
      {
        accumulator_pressure: {
          at: (t) => pressures[Math.round(t / step)] - ambient,
          gauging: { ...gauge(luck, 2e7, 2e3), white: 4e3 },
        },
        rod_force: { at: foot(times, 1.6, () => 700), gauging: gauge(luck, 1e3) },
        lamp_red: { at: (t) => (pressures[Math.round(t / step)] - ambient < 10.5e6 ? 1 : 0), gauging: onOff },
      },
      { seconds: seconds - 0.5, rate: luck.oneOf([20, 50]), jitter: 0.1 },
      luck,
    );
    return { log, told: `precharge ${(gas.precharge / 1e6).toFixed(2)} MPa` };
  },
};

const soak: Case = {
  family: 'stored-pressure',
  plan: 'vehicle',
  step: 'soak',
  whole: ['in-order'],
  others: { 'nearly-empty': {}, frozen: {}, 'ten-minutes': { soundMayPass: true, faultyMayFail: true } },
  write: (story, sound, luck) => {
    const hours = story === 'ten-minutes' ? 0.16 : luck.between(1.5, 4);
    const half = 3600 * between(luck, sound, [3, 20], [0.1, 0.25]);
    const top = story === 'nearly-empty' ? 2e6 : 16.3e6;
    const level = (t: number) => max(0, top * 0.5 ** (t / half) + 0.6e6 * exp(-t / 30));
    const noisy = (): Signal => ({ at: level, gauging: { ...gauge(luck, 2e7, 2e3), white: 6e3, lag: 0 } });
    const log = writeLog(
      { accumulator_pressure: noisy(), accumulator_pressure_2: noisy() },
      { seconds: hours * 3600, rate: 0.2, jitter: 0.1 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(freeze(log, 'accumulator_pressure', -1), 'accumulator_pressure_2', -1) : log,
      told: `half-life ${(half / 3600).toFixed(2)} h`,
    };
  },
};

const electrical: Case = {
  family: 'motor-pump-boost',
  step: 'supply-check',
  whole: ['in-order', 'other-motor'],
  others: { short: {}, 'never-ran': {}, 'half-way': { soundMayPass: true, faultyMayFail: true } },
  write: (story, sound, luck) => {
    const amperes = 38 * (sound ? luck.between(0.92, 1.08) : luck.between(1.5, 2));
    const drop = sound ? luck.between(0.2, 0.42) : luck.between(0.9, 1.6);
    const idle = story === 'other-motor' ? luck.between(0.1, 0.8) : 0.4;
    const starts = 3;
    const runs = story === 'short' ? 2 : 28;
    const pressure = (t: number) => {
      const along = min(1, max(0, (t - starts) / 28));
      return t < starts ? 0 : story === 'half-way' ? 8e6 + 4e6 * along : 8e6 + 10e6 * along;
    };
    const on = (t: number) => (story !== 'never-ran' && t > starts && t < starts + runs ? 1 : 0);
    const current = (t: number) =>
      on(t) * amperes * (idle + (1 - idle) * (pressure(t) / 18e6) + 1.5 * exp(-(t - starts) / 0.15));
    const log = writeLog(
      {
        supply_voltage: {
          at: (t) => 12.6 - (drop * current(t)) / amperes,
          gauging: { ...goodGauge, white: 0.01, division: 0.01 },
        },
        motor_current: {
          at: current,
          gauging: { ...goodGauge, white: 0.2, division: 0.1, gain: luck.normal() * 0.0058 },
        },
        pump_on: { at: on, gauging: onOff },
        accumulator_pressure: { at: pressure, gauging: gauge(luck, 2e7, 2e3) },
      },
      { seconds: starts + (story === 'never-ran' ? 20 : runs) + 3, rate: rateOf(luck), jitter: 0.1 },
      luck,
    );
    return {
      log,
      told: `${amperes.toFixed(0)} A, ${drop.toFixed(2)} V`,
      truth: story === 'other-motor' || story === 'in-order' ? { 'run-current': amperes } : {},
    };
  },
};

const stamp: Case = {
  family: 'pedal-valve',
  step: 'step-response',
  whole: ['in-order'],
  others: {
    'never-pressed': {},
    'no-pressure': {},
    'long-line': { soundMayPass: true, faultyMayFail: true },
    'slow-log': { soundMayPass: true, faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const tau = between(luck, sound, [0.02, 0.06], [0.5, 1.2]);
    const pressed = (t: number) =>
      story === 'never-pressed' ? 0 : 20 * min(1, max(0, (t - 2) / 0.1)) * (t > 8 ? 0 : 1);
    const circuit = (t: number) =>
      story === 'no-pressure'
        ? 0
        : t < 2
          ? 0
          : t < 8
            ? 6.8e6 * (1 - exp(-(t - 2.05) / tau))
            : 6.8e6 * exp(-(t - 8) / 0.1);
    const line = (long: boolean): Gauging => ({
      ...gauge(luck, 1e7, 1e3),
      lag: long ? luck.between(0.1, 0.2) : luck.between(0, 0.03),
    });
    const log = writeLog(
      {
        pedal_angle: { at: pressed, gauging: { ...goodGauge, white: 0.02, division: 0.01 } },
        front_pressure: { at: (t) => max(0, circuit(t)), gauging: line(false) },
        rear_pressure: { at: (t) => max(0, circuit(t)), gauging: line(story === 'long-line') },
      },
      { seconds: 12, rate: story === 'slow-log' ? 5 : luck.oneOf([50, 100, 200]), jitter: 0.1 },
      luck,
    );
    return { log, told: `tau ${tau.toFixed(2)} s` };
  },
};

const relief: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'pump-relief',
  whole: ['in-order', 'chatter'],
  others: {
    'shut-at-once': { faultyMayFail: true },
    'never-shut': {},
    'short-dead-head': { faultyMayFail: true, soundMayPass: true },
  },
  write: (story, sound, luck) => {
    const opens = 9e6 * (sound ? luck.between(0.96, 1.04) : luck.between(0.5, 0.8));
    const pumped = 7e-3 / 60;
    const shut = story === 'shut-at-once' ? 0.2 : luck.between(5, 8);
    const lasts = story === 'short-dead-head' ? 0.25 : 3;
    const open = shut + lasts;
    const line = (t: number) => {
      if (t < shut || story === 'never-shut') return 5e5;
      if (t > open) return 5e5 + (opens - 5e5) * exp(-(t - open) / 0.1);
      const risen = opens - (opens - 5e5) * exp(-(t - shut) / 0.12);
      return story === 'chatter' ? risen + 2.5e5 * Math.sin(40 * t) : risen;
    };
    const flow = (t: number) => (t > shut && t < open && story !== 'never-shut' ? 0 : pumped);
    const log = writeLog(
      {
        pump_pressure: { at: line, gauging: gauge(luck, 1.6e7, 1e3) },
        flow: { at: flow, gauging: { ...goodGauge, white: pumped * 0.01, division: 5e-6 / 60 } },
      },
      { seconds: open + (story === 'shut-at-once' ? 0.5 : 3), rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
      luck,
    );
    return { log, told: `${(opens / 1e6).toFixed(2)} MPa` };
  },
};

const neutralLeak: Case = {
  family: 'pedal-valve',
  step: 'neutral-leak',
  whole: ['in-order'],
  others: { 'nothing-stored': {}, 'no-store-gauge': { faultyMayFail: true } },
  write: (story, sound, luck) => {
    const leak = 1e-6 * between(luck, sound, [0.5, 2.5], [6, 12]);
    const pressure = story === 'nothing-stored' ? 2e5 : 13e6;
    const log = writeLog(
      {
        flow: {
          at: () => (story === 'nothing-stored' ? 0 : leak),
          gauging: { ...goodGauge, white: 5e-8, division: 1e-8 },
        },
        ...(story === 'no-store-gauge'
          ? {}
          : { accumulator_pressure: { at: () => pressure, gauging: gauge(luck, 2e7, 2e3) } }),
      },
      { seconds: 12, rate: rateOf(luck) },
      luck,
    );
    return { log, told: `${(leak * 6e7).toFixed(0)} cm3/min` };
  },
};

const stopLamp: Case = {
  family: 'vacuum-remote',
  step: 'stop-lamp-switch',
  whole: ['in-order', 'bouncing'],
  others: { 'never-pulled': {}, quick: { soundMayPass: true, faultyMayFail: true }, 'always-on': {} },
  write: (story, sound, luck) => {
    const closes = between(luck, sound, [300e3, 540e3], [750e3, 1.1e6]);
    const lasts = story === 'quick' ? 0.3 : luck.between(6, 15);
    const input = (t: number) =>
      story === 'never-pulled'
        ? 0
        : t < 2
          ? 0
          : t < 2 + lasts
            ? (1.5e6 * (t - 2)) / lasts
            : max(0, 1.5e6 * (1 - (t - 3 - lasts) / lasts));
    const contact = (t: number) => {
      if (story === 'always-on') return 1;
      const on = input(t) > closes ? 1 : 0;
      return story === 'bouncing' && abs(input(t) - closes) < 3e3 ? floor(t * 300) % 2 : on;
    };
    const log = writeLog(
      {
        input_pressure: {
          at: (t) => min(1.5e6, input(t)),
          gauging: { ...gauge(luck, 4e6, 1e3), lag: luck.between(0, 0.03) },
        },
        stop_switch: { at: contact, gauging: onOff },
      },
      { seconds: 6 + 2 * lasts, rate: luck.oneOf([20, 50, 200]), jitter: 0.1 },
      luck,
    );
    return {
      log,
      told: `closes at ${(closes / 1e3).toFixed(0)} kPa`,
      truth: story === 'in-order' ? { 'switch-close-pressure': closes } : {},
    };
  },
};

/** A store left alone with its pump: it leaks, starts at cut-in, stops at cut-out. */
const restCycle: Case = {
  family: 'motor-pump-boost',
  step: 'rest-cycle',
  whole: ['in-order'],
  others: {
    'foot-on': { faultyMayFail: true, soundMayPass: true },
    'no-signal': {},
    'one-rest': { faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const gas = { precharge: 8e6 + ambient, volume: 250e-6, shell: 284.15, tau: luck.between(20, 45) };
    const leak = (between(luck, sound, [0.06, 0.14], [0.7, 1.5]) * 1e-6) / 14e6;
    const seconds = story === 'one-rest' ? 60 : sound ? 1_400 : 420;
    const step = 0.02;
    let on = false;
    const pumping: number[] = [];
    const strokes = story === 'foot-on' ? Array.from({ length: 6 }, (_, n) => seconds * (0.1 + 0.14 * n)) : [];
    const pressures = gasPressures(
      gas,
      18e6 + ambient,
      (t, p) => {
        if (p - ambient < 14e6) on = true;
        else if (p - ambient > 18e6) on = false;
        pumping.push(on ? 1 : 0);
        const taken = strokes.some((at) => t >= at && t < at + 0.5) ? 5e-6 : 0;
        return (on ? 6e-6 : 0) - leak * (p - ambient) - taken;
      },
      { seconds, step, ambient },
    );
    const at = (t: number) => min(pressures.length - 1, Math.round(t / step));
    const signals: Record<string, Signal> = {
      accumulator_pressure: {
        at: (t) => pressures[at(t)] - ambient,
        gauging: { ...gauge(luck, 2e7, 2e3), white: 4e3, lag: 0.02, gain: luck.normal() * 0.001 },
      },
      ...(story === 'no-signal' ? {} : { pump_on: { at: (t: number) => pumping[at(t)] ?? 0, gauging: onOff } }),
    };
    return {
      log: writeLog(signals, { seconds: seconds - 1, rate: luck.oneOf([5, 10, 20]), jitter: 0.1 }, luck),
      told: `leak ${(leak * 14e6 * 6e7).toFixed(1)} cm3/min`,
    };
  },
};

const bleedDown: Case = {
  family: 'motor-pump-boost',
  step: 'bleed-down',
  whole: ['in-order'],
  others: { 'stops-half-way': { faultyMayFail: true }, 'no-signal': { faultyMayFail: true } },
  write: (story, sound, luck) => {
    const precharge = 8e6 * between(luck, sound, [0.98, 1.02], [0.4, 0.7]);
    const gas = {
      precharge: precharge + ambient,
      volume: 250e-6,
      shell: 284.15 + luck.between(-5, 5),
      tau: luck.between(24, 38),
    };
    const step = 2e-3;
    const seconds = 150;
    const starts = 14e6 + luck.between(-1e5, 1e5);
    let started = Infinity;
    const ends = story === 'stops-half-way' ? 11e6 : 0;
    const pressures = gasPressures(
      gas,
      18e6 + ambient,
      (t, p) => {
        const level = p - ambient;
        if (t > 2 && level < starts && started === Infinity) started = t;
        return t < 2 || level <= ends ? 0 : -1.6e-6 * Math.sqrt(level / 18e6);
      },
      { seconds, step, ambient },
    );
    const last = pressures.findIndex((p) => p - ambient < max(5e4, ends));
    const end = (last < 0 ? pressures.length - 1 : last) * step + 3;
    const log = writeLog(
      {
        accumulator_pressure: {
          at: (t) => pressures[min(pressures.length - 1, Math.round(t / step))] - ambient,
          gauging: { ...gauge(luck, 2e7, 2e3), white: luck.between(2e3, 1e4), lag: luck.between(0, 0.02) },
        },
        ...(story === 'no-signal'
          ? {}
          : { pump_on: { at: (t: number) => (t > started && t < started + 0.3 ? 1 : 0), gauging: onOff } }),
      },
      { seconds: min(seconds - 1, end), rate: luck.oneOf([50, 100]), jitter: 0.1 },
      luck,
    );
    return {
      log,
      told: `precharge ${(precharge / 1e6).toFixed(2)} MPa`,
      truth: story === 'in-order' ? { precharge } : {},
    };
  },
};

const pedalDrop: Case = {
  family: 'vacuum-inline',
  plan: 'vehicle',
  step: 'pedal-drop',
  whole: ['in-order', 'creeping'],
  others: {
    'never-started': {},
    'no-engine-signal': { faultyMayFail: true },
    'not-pumped': { soundMayPass: true },
    'foot-moves': { soundMayPass: true, faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const sink = between(luck, sound, [9e-3, 20e-3], [0, 2e-3]);
    const pumped = story === 'not-pumped' ? 0 : 8;
    const times = Array.from({ length: pumped }, (_, n) => 1 + 2 * n);
    const holds = 3 + 2 * pumped;
    const starts = holds + (story === 'creeping' ? luck.between(1, 5) : luck.between(3, 5));
    const end = starts + 6;
    const strokes = foot(times, 1, () => 200);
    const held = (t: number) => 150 * min(1, max(0, (t - holds) / 0.6)) * min(1, max(0, (end - t) / 0.5));
    const push = (t: number) => max(strokes(t), held(t) * (story === 'foot-moves' && t > starts + 1 ? 1.15 : 1));
    const creep = story === 'creeping' ? luck.between(0.2e-3, 2e-3) : 0;
    const on = (t: number) => (story !== 'never-started' && t > starts ? 1 : 0);
    const travel = (t: number) =>
      (0.05 * push(t)) / 200 + (t > holds ? creep * (t - holds) + on(t) * sink * (1 - exp(-(t - starts) / 0.5)) : 0);
    const signals: Record<string, Signal> = {
      pedal_force: { at: push, gauging: gauge(luck, 300) },
      pedal_travel: { at: travel, gauging: { ...goodGauge, white: 5e-5, division: 5e-5 } },
      output_pressure: { at: (t) => (push(t) / 200) * 1e6, gauging: gauge(luck, 6e6) },
      ...(story === 'no-engine-signal' ? {} : { engine_on: { at: on, gauging: onOff } }),
    };
    return {
      log: writeLog(signals, { seconds: end + 1, rate: rateOf(luck), jitter: 0.2 }, luck),
      told: `sinks ${(sink * 1e3).toFixed(1)} mm`,
    };
  },
};

const steering: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'steering-share',
  whole: ['in-order'],
  others: { 'never-steered': { faultyMayFail: true }, 'no-boost': {}, 'no-foot': {} },
  write: (story, sound, luck) => {
    const sag = 9e6 * between(luck, sound, [0.02, 0.15], [0.4, 0.6]);
    const push = foot([2], 9, () => (story === 'no-foot' ? 0 : 250));
    const steers = story === 'never-steered' ? Infinity : 5;
    const hard = (t: number) => min(1, max(0, (t - steers) / 0.4)) * min(1, max(0, (steers + 4 - t) / 0.4));
    const boost = (t: number) => (story === 'no-boost' ? 0 : (push(t) / 250) * 8.3e6 - hard(t) * sag);
    const line = (t: number) => 5e5 + max((push(t) / 250) * 6.5e6, hard(t) * 8.8e6);
    const log = writeLog(
      {
        pedal_force: { at: push, gauging: gauge(luck, 400) },
        boost_pressure: { at: (t) => max(0, boost(t)), gauging: gauge(luck, 1e7, 1e3) },
        pump_pressure: { at: line, gauging: gauge(luck, 1e7, 1e3) },
      },
      { seconds: 13, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return { log, told: `sags ${(sag / 1e6).toFixed(2)} MPa` };
  },
};

const residual: Case = {
  family: 'pedal-valve',
  step: 'residual',
  whole: ['in-order'],
  others: { 'never-pressed': {}, 'no-pressure': {} },
  write: (story, sound, luck) => {
    const left = between(luck, sound, [0, 15e3], [80e3, 400e3]);
    const pressed = (t: number) =>
      story === 'never-pressed' ? 0 : 18 * min(1, max(0, (t - 2) / 1.5)) * (t > 6 ? max(0, 1 - (t - 6) / 0.2) : 1);
    const circuit = (t: number) => {
      if (story === 'no-pressure' || story === 'never-pressed' || t < 2.2) return 0;
      return t < 6 ? 6.8e6 * (1 - exp(-(t - 2.2) / 0.3)) : left + (6.8e6 - left) * exp(-(t - 6) / 0.15);
    };
    const line = () => ({ ...gauge(luck, 1e7, 1e3), white: 3e3 });
    const log = writeLog(
      {
        pedal_angle: { at: pressed, gauging: { ...goodGauge, white: 0.02, division: 0.01 } },
        front_pressure: { at: circuit, gauging: line() },
        rear_pressure: { at: circuit, gauging: line() },
      },
      { seconds: 11, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return { log, told: `${(left / 1e3).toFixed(0)} kPa left` };
  },
};

const parking: Case = {
  family: 'pedal-valve',
  step: 'parking-release',
  whole: ['in-order'],
  others: { 'at-once': { soundMayPass: true, faultyMayFail: true }, 'never-lets-go': {}, 'lamp-off-first': {} },
  write: (story, sound, luck) => {
    const frees = 3.2e6 * between(luck, sound, [0.96, 1.04], [0.6, 0.8]);
    const lasts = story === 'at-once' ? 0.4 : luck.between(8, 20);
    const raised = (t: number) => 3.9e6 * min(1, max(0, (t - 1) / lasts));
    const on = (t: number) => (story === 'lamp-off-first' ? 0 : story === 'never-lets-go' || raised(t) < frees ? 1 : 0);
    const log = writeLog(
      {
        parking_pressure: { at: raised, gauging: { ...gauge(luck, 1e7, 1e3), lag: luck.between(0, 0.1) } },
        parking_brake: { at: on, gauging: onOff },
      },
      { seconds: lasts + 3, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return {
      log,
      told: `free at ${(frees / 1e6).toFixed(2)} MPa`,
      truth: story === 'in-order' ? { 'parking-release-pressure': frees } : {},
    };
  },
};

/** Every step that this writer knows. */
export const cases: readonly Case[] = [
  restCycle,
  bleedDown,
  pedalDrop,
  steering,
  residual,
  parking,
  sourceVacuum,
  reserve,
  samePair,
  release,
  pumpDown,
  pumpSwitch,
  restLeak,
  charge,
  applications,
  soak,
  electrical,
  stamp,
  relief,
  neutralLeak,
  stopLamp,
  ...moreSteps,
  ...otherFamilies,
];

export function benchOf({ family: id, plan, step: stepId }: Case) {
  const [kind] = findFamily(id)!.kinds;
  const checked = checkKind(kind, 'foreign', kind.sheet.example.spec, 'foreign');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', plan ?? kind.plans[0].id);
  return { kind, step: kind.steps.find((each) => each.id === stepId) as MeasuredStep<unknown>, context };
}

export function foreignSteps(perCase: number, seed: number, rows: Rows = 'a-row-a-sample'): void {
  const tallies = new Map<string, Tally>();
  const covered = coverage();

  describe('strokes, pumps, stores and valves that no rig worked', () => {
    for (const each of cases) {
      const { kind, step, context } = benchOf(each);
      const name = `${each.family} ${each.step}`;
      it.each([...each.whole, ...Object.keys(each.others)])(
        `${name}: %s is never judged wrongly without a word`,
        (story) => {
          const tally = emptyTally();
          const luck = dice(seed + name.length * 31 + story.length * 1009);
          const isWhole = each.whole.includes(story);
          const may = each.others[story] ?? {};
          for (let n = 0; n < perCase; n++) {
            const sound = luck.chance(0.5);
            const { log: once, told, truth = {} } = each.write(story, sound, luck);
            const log = writtenAs(rows, once);
            const result = evaluateStep(kind, step, [{ analysed: () => step.analyse(log, context) }], {
              context,
              policy: 'guarded',
            });
            const wrong: StepVerdict[] = [];
            if (!(sound && (isWhole || may.soundMayPass))) wrong.push('pass');
            if (!(!sound && (isWhole || may.faultyMayFail))) wrong.push('fail');
            const checks = result.checks
              .filter((check) => check.verdict.kind !== 'pass')
              .map((check) => {
                const found = result.characteristics.find((one) => one.id === check.characteristic);
                return `${check.characteristic} ${check.verdict.kind} ${found?.kind === 'measured' ? `${found.estimate.value.toPrecision(4)} ± ${expandedUncertainty(found.estimate).toPrecision(2)}` : found ? found.problem.code : ''}`;
              });
            count(
              tally,
              result,
              { wrong: each.records ? ['pass', 'fail'] : wrong, shouldPass: sound && isWhole && !each.records },
              `${name} ${story} ${sound ? 'sound' : 'faulty'} ${told}: ${checks.join('; ')}`,
            );
            for (const [id, value] of Object.entries(truth)) {
              const found = result.characteristics.find((one) => one.id === id);
              if (found?.kind === 'measured') covered.see(`${name} ${id}`, found.estimate, value);
            }
          }
          tallies.set(`${name} ${story}`, tally);
          expect(tally.wrongs.filter((told) => !told.startsWith('(sound)'))).toEqual([]);
        },
      );
    }

    if (!asksOften(rows)) return;
    it('sound units that were well measured pass, and U covers what they are', () => {
      expectHonestStudy(tallies, covered, perCase, { ofBounds: true });
    });
  });
}
