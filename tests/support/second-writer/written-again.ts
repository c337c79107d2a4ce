/* A run as another shop's tools would have written it: their gauges, rates, clocks and hands, none of the rig's. */

import { findChannel } from '@/core/quantities/channels';
import type { Instrument } from '@/core/instruments/instrument';
import { ownSamples } from '@/core/traces/own-samples';
import type { Trace } from '@/core/traces/trace';
import { goodGauge, writeLog, type Dice, type Gauging, type Signal } from './logger';

/** Rates of loggers that shops have, Hz. */
const rates = [20, 50, 100, 200, 500, 1000] as const;

/** Rows that are enough for any step; hours are logged slowly. */
const mostRows = 6_000;

/** A gauge of an instrument's class, with noise, slow noise, divisions and a lag of its own. */
function gaugingOf({ range, classFraction }: Instrument, luck: Dice): Gauging {
  const third = classFraction / Math.sqrt(3) / Math.sqrt(3);
  return {
    ...goodGauge,
    white: range * luck.between(0.5e-4, 4e-4),
    slow: range * luck.between(0, 1.5e-4),
    division: range * luck.oneOf([0, 1e-4, 2e-4]),
    // As late as a gauge may be whose lag nobody entered.
    lag: luck.between(0, 0.01),
    zero: luck.normal() * third * range * 0.3,
    gain: luck.normal() * third,
  };
}

/** Value of a column between its samples; switches jump. */
function between(time: Float64Array, column: Float64Array, jumps: boolean): (at: number) => number {
  let from = 0;
  return (at) => {
    if (at < time[from]) from = 0;
    while (from < time.length - 2 && time[from + 1] <= at) from++;
    const [t0, t1] = [time[from], time[from + 1]];
    if (jumps || t1 === t0) return column[from];
    const share = Math.max(0, Math.min(1, (at - t0) / (t1 - t0)));
    return column[from] + (column[from + 1] - column[from]) * share;
  };
}

/** Writes a run without noise anew: other rate, clock, noise, lag and divisions on every channel; a channel nobody has an instrument for is as it was. */
export function writtenAgain(
  trace: Trace,
  instruments: ReadonlyMap<string, Instrument>,
  { leastRate = 0 }: { readonly leastRate?: number },
  luck: Dice,
): Trace {
  const seconds = trace.time[trace.time.length - 1] - trace.time[0];
  const allowed = rates.filter((rate) => rate >= leastRate && rate * seconds <= mostRows);
  const own = (trace.time.length - 1) / seconds;
  const rate = allowed.length > 0 ? luck.oneOf(allowed) : own;
  const signals = Object.fromEntries(
    Object.entries(trace.columns).map(([channel, column]): [string, Signal] => {
      const instrument = instruments.get(channel);
      const jumps = findChannel(channel)?.dimension === 'ratio';
      // A column that is asked for less often than the others has its own clock.
      const { time, value } = ownSamples(trace, column);
      const at = between(time, value, jumps);
      return [
        channel,
        { at: (t) => at(t + trace.time[0]), gauging: instrument && !jumps ? gaugingOf(instrument, luck) : goodGauge },
      ];
    }),
  );
  return writeLog(signals, { seconds, rate, jitter: luck.between(0, 0.2) }, luck);
}
