/* A pedal valve with two stores: straight lines with play, first-order ports, and gas by its own steps. */

import { goodGauge, writeLog, type Dice, type Gauging, type Signal } from '../logger';
import { onLines } from '../pull-logs';
import { gasPressures } from '../store-gas';
import { ambient, foot, gauge, onOff } from '../step-case';
import { offBy } from './pushed-log';
import { log, wholeUnit } from './whole-unit';

const { abs, exp, max, min, round } = Math;

interface Valve {
  /** ° and Pa/°. */
  readonly cutIn: number;
  readonly slope: number;
  readonly top: number;
  readonly play: number;
  /** Time constants of the ports as they fill and as they empty, s: front, rear. */
  readonly fills: readonly [number, number];
  readonly empties: number;
  /** Pressure that stays, Pa. */
  readonly stays: number;
  readonly neutral: number;
  readonly starts: number;
  readonly stops: number;
  readonly precharge: readonly [number, number];
  readonly alarm: number;
  readonly parking: number;
}

const angle: Gauging = { ...goodGauge, white: 0.02, division: 0.01 };
const port = (luck: Dice): Gauging => ({ ...gauge(luck, 1e7, 1e3), white: 3e3, lag: luck.between(0, 0.02) });
const store = (luck: Dice): Gauging => ({
  ...gauge(luck, 2e7, 2e3),
  white: luck.between(2e3, 6e3),
  lag: luck.between(0, 0.02),
  gain: luck.normal() * 0.001,
});

/** Both ports by the angle over the time: the lines, the play, and a port that fills and empties slowly. */
function ports(valve: Valve, pressed: (t: number) => number, seconds: number) {
  const step = 2e-3;
  const lines = {
    below: 0,
    cutIn: valve.cutIn,
    jump: 0,
    slope: valve.slope,
    runOut: valve.cutIn + valve.top / valve.slope,
    beyond: 0,
    play: valve.play,
    playOnlyWhileModulating: true,
  };
  const count = round(seconds / step) + 2;
  const columns = valve.fills.map((fills) => {
    let [play, now] = [0, 0];
    return Float64Array.from({ length: count }, (_, i) => {
      const lever = pressed(i * step);
      play = max(lever, min(lever + valve.play, play));
      const wanted = onLines(lines, lever, play);
      // What was held once does not leave entirely.
      const target = now > valve.stays ? max(valve.stays, wanted) : wanted;
      const tau = target > now ? fills : valve.empties;
      now += (target - now) * (1 - exp(-step / tau));
      return now;
    });
  });
  const [front, rear] = columns.map((column) => (t: number) => column[min(count - 1, max(0, round(t / step)))]);
  return { front, rear };
}

function pressedLog(valve: Valve, pressed: (t: number) => number, seconds: number, rate: number, luck: Dice) {
  const { front, rear } = ports(valve, pressed, seconds);
  return log(
    writeLog(
      {
        pedal_angle: { at: pressed, gauging: angle },
        front_pressure: { at: front, gauging: port(luck) },
        rear_pressure: { at: rear, gauging: port(luck) },
      },
      { seconds, rate, jitter: 0.1 },
      luck,
    ),
  );
}

/** Two stores, each by its own gas, filled and emptied alike. */
function stores(
  valve: Valve,
  luck: Dice,
  from: number,
  flow: (t: number, p: number) => number,
  seconds: number,
  step: number,
) {
  const tau = luck.between(22, 40);
  const shell = 284.15 + luck.between(-3, 3);
  const columns = valve.precharge.map((precharge) =>
    gasPressures({ precharge: precharge + ambient, volume: 1_400e-6, shell, tau }, from + ambient, flow, {
      seconds,
      step,
      ambient,
    }),
  );
  return columns.map((column) => (t: number) => column[min(column.length - 1, max(0, round(t / step)))] - ambient);
}

const twoStores = ([first, second]: readonly ((t: number) => number)[], luck: Dice): Record<string, Signal> => ({
  accumulator_pressure: { at: first, gauging: store(luck) },
  accumulator_pressure_2: { at: second, gauging: store(luck) },
});

function charging(valve: Valve, luck: Dice) {
  const starts = luck.between(1, 3);
  let [on, reached] = [false, false];
  const pump: number[] = [];
  const step = 5e-3;
  let called = -1;
  const tau = luck.between(22, 40);
  const shell = 284.15 + luck.between(-3, 3);
  // The two fill from one pump: each has half of it, and the valve looks at the first.
  const half = 60e-6;
  const first = gasPressures(
    { precharge: valve.precharge[0] + ambient, volume: 1_400e-6, shell, tau },
    ambient,
    (t, p) => {
      called++;
      if (t < starts) on = false;
      else if (p - ambient > valve.stops) [on, reached] = [false, true];
      else if (!reached || p - ambient < valve.starts) on = true;
      pump[called] = on ? 1 : 0;
      const bled = reached && !on && t > 55 ? half / 3 : 0;
      return (on ? half : 0) - bled;
    },
    { seconds: 140, step, ambient },
  );
  const second = gasPressures(
    { precharge: valve.precharge[1] + ambient, volume: 1_400e-6, shell, tau },
    ambient,
    (t) => {
      const running = pump[round(t / step)] === 1;
      const bled = !running && t > 55 ? half / 3 : 0;
      return (running ? half : 0) - bled;
    },
    { seconds: 140, step, ambient },
  );
  const of = (column: Float64Array) => (t: number) => column[min(column.length - 1, max(0, round(t / step)))] - ambient;
  const running = { at: (t: number) => pump[round(t / step)] ?? 0, gauging: onOff };
  return log(
    writeLog(
      { ...twoStores([of(first), of(second)], luck), pump_on: running, pump_on_2: running },
      { seconds: 139, rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
      luck,
    ),
  );
}

function applications(valve: Valve, luck: Dice) {
  const spacing = luck.between(8, 11);
  const times = Array.from({ length: 24 }, (_, n) => 3 + n * spacing);
  const seconds = 3 + 24 * spacing;
  const taken = (t: number, p: number) =>
    p > ambient + 1e5 && times.some((at) => t >= at && t < at + 0.5) ? -60e-6 / 0.5 : 0;
  const both = stores(valve, luck, valve.stops, taken, seconds, 0.02);
  // Its switch is in the first circuit.
  const lamp = { at: (t: number) => (both[0](t) < valve.alarm ? 1 : 0), gauging: onOff };
  return log(
    writeLog(
      {
        ...twoStores(both, luck),
        pedal_angle: { at: foot(times, 1.6, () => 18.7), gauging: gauge(luck, 26) },
        lamp_red: lamp,
        lamp_amber: lamp,
      },
      { seconds: seconds - 0.5, rate: luck.oneOf([20, 50]), jitter: 0.1 },
      luck,
    ),
  );
}

/** A store let empty, and how it stands then. */
function dead(valve: Valve, luck: Dice) {
  const both = stores(valve, luck, valve.stops, (t, p) => (t > 3 && p > ambient ? -120e-6 : 0), 60, 0.01);
  const pedal = { at: (t: number) => (t > 3 && t < 40 ? 18 * abs(Math.sin(t)) : 0), gauging: angle };
  return log(writeLog({ ...twoStores(both, luck), pedal_angle: pedal }, { seconds: 59, rate: 20, jitter: 0.1 }, luck));
}

export const pedalValve = wholeUnit<Valve>({
  family: 'pedal-valve',
  plan: 'bench',
  sound: (luck) => {
    const little = offBy(luck);
    return {
      cutIn: 3.2 * little(0.04),
      slope: 520e3 * little(0.025),
      top: 6.8e6 * little(0.012),
      play: 0.6 * little(0.15),
      fills: [0.05 * little(0.2), 0.05 * little(0.2)],
      empties: 0.06 * little(0.2),
      stays: luck.between(0, 8e3),
      neutral: (60e-6 / 60) * little(0.25),
      starts: 11.5e6 * little(0.01),
      stops: 14.5e6 * little(0.01),
      precharge: [5.5e6 * little(0.02), 5.5e6 * little(0.02)],
      alarm: 8.5e6 * little(0.015),
      parking: 3.2e6 * little(0.02),
    };
  },
  faults: {
    'orifice-plugged-upper': (sound, severe) => ({ ...sound, fills: [0.3 + 0.9 * severe, sound.fills[1]] }),
    'orifice-plugged-lower': (sound, severe) => ({ ...sound, fills: [sound.fills[0], 0.3 + 0.9 * severe] }),
    'spool-sticking': (sound, severe) => ({
      ...sound,
      play: sound.play * (2.2 + 2.5 * severe),
      cutIn: sound.cutIn * (1.1 + 0.25 * severe),
    }),
    'spool-worn': (sound, severe) => ({ ...sound, neutral: sound.neutral * (4 + 10 * severe) }),
    'springs-set': (sound, severe) => ({
      ...sound,
      slope: sound.slope * (0.85 - 0.2 * severe),
      cutIn: sound.cutIn * (1.08 + 0.2 * severe),
    }),
    'stop-misadjusted': (sound, severe) => ({ ...sound, top: sound.top * (0.9 - 0.2 * severe) }),
    'charging-valve-low': (sound, severe) => ({
      ...sound,
      starts: sound.starts * (0.9 - 0.15 * severe),
      stops: sound.stops * (0.9 - 0.15 * severe),
    }),
    'accumulator-front-low': (sound, severe) => ({
      ...sound,
      precharge: [sound.precharge[0] * (0.75 - 0.4 * severe), sound.precharge[1]],
    }),
    'accumulator-rear-low': (sound, severe) => ({
      ...sound,
      precharge: [sound.precharge[0], sound.precharge[1] * (0.75 - 0.4 * severe)],
    }),
    'residual-pressure': (sound, severe) => ({ ...sound, stays: 90e3 + 300e3 * severe }),
    'tank-line-restricted': (sound, severe) => ({ ...sound, empties: 0.5 + 1.2 * severe }),
    'alarm-switch-shifted': (sound, severe) => ({ ...sound, alarm: sound.alarm * (0.88 - 0.2 * severe) }),
  },
  looks: {},
  write: (step, valve, luck) => {
    switch (step) {
      case 'make-dead-before':
      case 'make-dead-after':
        return dead(valve, luck);
      case 'charging':
        return charging(valve, luck);
      case 'modulation-curve': {
        const [rest, up, held, down] = [2, luck.between(12, 25), 2, luck.between(10, 20)];
        const pressed = (t: number) =>
          23 * min(1, max(0, (t - rest) / up)) * min(1, max(0, (rest + up + held + down - t) / down));
        return pressedLog(valve, pressed, rest + up + held + down + 3, luck.oneOf([50, 100]), luck);
      }
      case 'step-response': {
        const pressed = (t: number) => 20 * min(1, max(0, (t - 2) / 0.1)) * (t > 9 ? max(0, 1 - (t - 9) / 0.1) : 1);
        return pressedLog(valve, pressed, 15, luck.oneOf([100, 200]), luck);
      }
      case 'residual': {
        const pressed = (t: number) => 18 * min(1, max(0, (t - 2) / 1.5)) * (t > 7 ? max(0, 1 - (t - 7) / 0.2) : 1);
        return pressedLog(valve, pressed, 14, luck.oneOf([20, 50, 100]), luck);
      }
      case 'neutral-leak':
        return log(
          writeLog(
            {
              flow: { at: () => valve.neutral, gauging: { ...goodGauge, white: 5e-8, division: 1e-8 } },
              accumulator_pressure: { at: () => 13e6, gauging: store(luck) },
            },
            { seconds: 14, rate: luck.oneOf([10, 20, 50]), jitter: 0.1 },
            luck,
          ),
        );
      case 'applications':
        return applications(valve, luck);
      case 'parking-release': {
        const lasts = luck.between(8, 18);
        const raised = (t: number) => 3.9e6 * min(1, max(0, (t - 1) / lasts));
        return log(
          writeLog(
            {
              parking_pressure: { at: raised, gauging: { ...gauge(luck, 1e7, 1e3), lag: luck.between(0, 0.05) } },
              parking_brake: { at: (t) => (raised(t) < valve.parking ? 1 : 0), gauging: onOff },
            },
            { seconds: lasts + 3, rate: luck.oneOf([20, 50, 100]), jitter: 0.1 },
            luck,
          ),
        );
      }
      default:
        return null;
    }
  },
});
