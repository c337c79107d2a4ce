import { asGiven, timesWritten } from './held-samples';
import { ownSamples, type Samples } from './own-samples';
import { clearBends, drawnBetween } from './straight-between';
import { neverMoved } from './stuck';
import { makeTrace, type Trace } from './trace';

/** What a tool put into the rows between two samples: the earlier one again, or a straight line. */
export type Between = 'again' | 'line';

/** Columns of which a logger wrote so many rows to each sample. */
export interface WrittenOver {
  readonly between: Between;
  readonly channels: readonly string[];
  readonly times: number;
}

export interface AsSampled {
  /** What was written between samples is empty. The very trace that was given where all of it was sampled. */
  readonly trace: Trace;
  readonly over: readonly WrittenOver[];
}

interface Column {
  readonly channel: string;
  readonly samples: Samples;
}

/** What a column's sensor gave, and how many rows a tool made of each sample. */
export interface Given {
  readonly between: Between;
  readonly times: number;
  readonly samples: Samples;
}

/** What a sensor gave where a tool wrote more rows than that; null of a column that was written as it came. */
export function givenOf(samples: Samples): Given | null {
  const times = timesWritten(samples);
  if (times > 1) return { between: 'again', times, samples: asGiven(samples, times) };
  const drawn = drawnBetween(samples);
  return drawn && { between: 'line', ...drawn };
}

interface Found extends Given {
  /** Times at which it was sampled, s. */
  readonly at: ReadonlySet<number>;
}

function foundOf({ samples }: Column): Found | null {
  const given = givenOf(samples);
  return given && { ...given, at: new Set(given.samples.time) };
}

/** Whether a column does nothing but where another one was sampled: as many samples tell all of it. */
function goesWith({ samples: { time, value } }: Column, { between, at }: Found): boolean {
  if (between === 'line') return clearBends({ value }).at.every((row) => at.has(time[row]) || at.has(time[row - 1]));
  for (let i = 1; i < value.length; i++) if (value[i] !== value[i - 1] && !at.has(time[i])) return false;
  return true;
}

/** The one of them by which another column was written. */
function writtenWith(column: Column, others: readonly Found[]): Found | null {
  return others
    .filter((each) => goesWith(column, each))
    .reduce<Found | null>((most, each) => (most && most.times >= each.times ? most : each), null);
}

/** Cells of a column at these times alone. */
function cellsAt({ time }: Trace, column: Float64Array, at: ReadonlySet<number>): Float64Array {
  return column.map((value, i) => (at.has(time[i]) ? value : Number.NaN));
}

/**
 * A log with what was sampled alone in those of its columns that were `measured`. A logger that writes each sample again until the next one
 * comes, or draws a line to it, shows more rows than its sensors were asked: such a row is no measurement, agrees with its neighbours whatever
 * happens, and hides a gauge that stands still.
 */
export function asSampled(trace: Trace, isMeasured: (channel: string) => boolean): AsSampled {
  const measured = Object.entries(trace.columns)
    .filter(([channel]) => isMeasured(channel))
    .map(([channel, column]) => ({ channel, samples: ownSamples(trace, column) }));
  const own = new Map(measured.map((column) => [column.channel, foundOf(column)]));
  const told = [...own.values()].filter((each) => each !== null);
  if (told.length === 0) return { trace, over: [] };
  const cells: Record<string, Float64Array> = { ...trace.columns };
  const over = new Map<string, WrittenOver>();
  for (const column of measured) {
    const by = own.get(column.channel) ?? writtenWith(column, told);
    if (!by) continue;
    cells[column.channel] = cellsAt(trace, trace.columns[column.channel], by.at);
    // Of a column that never moves nobody can tell how it was written, and nothing is lost of it.
    if (neverMoved(column.samples)) continue;
    const key = `${by.between} ${by.times}`;
    const { between, times } = by;
    over.set(key, { between, times, channels: [...(over.get(key)?.channels ?? []), column.channel] });
  }
  return {
    trace: makeTrace(trace.time, cells),
    over: [...over.values()],
  };
}
