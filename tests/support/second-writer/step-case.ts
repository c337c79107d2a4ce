/* What every case of a step shares: its shape, and the gauges, feet and faults of its logs. */

import type { PlanId } from '@/core/procedure/step-context';
import type { CharacteristicId } from '@/core/quantities/characteristics';
import type { Trace } from '@/core/traces/trace';
import { goodGauge, type Dice, type Gauging } from './logger';

const { max, min } = Math;

/** Local atmosphere of these logs, Pa absolute. */
export const ambient = 85_400;

/** One log with what its writer knows of it. */
export interface Written {
  readonly log: Trace;
  readonly truth?: Partial<Record<CharacteristicId, number>>;
  readonly told: string;
}

export interface Case {
  readonly family: string;
  readonly plan?: PlanId;
  readonly step: string;
  /** Stories in which a sound unit should pass and a faulty one fail. */
  readonly whole: readonly string[];
  /** Stories in which verdicts stand besides: what may be said of them. */
  readonly others: Readonly<Record<string, { readonly soundMayPass?: true; readonly faultyMayFail?: true }>>;
  /** Its figures have no limit: nothing passes, and nothing fails. */
  readonly records?: true;
  readonly write: (story: string, sound: boolean, luck: Dice) => Written;
}

export const between = (luck: Dice, sound: boolean, good: readonly [number, number], bad: readonly [number, number]) =>
  sound ? luck.between(...good) : luck.between(...bad);

export function gauge(luck: Dice, top: number, division = top * 2e-4): Gauging {
  return {
    ...goodGauge,
    white: top * luck.between(1e-4, 6e-4),
    slow: top * luck.between(0, 2e-4),
    division,
    lag: luck.between(0, 0.06),
    // As much as the classes of the bench's instruments allow: 0.5 % of reading.
    gain: luck.normal() * 0.0029,
  };
}

/** A vacuum gauge of 0.5 % of 100 kPa: zero and gain a third of its variance each. */
export function vacuumGauge(luck: Dice, white = luck.between(10, 60)): Gauging {
  return { ...gauge(luck, 1e5, 10), white, zero: luck.normal() * 167, gain: luck.normal() * 0.00167 };
}

export const onOff: Gauging = goodGauge;
export const rateOf = (luck: Dice) => luck.oneOf([10, 20, 50, 100]);

export function freeze(log: Trace, channel: string, from: number): Trace {
  const at = log.time.findIndex((t) => t >= from);
  const column = log.columns[channel].map((value, i) => (i > at ? log.columns[channel][at] : value));
  return { time: log.time, columns: { ...log.columns, [channel]: column } };
}

/** A foot: pressed to `level` at each of some times, for `held` seconds. */
export function foot(times: readonly number[], held: number, level: (stroke: number) => number) {
  return (t: number) =>
    times.reduce((most, at, n) => {
      const rise = min(1, max(0, (t - at) / 0.4));
      const fall = min(1, max(0, (at + held - t) / 0.3));
      return max(most, level(n) * min(rise, fall));
    }, 0);
}

export const storeRate = (luck: Dice) => luck.oneOf([20, 50, 100]);
