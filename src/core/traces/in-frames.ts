import { divisionOf, ownInterval, ownSamples, sampleAt, type Samples } from './own-samples';
import { longestBridged } from './time-mean';
import { makeTrace, type Trace } from './trace';

const { abs, max, min, round, sign } = Math;
const { isNaN } = Number;

/** A log whose fastest column is written in fewer of its rows than this is written in turn. */
const wholeShare = 0.9;
/** A column that has a sample in so many of the rows is as fast as they are: where one is missing, its clock only runs beside theirs. */
const asFast = 0.8;
/** A sample is carried to its row along the slope over so many of its neighbours to each side: more would smooth, fewer would add noise. */
const besideForSlope = 2;

export interface InFrames {
  /** Each sample in the row of the fastest column that is nearest to it. The very trace that was given where it was written so. */
  readonly trace: Trace;
  /** Longest time that a sample was carried to its row, s; 0 where none was. */
  readonly carried: number;
}

/**
 * What a column holds: what a sensor measured; what was asked for, in steps of its own; or a state, a switch or a lamp, that is what it was
 * until it is written again.
 */
export type ColumnNature = 'measured' | 'asked' | 'state';

interface Column {
  readonly channel: string;
  readonly samples: Samples;
  readonly nature: ColumnNature;
}

/** Index of the row (s, rising) that is nearest to a time. */
function nearestRow(rows: Float64Array, at: number): number {
  const after = sampleAt({ time: rows }, at);
  if (after === 0) return 0;
  return after === rows.length || at - rows[after - 1] <= rows[after] - at ? after - 1 : after;
}

/** A sample's value carried by `shift` s along the column's slope there, in whole divisions of the column. */
function carriedBy({ time, value }: Samples, at: number, shift: number, division: number): number {
  const [from, to] = [max(0, at - besideForSlope), min(value.length - 1, at + besideForSlope)];
  const [before, after] = [
    (value[at] - value[from]) / (time[at] - time[from]),
    (value[to] - value[at]) / (time[to] - time[at]),
  ];
  // The gentler of both sides, and none at a turn: beside a jump nothing is on its way anywhere.
  const by = before * after > 0 ? sign(before) * min(abs(before), abs(after)) * shift : 0;
  return value[at] + (division > 0 ? round(by / division) * division : by);
}

/** A column straight between its own samples, and to an interval beyond them; NaN where they are further apart than is bridged. */
function straightAt(samples: Samples, at: number): number {
  const { time, value } = samples;
  const after = sampleAt(samples, at);
  const last = time.length - 1;
  if (after === 0) return time[0] - at <= ownInterval(samples) ? value[0] : Number.NaN;
  if (after > last) return at - time[last] <= ownInterval(samples) ? value[last] : Number.NaN;
  const [from, to] = [time[after - 1], time[after]];
  if (to - from > longestBridged(samples)) return Number.NaN;
  return value[after - 1] + ((value[after] - value[after - 1]) * (at - from)) / (to - from);
}

/** A column in the rows of a frame: of two samples that fall into one row the nearer one. */
function framed({ samples, nature }: Column, rows: Float64Array) {
  const cells = new Float64Array(rows.length).fill(Number.NaN);
  const by = new Float64Array(rows.length).fill(Infinity);
  const division = divisionOf(samples);
  for (let i = 0; i < samples.time.length; i++) {
    const row = nearestRow(rows, samples.time[i]);
    const shift = rows[row] - samples.time[i];
    if (abs(shift) >= by[row]) continue;
    by[row] = abs(shift);
    cells[row] = nature === 'measured' ? carriedBy(samples, i, shift, division) : samples.value[i];
  }
  return { cells, carried: by.reduce((most, each) => (each < Infinity ? max(most, each) : most), 0) };
}

/** Times at which a state changes, s. */
function changesOf({ time, columns }: Trace, states: readonly string[]): number[] {
  const standing = states.map((channel) => columns[channel]);
  const differ = (one: number, other: number) => one !== other && !(isNaN(one) && isNaN(other));
  return [...time].filter((_, i) => i > 0 && standing.some((column) => differ(column[i], column[i - 1])));
}

/** Samples of columns while the fastest one is silent, s. */
function alone(fastest: Samples, others: readonly Column[]): number[] {
  const reach = ownInterval(fastest);
  const { time } = fastest;
  return others.flatMap(({ samples }) =>
    [...samples.time].filter((at) => abs(time[nearestRow(time, at)] - at) > reach),
  );
}

/** A state at the rows of a frame. */
function heldAt({ time }: Trace, column: Float64Array, rows: Float64Array): Float64Array {
  return rows.map((at) => {
    const after = sampleAt({ time }, at);
    return column[after < time.length && time[after] === at ? after : max(0, after - 1)];
  });
}

/** Columns of a log: those that are sampled, with their samples, the fastest of what was measured, and the states. */
interface Columns {
  readonly sampled: readonly Column[];
  readonly fastest: Column;
  readonly states: readonly string[];
}

function columnsOf(trace: Trace, natureOf: (channel: string) => ColumnNature): Columns | null {
  const every = Object.entries(trace.columns).map(([channel, column]) => ({
    channel,
    nature: natureOf(channel),
    samples: ownSamples(trace, column),
  }));
  const measured = every.filter(({ nature }) => nature === 'measured');
  if (measured.length === 0) return null;
  const fastest = measured.reduce((most, each) => (each.samples.time.length > most.samples.time.length ? each : most));
  const states = every.flatMap(({ channel, nature }) => (nature === 'state' ? [channel] : []));
  return { sampled: every.filter(({ nature }) => nature !== 'state'), fastest, states };
}

/** A column with its empty cells at these rows filled in, straight between its own samples. */
function filledAt(cells: Float64Array, samples: Samples, rows: Float64Array, where: (at: number) => boolean) {
  if (!cells.some((value, row) => isNaN(value) && where(rows[row]))) return cells;
  return cells.map((value, row) => (isNaN(value) && where(rows[row]) ? straightAt(samples, rows[row]) : value));
}

/** Each sample in the nearest of the rows of the fastest column. */
function alignedTo({ sampled, fastest, states }: Columns, trace: Trace, changes: ReadonlySet<number>): InFrames {
  const others = sampled.filter((each) => each !== fastest);
  const rows = Float64Array.from(
    new Set([...fastest.samples.time, ...alone(fastest.samples, others), ...changes]),
  ).sort();
  const columns: Record<string, Float64Array> = {};
  let carried = 0;
  for (const channel of states) columns[channel] = heldAt(trace, trace.columns[channel], rows);
  for (const column of sampled) {
    const { channel, samples, nature } = column;
    const frame = framed(column, rows);
    const fast = samples.time.length >= asFast * fastest.samples.time.length;
    carried = max(carried, frame.carried);
    columns[channel] =
      nature === 'asked' ? frame.cells : filledAt(frame.cells, samples, rows, (at) => fast || changes.has(at));
  }
  return { trace: makeTrace(rows, columns), carried };
}

/**
 * A log of which each row holds what one sensor or one control unit sent, the other cells empty, with the samples of each moment in one row:
 * a figure that is formed of several columns finds them together. Where a state changes, what was measured is told too. States must have been
 * filled in already.
 */
export function inFrames(trace: Trace, natureOf: (channel: string) => ColumnNature): InFrames {
  const same = { trace, carried: 0 };
  const log = columnsOf(trace, natureOf);
  if (!log || log.fastest.samples.time.length < 2) return same;
  const measured = log.sampled.filter(({ nature }) => nature === 'measured');
  if (measured.every(({ samples }) => samples.time.length === trace.time.length)) return same;
  const changes = new Set(changesOf(trace, log.states));
  if (log.fastest.samples.time.length < wholeShare * trace.time.length) return alignedTo(log, trace, changes);
  const told = measured.map(
    ({ channel, samples }) =>
      [channel, filledAt(trace.columns[channel], samples, trace.time, (at) => changes.has(at))] as const,
  );
  if (told.every(([channel, column]) => column === trace.columns[channel])) return same;
  return { trace: makeTrace(trace.time, { ...trace.columns, ...Object.fromEntries(told) }), carried: 0 };
}
