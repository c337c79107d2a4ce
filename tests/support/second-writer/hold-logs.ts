import type { Trace } from '@/core/traces/trace';
import { goodGauge, writeLog, type Dice, type Gauging } from './logger';

const { exp, max, min } = Math;

/** A check valve tried with the source side shut, then opened to the air, and what went otherwise. */
export type ValveStory = 'in-order' | 'never-opened' | 'no-side-gauge' | 'no-vacuum' | 'cut-short';

export interface ValveSetting {
  readonly story: ValveStory;
  readonly seconds: number;
  readonly supply: number;
  /** What the unit itself loses in either wait, and the valve besides once the air stands behind it, Pa. */
  readonly unitLoss: number;
  readonly valveLoss: number;
  readonly gauging: Gauging;
  readonly rate: number;
}

/** Log of a check valve: a little rest, one wait shut off, one wait open. */
export function checkValveLog(setting: ValveSetting, luck: Dice): Trace {
  const { story, seconds, gauging } = setting;
  const supply = story === 'no-vacuum' ? 300 : setting.supply;
  const opened = luck.between(0.5, 3) + seconds * luck.between(1, 1.2);
  const end = opened + seconds * (story === 'cut-short' ? luck.between(0.1, 0.5) : luck.between(1, 1.3));
  const held = (t: number) =>
    max(0, supply - (setting.unitLoss * t) / seconds - (setting.valveLoss * max(0, t - opened)) / seconds);
  const side = (t: number) => (story === 'never-opened' || t < opened ? held(t) : supply * exp(-(t - opened) / 0.2));
  return writeLog(
    {
      supply_vacuum: {
        at: story === 'never-opened' ? (t) => supply - (setting.unitLoss * t) / seconds : held,
        gauging,
      },
      ...(story === 'no-side-gauge'
        ? {}
        : { source_vacuum: { at: side, gauging: { ...goodGauge, white: 100, lag: 0.1 } } }),
    },
    { seconds: end, rate: setting.rate, jitter: 0.2 },
    luck,
  );
}

/** A pressure locked in and watched, and what went otherwise. */
export type PressureStory =
  'in-order' | 'begins-in-hold' | 'not-shut-off' | 'too-low' | 'cut-short' | 'frozen' | 'pumped-up';

export interface PressureSetting {
  readonly story: PressureStory;
  readonly seconds: number;
  readonly pressure: number;
  /** What is lost over the full time, Pa. */
  readonly loss: number;
  readonly gauging: Gauging;
  readonly rate: number;
}

/** Log of a pressure hold: rest, a pull of some seconds, the hold, and usually the lever let back. */
export function pressureHoldLog(setting: PressureSetting, luck: Dice): Trace {
  const { story, seconds, gauging } = setting;
  const pressure = story === 'too-low' ? setting.pressure * luck.between(0.1, 0.3) : setting.pressure;
  const begins = story === 'begins-in-hold';
  const pulls = begins ? -2 : luck.between(1, 3);
  const arrives = begins ? -1 : pulls + luck.between(2, 5);
  const lasts = seconds * (story === 'cut-short' ? luck.between(0.05, 0.13) : luck.between(1.1, 1.3));
  const letBack = max(0, arrives) + lasts + 1;
  const at = (t: number): number => {
    if (t < pulls) return 0;
    if (t < arrives) return (pressure * (t - pulls)) / (arrives - pulls);
    const lost = story === 'pumped-up' ? -3 * setting.loss - 0.05 * pressure : setting.loss;
    const held = pressure - (lost * min(1.5, (t - max(0, arrives)) / seconds) * pressure) / setting.pressure;
    return t < letBack ? held : held * exp(-(t - letBack) / 0.15);
  };
  const log = writeLog(
    { output_pressure: { at, gauging }, input_pressure: { at: (t) => at(t) / 3, gauging } },
    { seconds: begins ? lasts : letBack + 2, rate: setting.rate },
    luck,
  );
  if (story !== 'frozen') return log;
  const stops = log.time.findIndex((t) => t > arrives + 2);
  const frozen = (column: Float64Array) => column.map((value, i) => (i < stops ? value : column[stops]));
  return {
    time: log.time,
    columns: {
      output_pressure: frozen(log.columns.output_pressure),
      input_pressure: frozen(log.columns.input_pressure),
    },
  };
}
