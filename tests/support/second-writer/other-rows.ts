import { makeTrace, type Trace } from '@/core/traces/trace';

/*
 * What tools make of samples when they write them into rows. None of it is noise: the same was measured, and the same must come of it.
 */

const { floor, max, min, round } = Math;

/**
 * How a tool writes: a row a sample; every sample over and over until the next one; a row for every message, the other cells empty; or straight
 * between samples. Or it asks its sensors too seldom for what happens: once a second, or twice, written as by one of the others.
 */
export type Rows =
  | 'a-row-a-sample'
  | 'over-and-over'
  | 'in-turn'
  | 'straight-between'
  | 'seldom'
  | 'seldom-over-and-over'
  | 'seldom-straight-between';

/** Whether so few samples can show a step at all: nothing is asked of such a log but that it is not judged wrongly. */
export const asksOften = (rows: Rows) => !rows.startsWith('seldom');

/** Clock of a tool that writes so many rows for each of a log's, s. */
function moreRows(time: Float64Array, times: number): Float64Array {
  const last = time.length - 1;
  return Float64Array.from({ length: time.length * times }, (_, row) => {
    const i = floor(row / times);
    const interval = i < last ? time[i + 1] - time[i] : time[last] - time[last - 1];
    return time[i] + (interval * (row % times)) / times;
  });
}

const columnsOf = ({ columns }: Trace, of: (column: Float64Array, turn: number) => Float64Array) =>
  Object.fromEntries(Object.entries(columns).map(([id, column], turn) => [id, of(column, turn)]));

/** The same log by a tool that writes each row `times` times, until its sensors are asked again. */
export function writtenOver(log: Trace, times: number): Trace {
  const time = moreRows(log.time, times);
  return makeTrace(
    time,
    columnsOf(log, (column) => time.map((_, row) => column[floor(row / times)])),
  );
}

/** The same log by a tool that writes `times` rows for each, every column in the one that is its turn. */
export function writtenInTurn(log: Trace, times: number): Trace {
  const time = moreRows(log.time, times);
  return makeTrace(
    time,
    columnsOf(log, (column, turn) =>
      time.map((_, row) => (row % times === turn % times ? column[floor(row / times)] : Number.NaN)),
    ),
  );
}

const isSwitch = (column: Float64Array) => column.every((value) => value === 0 || value === 1);

/** The same log by a tool that writes `times` rows for each, straight between its samples; what is on or off stays so. */
export function writtenBetween(log: Trace, times: number): Trace {
  const time = moreRows(log.time, times);
  const last = log.time.length - 1;
  const line = (column: Float64Array) =>
    time.map((_, row) => {
      const i = floor(row / times);
      return column[i] + ((column[min(last, i + 1)] - column[i]) * (row % times)) / times;
    });
  const again = (column: Float64Array) => time.map((_, row) => column[floor(row / times)]);
  return makeTrace(
    time,
    columnsOf(log, (column) => (isSwitch(column) ? again(column) : line(column))),
  );
}

/** Every so many rows of a log that its tool would have written, had it asked `rate` times a second. */
function askedSeldom(log: Trace, rate: number): Trace {
  const rows = log.time.length - 1;
  const every = max(1, round(rows / (log.time[rows] - log.time[0]) / rate));
  const asked = (column: Float64Array) => column.filter((_, row) => row % every === 0);
  return makeTrace(asked(log.time), columnsOf(log, asked));
}

export function writtenAs(rows: Rows, log: Trace): Trace {
  switch (rows) {
    case 'a-row-a-sample':
      return log;
    case 'over-and-over':
      return writtenOver(log, 10);
    case 'straight-between':
      return writtenBetween(log, 10);
    case 'in-turn':
      return writtenInTurn(log, 3);
    case 'seldom':
      return askedSeldom(log, 1);
    case 'seldom-over-and-over':
      return writtenOver(askedSeldom(log, 2), 10);
    case 'seldom-straight-between':
      return writtenBetween(askedSeldom(log, 2), 10);
  }
}
