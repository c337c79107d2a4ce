import { nozzleFlow } from '../physics/nozzle';
import { fitLine } from './line';
import type { Termination } from './termination';

const { ceil, floor, max, min, sqrt } = Math;
const { isNaN } = Number;

/** A vacuum (Pa below the atmosphere) that a fixed orifice lets in: constant while choked, then falling. */
export interface ChokedDecay {
  readonly termination: Termination;
  readonly start: number;
  /** Rate while choked, Pa/s (negative: vacuum is lost). */
  readonly chokedRate: number;
  readonly rss: number;
  readonly count: number;
  readonly residual: number;
  readonly changeAfter: (seconds: number) => { value: number; variance: number };
}

/** Points of the table of leak time against pressure. */
const tablePoints = 400;
/** Pressures this close to the atmosphere take for ever, as a share of it. */
const closest = 1e-4;
/** The fit is made on at most this many means of neighbours. */
const mostPoints = 600;

/**
 * Time-like variable T(p) = ∫ dp/φ, with φ the flow through an orifice from the atmosphere relative to choked flow, so
 * that T grows evenly with time whatever the vacuum. Table over absolute pressure 0 … atmosphere.
 */
function leakTime(ambient: number): { toTime: (pressure: number) => number; toPressure: (time: number) => number } {
  const choked = nozzleFlow(1, ambient, 0, 293.15);
  const top = ambient * (1 - closest);
  const times = new Float64Array(tablePoints + 1);
  const step = top / tablePoints;
  const slowness = (pressure: number) => choked / nozzleFlow(1, ambient, pressure, 293.15);
  for (let i = 1; i <= tablePoints; i++) {
    const middle = (i - 0.5) * step;
    times[i] = times[i - 1] + (step * (slowness((i - 1) * step) + 4 * slowness(middle) + slowness(i * step))) / 6;
  }
  return {
    toTime: (pressure) => {
      const at = min(tablePoints - 1e-9, max(0, pressure / step));
      const i = floor(at);
      return times[i] + (at - i) * (times[i + 1] - times[i]);
    },
    toPressure: (time) => {
      if (time <= 0) return 0;
      if (time >= times[tablePoints]) return top;
      let low = 0;
      let high = tablePoints;
      while (high - low > 1) {
        const middle = (low + high) >> 1;
        if (times[middle] <= time) low = middle;
        else high = middle;
      }
      return (low + (time - times[low]) / (times[high] - times[low])) * step;
    },
  };
}

/**
 * Fits vacuum(t) of an orifice leak into a closed volume: a straight line in T(p). `vacuum` in Pa below the
 * atmosphere, `ambient` Pa absolute. Source: isentropic nozzle flow as in `nozzleFlow`; choked while p < 0.528·p_atm.
 */
export function fitChokedDecay(time: ArrayLike<number>, vacuum: ArrayLike<number>, ambient: number): ChokedDecay {
  const { toTime, toPressure } = leakTime(ambient);
  const size = max(1, ceil(time.length / mostPoints));
  const t: number[] = [];
  const values: number[] = [];
  for (let from = 0; from < time.length; from += size) {
    let [n, sumT, sumV] = [0, 0, 0];
    for (let i = from; i < min(time.length, from + size); i++) {
      if (isNaN(vacuum[i])) continue;
      n++;
      sumT += time[i];
      sumV += vacuum[i];
    }
    if (n === 0) continue;
    t.push(sumT / n - time[0]);
    values.push(sumV / n);
  }
  // Equal noise of p is unequal noise of T: weight by the slope.
  const transformed = values.map((value) => toTime(ambient - value));
  const weights = values.map((value) => {
    const reach = 1e-3 * ambient;
    const slope = (toTime(ambient - value + reach) - toTime(ambient - value - reach)) / (2 * reach);
    return slope > 0 ? 1 / slope ** 2 : 0;
  });
  const line = fitLine(t, transformed, { weights });
  const at = (seconds: number) => ambient - toPressure(line.intercept + line.slope * seconds);
  let rss = 0;
  for (let i = 0; i < t.length; i++) rss += (values[i] - at(t[i])) ** 2;
  const start = at(0);
  return {
    termination: line.termination,
    start,
    chokedRate: -line.slope,
    rss,
    count: t.length,
    residual: sqrt((rss * size) / max(1, t.length - 2)),
    changeAfter: (seconds) => {
      const value = at(seconds) - start;
      const reach = sqrt(max(0, line.slopeVariance)) || 1e-12;
      const wider = ambient - toPressure(line.intercept + (line.slope + reach) * seconds) - start;
      return { value, variance: (wider - value) ** 2 };
    },
  };
}
