/* Gauges compared, sources drawn and asked, reserves, soaks, bumps and charging valves that no rig worked. */

import { ambient, between, foot, freeze, gauge, onOff, rateOf, storeRate, vacuumGauge, type Case } from './step-case';
import { goodGauge, writeLog, type Dice, type Signal } from './logger';
import { gasPressures } from './store-gas';

const { exp, max, min, round } = Math;

/** A lever moved from level to level, each held for a while. */
function staircase(levels: readonly number[], held: number): (t: number) => number {
  return (t) => {
    const at = min(levels.length - 1, max(0, Math.floor(t / held)));
    const before = levels[max(0, at - 1)];
    return before + (levels[at] - before) * min(1, (t - at * held) / 0.6);
  };
}

/** Two gauges on one pressure: what the second reads is `gain` times the first, and `offset`. */
const gaugePair: Case = {
  family: 'vacuum-remote',
  step: 'gauge-agreement',
  whole: ['in-order'],
  others: { 'too-few': {}, frozen: {}, 'vacuum-on': {} },
  write: (story, sound, luck) => {
    const gain = 1 + (sound ? luck.between(-0.01, 0.01) : luck.between(0.04, 0.06));
    const offset = luck.between(-2e4, 2e4);
    const levels = story === 'too-few' ? [0, 3e6] : [0, 1e6, 2.5e6, 4e6, 5.5e6, 4e6, 2e6, 0];
    const held = luck.between(3, 5);
    const input = staircase(levels, held);
    const boosted = story === 'vacuum-on' ? 3 : 1;
    const plain = { ...goodGauge, white: luck.between(1e3, 8e3), division: 1e3, lag: luck.between(0, 0.03) };
    const log = writeLog(
      {
        input_pressure: { at: input, gauging: plain },
        output_pressure: { at: (t) => gain * boosted * input(t) + offset, gauging: plain },
        supply_vacuum: { at: () => (story === 'vacuum-on' ? 58e3 : 0), gauging: vacuumGauge(luck) },
      },
      { seconds: levels.length * held, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(log, 'output_pressure', -1) : log,
      told: `gain ${gain.toFixed(3)}`,
      truth: story === 'in-order' ? { 'pair-offset': offset, 'pair-gain': gain } : {},
    };
  },
};

/** Both ports of a unit drawn down together; a faulty valve leaves them apart. */
const draw: Case = {
  family: 'vacuum-remote',
  step: 'vacuum-draw',
  whole: ['in-order'],
  others: {
    'never-opened': {},
    'still-rising': {},
    'too-little': { faultyMayFail: true },
    'control-frozen': { faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const apart = between(luck, sound, [0, 300], [3_000, 8_000]);
    const level = story === 'too-little' ? luck.between(15e3, 30e3) : luck.between(55e3, 60e3);
    const tau = story === 'still-rising' ? 30 : luck.between(0.6, 2);
    const opened = luck.between(1, 3);
    const supply = (t: number) => (story === 'never-opened' || t < opened ? 0 : level * (1 - exp(-(t - opened) / tau)));
    const zeros = [vacuumGauge(luck), vacuumGauge(luck)];
    const log = writeLog(
      {
        supply_vacuum: { at: supply, gauging: zeros[0] },
        control_vacuum: { at: (t) => max(0, supply(t) - apart * min(1, supply(t) / level)), gauging: zeros[1] },
      },
      { seconds: opened + 20, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return {
      log: story === 'control-frozen' ? freeze(log, 'control_vacuum', -1) : log,
      told: `${apart.toFixed(0)} Pa apart`,
    };
  },
};

/** A push without assist: straight, its slope what area and springs make of it. */
function unassisted(family: 'vacuum-inline' | 'motor-pump-boost', supply: string, full: number): Case {
  return {
    family,
    step: 'unassisted-curve',
    whole: ['in-order'],
    others: {
      'supply-on': {},
      'no-supply-gauge': { soundMayPass: true, faultyMayFail: true },
      quick: {},
      frozen: {},
      gap: {},
    },
    write: (story, sound, luck) => {
      const slope = 1_874.8 * between(luck, sound, [0.96, 1.04], [0.6, 0.75]);
      const [rest, up, held, down] =
        story === 'quick' ? [1, 0.4, 0.5, 0.4] : [2, luck.between(8, 20), luck.between(1, 3), luck.between(6, 15)];
      const top = luck.between(800, 1_200);
      const rod = (t: number) =>
        top * min(1, max(0, (t - rest) / up)) * min(1, max(0, (rest + up + held + down - t) / down));
      const helped = story === 'supply-on' ? 4 : 1;
      const output = (t: number) => max(0, helped * slope * (rod(t) - 60 - 120));
      const signals: Record<string, Signal> = {
        rod_force: { at: rod, gauging: gauge(luck, 1_500) },
        output_pressure: { at: output, gauging: gauge(luck, 4e6) },
        ...(story === 'no-supply-gauge'
          ? {}
          : {
              [supply]: {
                at: () => (story === 'supply-on' ? full : 0),
                gauging: supply === 'supply_vacuum' ? vacuumGauge(luck) : gauge(luck, 2e7),
              },
            }),
      };
      const log = writeLog(
        signals,
        {
          seconds: rest + up + held + down + 2,
          rate: luck.oneOf([20, 50, 100]),
          jitter: 0.2,
          ...(story === 'gap' ? { lost: [rest + 0.2 * up, rest + 0.85 * up] as const } : {}),
        },
        luck,
      );
      return {
        log: story === 'frozen' ? freeze(log, 'output_pressure', rest + up / 2) : log,
        told: `slope ${slope.toFixed(0)} Pa/N`,
        truth: story === 'in-order' ? { 'unassisted-slope': slope } : {},
      };
    },
  };
}

/** What one stroke costs a source: no limit, but a figure. */
const demand: Case = {
  family: 'vacuum-supply',
  plan: 'vehicle',
  step: 'demand',
  whole: ['in-order'],
  others: { 'never-opened': {}, 'no-stroke': {} },
  records: true,
  write: (story, _sound, luck) => {
    const cost = luck.between(4e3, 9e3);
    const level = story === 'never-opened' ? 0 : luck.between(50e3, 60e3);
    const pedal = foot([4, 14], 2, () => (story === 'no-stroke' ? 0 : 200));
    // Air is taken in when the pedal comes back; the pump makes it up slowly.
    const taken = (t: number) =>
      [6, 16].reduce(
        (sum, at) => sum + (t > at ? cost * min(1, (t - at) / 0.3) * exp(-max(0, t - at - 0.3) / 40) : 0),
        0,
      );
    const log = writeLog(
      {
        supply_vacuum: { at: (t) => max(0, level - (level > 0 ? taken(t) : 0)), gauging: vacuumGauge(luck) },
        pedal_force: { at: pedal, gauging: gauge(luck, 400) },
      },
      { seconds: 20, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 },
      luck,
    );
    return {
      log,
      told: `${cost.toFixed(0)} Pa a stroke`,
      truth: story === 'in-order' ? { 'vacuum-per-application': cost } : {},
    };
  },
};

/** The reserve of a hydraulic booster: gas that gives strokes, engine off. */
const hydraulicReserve: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'reserve',
  whole: ['in-order'],
  others: {
    'nothing-stored': {},
    'engine-on': {},
    'uneven-foot': {},
    'no-store-gauge': { faultyMayFail: true },
  },
  write: (story, sound, luck) => {
    const keeps = between(luck, sound, [4, 6], [0.3, 0.6]);
    const stops = 6;
    const times = Array.from({ length: 7 }, (_, n) => stops + 3 + 3.5 * n);
    const push = foot(times, 1.5, (n) => (story === 'uneven-foot' && n % 2 === 1 ? 120 : 200));
    const strokes = (t: number) => times.filter((at) => t > at + 0.3).length;
    const running = (t: number) => (story === 'engine-on' || (t < stops && story !== 'nothing-stored') ? 1 : 0);
    const stored = (t: number) => {
      if (story === 'nothing-stored') return 1e5;
      if (story === 'engine-on') return 7.5e6 - 2e5 * min(1, push(t) / 200);
      return 7.5e6 * max(0.05, 1 - strokes(t) / (2 * keeps));
    };
    const helped = (t: number) =>
      story === 'engine-on' ? 1 : story === 'nothing-stored' ? 0 : strokes(t) <= keeps ? 1 : 0;
    // 200 N at the pedal, four to one: 1.2 MPa by foot alone, boosted six times that.
    const output = (t: number) => max(0, (push(t) / 200) * (1.1e6 + 5.2e6 * helped(t)));
    const signals: Record<string, Signal> = {
      pedal_force: { at: push, gauging: gauge(luck, 400) },
      output_pressure: { at: output, gauging: gauge(luck, 1e7) },
      engine_on: { at: running, gauging: onOff },
      ...(story === 'no-store-gauge' ? {} : { accumulator_pressure: { at: stored, gauging: gauge(luck, 1e7) } }),
    };
    return {
      log: writeLog(signals, { seconds: times[6] + 4, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 }, luck),
      told: `${keeps.toFixed(1)} strokes`,
    };
  },
};

/** The same reserve after an hour. */
const hydraulicSoak: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'reserve-soak',
  whole: ['in-order'],
  others: { 'ten-minutes': { faultyMayFail: true }, 'engine-on': {} },
  write: (story, sound, luck) => {
    const soak = story === 'ten-minutes' ? 600 : 3_650;
    const lost = between(luck, sound, [0.2e6, 1.2e6], [4e6, 6e6]);
    const stops = 8;
    const times = [stops + soak, stops + soak + 6];
    const push = foot(times, 2, () => 200);
    const running = (t: number) => (story === 'engine-on' || t < stops ? 1 : 0);
    const stored = (t: number) =>
      story === 'engine-on' ? 7.5e6 : 7.5e6 - lost * min(1, max(0, t - stops) / 3_600) - (t > times[0] ? 1e6 : 0);
    const output = (t: number) =>
      max(0, (push(t) / 200) * (1.1e6 + (sound || story === 'ten-minutes' ? 5.2e6 : 0.2e6)));
    const log = writeLog(
      {
        pedal_force: { at: push, gauging: gauge(luck, 400) },
        output_pressure: { at: output, gauging: gauge(luck, 1e7) },
        accumulator_pressure: { at: stored, gauging: { ...gauge(luck, 1e7), wander: 0 } },
        engine_on: { at: running, gauging: onOff },
      },
      { seconds: times[1] + 4, rate: 5, jitter: 0.1 },
      luck,
    );
    return { log, told: `loses ${(lost / 1e6).toFixed(1)} MPa an hour` };
  },
};

/** A vacuum unit's reserve after five minutes. */
const vacuumSoak: Case = {
  family: 'vacuum-inline',
  plan: 'vehicle',
  step: 'reserve-soak',
  whole: ['in-order'],
  others: { 'one-minute': { faultyMayFail: true }, 'never-opened': {} },
  write: (story, sound, luck) => {
    const soak = story === 'one-minute' ? 50 : 305;
    const full = story === 'never-opened' ? 0 : luck.between(52e3, 57e3);
    const keeps = between(luck, sound, [0.75, 0.95], [0, 0.1]);
    const stops = 8;
    const times = [stops + soak, stops + soak + 5];
    const pedal = foot(times, 2, () => 200);
    const lost = (t: number) => full * (1 - keeps) * min(1, max(0, t - stops) / soak);
    const stroke = (t: number) => (t > times[0] + 2 ? 0.2 : 0);
    const vacuum = (t: number) => (t < 2 ? 0 : max(0, (full - lost(t)) * (1 - stroke(t))));
    const output = (t: number) =>
      max(0, (pedal(t) / 200) * (1.1e6 + 70 * vacuum(times[0] - 0.5)) - 1.5e5 * min(1, pedal(t) / 50));
    const log = writeLog(
      {
        pedal_force: { at: pedal, gauging: gauge(luck, 300) },
        output_pressure: { at: output, gauging: gauge(luck, 6e6) },
        supply_vacuum: { at: vacuum, gauging: vacuumGauge(luck) },
        engine_on: { at: (t) => (t > 1 && t < stops ? 1 : 0), gauging: onOff },
      },
      { seconds: times[1] + 4, rate: 20, jitter: 0.2 },
      luck,
    );
    return { log, told: `keeps ${keeps.toFixed(2)}` };
  },
};

/** Foot held as a hydraulic booster's engine starts. */
const offDrop: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'off-drop',
  whole: ['in-order'],
  others: { 'never-started': {}, 'foot-moves': { soundMayPass: true, faultyMayFail: true } },
  write: (story, sound, luck) => {
    const sink = between(luck, sound, [9e-3, 20e-3], [0, 2e-3]);
    const times = Array.from({ length: 8 }, (_, n) => 1 + 2 * n);
    const holds = 19;
    const starts = holds + luck.between(3, 5);
    const end = starts + 6;
    const strokes = foot(times, 1, () => 200);
    const held = (t: number) => 140 * min(1, max(0, (t - holds) / 0.6)) * min(1, max(0, (end - t) / 0.5));
    const push = (t: number) => max(strokes(t), held(t) * (story === 'foot-moves' && t > starts + 1 ? 1.15 : 1));
    const on = (t: number) => (story !== 'never-started' && t > starts ? 1 : 0);
    const travel = (t: number) => (0.05 * push(t)) / 200 + on(t) * sink * (1 - exp(-(t - starts) / 0.5));
    const log = writeLog(
      {
        pedal_force: { at: push, gauging: gauge(luck, 300) },
        pedal_travel: { at: travel, gauging: { ...goodGauge, white: 5e-5, division: 5e-5 } },
        output_pressure: { at: (t) => (push(t) / 200) * 1e6, gauging: gauge(luck, 6e6) },
        engine_on: { at: on, gauging: onOff },
      },
      { seconds: end + 1, rate: rateOf(luck), jitter: 0.2 },
      luck,
    );
    return { log, told: `sinks ${(sink * 1e3).toFixed(1)} mm` };
  },
};

const returnLine: Case = {
  family: 'hydraulic-boost',
  plan: 'vehicle',
  step: 'return-pressure',
  whole: ['in-order'],
  others: { 'engine-off': {}, 'no-engine-signal': { faultyMayFail: true }, frozen: {} },
  write: (story, sound, luck) => {
    const back = between(luck, sound, [4e4, 1.6e5], [3.2e5, 9e5]);
    const starts = story === 'engine-off' ? Infinity : luck.between(2, 4);
    const line = (t: number) => (t < starts ? 0 : back * (1 - exp(-(t - starts) / 0.4)));
    const signals: Record<string, Signal> = {
      return_pressure: { at: line, gauging: { ...gauge(luck, 4e6, 1e3), white: luck.between(500, 3e3) } },
      ...(story === 'no-engine-signal'
        ? {}
        : { engine_on: { at: (t: number) => (t > starts ? 1 : 0), gauging: onOff } }),
    };
    const log = writeLog(signals, { seconds: 15, rate: rateOf(luck), jitter: 0.2 }, luck);
    return {
      log: story === 'frozen' ? freeze(log, 'return_pressure', -1) : log,
      told: `${(back / 1e3).toFixed(0)} kPa`,
      truth: story === 'in-order' ? { 'return-pressure': back } : {},
    };
  },
};

/** A wheel over a bump, its push held back or let into the brake. */
const bump: Case = {
  family: 'stored-pressure',
  plan: 'vehicle',
  step: 'bump',
  whole: ['in-order'],
  others: {
    'no-bump': {},
    'no-height': { faultyMayFail: true },
    'never-braked': { faultyMayFail: true },
    'braked-over-it': {},
    frozen: {},
  },
  write: (story, sound, luck) => {
    const pushed = between(luck, sound, [0, 6e4], [2.6e5, 8e5]);
    const braked = luck.between(2, 4);
    const over = braked + luck.between(6, 9);
    const pedal = (t: number) => {
      if (story === 'never-braked') return 0;
      return foot(
        story === 'braked-over-it' ? [braked, over - 0.3] : [braked],
        story === 'braked-over-it' ? 2.5 : 1.5,
        () => 120,
      )(t);
    };
    const height = (t: number) => {
      const since = t - over;
      return story === 'no-bump' || since < 0 || since > 1.6
        ? 0.4
        : 0.4 - 0.035 * Math.sin((2 * Math.PI * since) / 0.8) * exp(-since);
    };
    const front = (t: number) => {
      const shaken =
        story === 'no-bump'
          ? 0
          : pushed * max(0, Math.sin((2 * Math.PI * (t - over)) / 0.8)) * (t > over && t < over + 1.2 ? 1 : 0);
      return max(shaken, pedal(t) * 3e4);
    };
    const signals: Record<string, Signal> = {
      front_pressure: {
        at: front,
        gauging: { ...gauge(luck, 1.6e7, 1e3), white: luck.between(1e3, 4e3), lag: luck.between(0, 0.03) },
      },
      pedal_force: { at: pedal, gauging: gauge(luck, 400) },
      ...(story === 'no-height'
        ? {}
        : { ride_height: { at: height, gauging: { ...goodGauge, white: 3e-4, division: 1e-4 } } }),
    };
    const log = writeLog(signals, { seconds: over + 6, rate: luck.oneOf([20, 50, 100]), jitter: 0.2 }, luck);
    return {
      log: story === 'frozen' ? freeze(log, 'front_pressure', -1) : log,
      told: `${(pushed / 1e3).toFixed(0)} kPa`,
    };
  },
};

interface Valve {
  readonly cutIn: number;
  readonly cutOut: number;
  readonly precharge: number;
  readonly volume: number;
  readonly pump: number;
}

/** Stores charged from `start` by pumps that a valve switches, bled between `bled` and the next start; pressures and pump. */
function charged(
  valve: Valve,
  luck: Dice,
  start: number,
  run: { readonly starts: number; readonly bled: number; readonly seconds: number },
) {
  const gas = {
    precharge: valve.precharge + ambient,
    volume: valve.volume * luck.between(0.98, 1.02),
    shell: 284.15 + luck.between(-4, 4),
    tau: luck.between(20, 45),
  };
  const step = 5e-3;
  let on = false;
  let reached = false;
  const pump: number[] = [];
  const pressures = gasPressures(
    gas,
    start + ambient,
    (t, p) => {
      if (t < run.starts) on = false;
      else if (p - ambient > valve.cutOut) {
        on = false;
        reached = true;
      } else if (!reached || p - ambient < valve.cutIn) on = true;
      pump.push(on ? 1 : 0);
      // The bleed is opened some seconds after the first charge, and shut when the pump starts.
      const bleeding = reached && !on && t > run.bled ? valve.pump / 3 : 0;
      return (on ? valve.pump * luck.between(0.98, 1.02) : 0) - bleeding;
    },
    { seconds: run.seconds, step, ambient },
  );
  const index = (t: number) => min(pressures.length - 1, max(0, round(t / step)));
  return {
    pressure: (t: number) => pressures[index(t)] - ambient,
    pump: (t: number) => pump[index(t)] ?? 0,
  };
}

/** Two circuits behind one charging valve. */
const pedalValveCharging: Case = {
  family: 'pedal-valve',
  step: 'charging',
  whole: ['in-order'],
  others: { 'not-from-empty': { faultyMayFail: true }, 'no-signal': { soundMayPass: true, faultyMayFail: true } },
  write: (story, sound, luck) => {
    const wrong = sound ? 'none' : luck.oneOf(['cut-out', 'precharge'] as const);
    const valve: Valve = {
      cutIn: 11.5e6 * luck.between(0.98, 1.02),
      cutOut: 14.5e6 * (wrong === 'cut-out' ? luck.between(1.1, 1.2) : luck.between(0.98, 1.02)),
      precharge: 5.5e6 * (wrong === 'precharge' ? luck.between(0.5, 0.7) : luck.between(0.97, 1.03)),
      volume: 1_400e-6,
      pump: 60e-6,
    };
    const start = story === 'not-from-empty' ? 9e6 : 0;
    const circuit = charged(valve, luck, start, { starts: luck.between(1, 3), bled: 60, seconds: 140 });
    const store = () => ({
      ...gauge(luck, 2e7, 2e3),
      white: luck.between(2e3, 8e3),
      lag: luck.between(0, 0.02),
      gain: luck.normal() * 0.001,
    });
    const log = writeLog(
      {
        accumulator_pressure: { at: circuit.pressure, gauging: store() },
        accumulator_pressure_2: { at: circuit.pressure, gauging: store() },
        ...(story === 'no-signal'
          ? {}
          : { pump_on: { at: circuit.pump, gauging: onOff }, pump_on_2: { at: circuit.pump, gauging: onOff } }),
      },
      { seconds: 139, rate: storeRate(luck), jitter: 0.1 },
      luck,
    );
    return {
      log,
      told: `${wrong}: cut-out ${(valve.cutOut / 1e6).toFixed(2)}, precharge ${(valve.precharge / 1e6).toFixed(2)} MPa`,
      truth: story === 'in-order' ? { 'store-cut-out': valve.cutOut, precharge: valve.precharge } : {},
    };
  },
};

/** A store bled till its pump starts, and left till it stops. */
const storeSwitch: Case = {
  family: 'motor-pump-boost',
  step: 'pump-switch',
  whole: ['in-order'],
  others: { 'never-started': {}, 'no-signal': {}, frozen: {} },
  write: (story, sound, luck) => {
    const wrong = sound ? 'none' : luck.oneOf(['cut-out', 'cut-in'] as const);
    const valve: Valve = {
      cutIn: 14e6 * (wrong === 'cut-in' ? luck.between(0.75, 0.88) : luck.between(0.98, 1.02)),
      cutOut: 18e6 * (wrong === 'cut-out' ? luck.between(1.1, 1.2) : luck.between(0.98, 1.02)),
      precharge: 8e6,
      volume: 250e-6,
      pump: 6e-6,
    };
    const circuit = charged(valve, luck, valve.cutOut - 1e4, {
      starts: 0,
      bled: story === 'never-started' ? Infinity : 3,
      seconds: 120,
    });
    const log = writeLog(
      {
        accumulator_pressure: {
          at: circuit.pressure,
          gauging: { ...gauge(luck, 2.5e7, 2e3), white: 4e3, lag: 0.02, gain: luck.normal() * 0.001 },
        },
        ...(story === 'no-signal' ? {} : { pump_on: { at: circuit.pump, gauging: onOff } }),
      },
      { seconds: 119, rate: storeRate(luck), jitter: 0.1 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(log, 'accumulator_pressure', 1) : log,
      told: `${wrong}: ${(valve.cutIn / 1e6).toFixed(2)} to ${(valve.cutOut / 1e6).toFixed(2)} MPa`,
    };
  },
};

const soakIsolated: Case = {
  family: 'stored-pressure',
  plan: 'vehicle',
  step: 'soak-isolated',
  whole: ['in-order'],
  others: { 'nearly-empty': {}, frozen: {} },
  write: (story, sound, luck) => {
    const half = 3600 * between(luck, sound, [3, 20], [0.1, 0.25]);
    const top = story === 'nearly-empty' ? 2e6 : 16.3e6;
    const level = (t: number) => max(0, top * 0.5 ** (t / half) + 0.6e6 * exp(-t / 30));
    const noisy = (): Signal => ({ at: level, gauging: { ...gauge(luck, 2e7, 2e3), white: 6e3, lag: 0 } });
    const log = writeLog(
      { accumulator_pressure: noisy(), accumulator_pressure_2: noisy() },
      { seconds: luck.between(1.5, 4) * 3600, rate: 0.2, jitter: 0.1 },
      luck,
    );
    return {
      log: story === 'frozen' ? freeze(freeze(log, 'accumulator_pressure', -1), 'accumulator_pressure_2', -1) : log,
      told: `half-life ${(half / 3600).toFixed(2)} h`,
    };
  },
};

export const moreSteps: readonly Case[] = [
  gaugePair,
  draw,
  unassisted('vacuum-inline', 'supply_vacuum', 58e3),
  unassisted('motor-pump-boost', 'accumulator_pressure', 16e6),
  demand,
  hydraulicReserve,
  hydraulicSoak,
  vacuumSoak,
  offDrop,
  returnLine,
  bump,
  pedalValveCharging,
  storeSwitch,
  soakIsolated,
];
