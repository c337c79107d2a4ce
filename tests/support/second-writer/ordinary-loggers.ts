/* What ordinary loggers do to a log that was sampled well: steps of so many bits, a filter, a clock of milliseconds, columns that stand. */

import { makeTrace, type Trace } from '@/core/traces/trace';

const { round } = Math;

export const manners = [
  '12 bits',
  '10 bits',
  '8 bits',
  'filtered',
  'clock in hundredths',
  'a steady and a switch column beside it',
  'asked ten times a second',
] as const;
export type Manner = (typeof manners)[number];

const steps = (column: Float64Array, range: number, bits: number) => {
  const division = range / 2 ** bits;
  return column.map((value) => round(value / division) * division);
};

/** A first-order low-pass of some two rows. */
function lowPass(column: Float64Array): Float64Array {
  let now = column[0];
  return column.map((value) =>
    Number.isNaN(value) ? value : (now += 0.4 * (value - (Number.isNaN(now) ? value : now))),
  );
}

/** A log as a logger of some manner would have written it; `rangeOf`: full scale of a channel's gauge, SI; undefined for a state. */
export function byOrdinaryLogger(log: Trace, manner: Manner, rangeOf: (channel: string) => number | undefined): Trace {
  const each = (change: (column: Float64Array, range: number) => Float64Array): Trace =>
    makeTrace(
      log.time,
      Object.fromEntries(
        Object.entries(log.columns).map(([channel, column]) => {
          const range = rangeOf(channel);
          return [channel, range === undefined ? column : change(column, range)];
        }),
      ),
    );
  switch (manner) {
    case '12 bits':
      return each((column, range) => steps(column, range, 12));
    case '10 bits':
      return each((column, range) => steps(column, range, 10));
    case '8 bits':
      return each((column, range) => steps(column, range, 8));
    case 'filtered':
      return each(lowPass);
    case 'clock in hundredths':
      return makeTrace(
        log.time.map((t) => round(t * 100) / 100),
        log.columns,
      );
    case 'a steady and a switch column beside it':
      return makeTrace(log.time, {
        ...log.columns,
        ambient_temperature: log.time.map(() => 284.15),
        brake_switch: log.time.map((t) => (t > log.time[log.time.length - 1] / 3 ? 1 : 0)),
      });
    case 'asked ten times a second': {
      const every = Math.max(1, round(0.1 / ((log.time[log.time.length - 1] - log.time[0]) / (log.time.length - 1))));
      const kept = (column: Float64Array) => column.filter((_, i) => i % every === 0);
      return makeTrace(
        kept(log.time),
        Object.fromEntries(Object.entries(log.columns).map(([channel, column]) => [channel, kept(column)])),
      );
    }
  }
}
