import { makeTrace, type Trace } from '@/core/traces/trace';

/*
 * A second writer of logs. It shares nothing with the stand-in rig: its own random numbers, noise, lags, rates and habits,
 * and what it writes comes from closed forms, never from a family's model.
 */

const { PI, ceil, cos, exp, floor, imul, log, max, min, round, sqrt } = Math;

/** Uniform and normal deviates of the writer's own generator (mulberry32; Box and Muller). */
export function dice(seed: number) {
  let state = seed | 0;
  const uniform = () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = imul(state ^ (state >>> 15), 1 | state);
    t = (t + imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    uniform,
    between: (low: number, high: number) => low + (high - low) * uniform(),
    normal: () => sqrt(-2 * log(1 - uniform())) * cos(2 * PI * uniform()),
    oneOf: <T>(list: readonly T[]): T => list[floor(uniform() * list.length)],
    chance: (share: number) => uniform() < share,
  };
}

export type Dice = ReturnType<typeof dice>;

/** What a gauge and its logger make of a signal, SI. */
export interface Gauging {
  /** White noise and slow (1/f-like) noise, one sigma. */
  readonly white: number;
  readonly slow: number;
  /** Division that is written. */
  readonly division: number;
  /** First-order lag, s. */
  readonly lag: number;
  readonly zero: number;
  /** Fraction. */
  readonly gain: number;
  /** Drift per root of a second. */
  readonly wander: number;
  /** End stop. */
  readonly stop: number;
  /** Every so many rows it is sampled; the cells between stay empty. */
  readonly every: number;
}

export const goodGauge: Gauging = {
  white: 0,
  slow: 0,
  division: 0,
  lag: 0,
  zero: 0,
  gain: 0,
  wander: 0,
  stop: Infinity,
  every: 1,
};

/** A signal by time (s), SI, and how it is gauged. */
export interface Signal {
  readonly at: (time: number) => number;
  readonly gauging: Gauging;
}

export interface Logging {
  readonly seconds: number;
  /** Hz */
  readonly rate: number;
  /** Uneven clock: share of an interval. */
  readonly jitter?: number;
  /** Rows from … to (s) that the logger lost. */
  readonly lost?: readonly [number, number];
}

/** Writes a log: every signal lagged, drifted, noised, clipped, divided and thinned as its gauge does. */
export function writeLog(signals: Readonly<Record<string, Signal>>, logging: Logging, luck: Dice): Trace {
  const { seconds, rate, jitter = 0, lost } = logging;
  const times: number[] = [];
  for (let i = 0; i <= round(seconds * rate); i++) {
    const t = (i + jitter * (luck.uniform() - 0.5)) / rate;
    if (!lost || t < lost[0] || t > lost[1]) times.push(max(0, t));
  }
  const columns = Object.fromEntries(
    Object.entries(signals).map(([channel, signal]) => [channel, gauge(times, signal, luck)]),
  );
  return makeTrace(Float64Array.from(times), columns);
}

function gauge(times: readonly number[], { at, gauging }: Signal, luck: Dice): Float64Array {
  const { white, slow, division, lag, zero, gain, wander, stop, every } = gauging;
  // Slow noise: three first-order walks a decade apart.
  const walks = [0.3, 3, 30].map((tau) => ({ tau, value: luck.normal() }));
  let following = at(times[0]);
  let drift = 0;
  const offset = floor(luck.uniform() * every);
  return Float64Array.from(times, (t, i) => {
    const dt = i === 0 ? 0 : t - times[i - 1];
    // A lag is followed in steps short against it.
    const steps = lag > 0 ? max(1, ceil(dt / (lag / 4))) : 1;
    for (let k = 1; k <= steps; k++) {
      const now = at(t - dt + (dt * k) / steps);
      following = lag > 0 ? following + (now - following) * (1 - exp(-dt / steps / lag)) : now;
    }
    drift += wander * sqrt(dt) * luck.normal();
    for (const walk of walks) {
      const keep = exp(-dt / walk.tau);
      walk.value = keep * walk.value + sqrt(1 - keep * keep) * luck.normal();
    }
    const noise =
      white * luck.normal() + (slow * walks.reduce((sum, walk) => sum + walk.value, 0)) / sqrt(walks.length);
    const raw = min(stop, following * (1 + gain) + zero + drift + noise);
    if ((i + offset) % every !== 0) return Number.NaN;
    return division > 0 ? round(raw / division) * division : raw;
  });
}
