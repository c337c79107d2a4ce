import type { LogFeed } from '../procedure/step-definition';
import { formerNames } from '../procedure/todays-names';
import { findChannel } from '../quantities/channels';
import { unitOf } from '../quantities/measurement-unit';
import { columnOf, makeTrace, type Trace } from '../traces/trace';
import type { RawLog } from './raw-log';
import { readFailed, readOk, type Read } from './read-result';
import type { ReadProblem } from '../vocabulary/read-problem';

/** What one column of a log is. */
export type MappedColumn =
  | { readonly use: 'skip' }
  /** A column of the user's own, kept under its header as it is. */
  | { readonly use: 'own' }
  | { readonly use: 'time'; readonly unit: string }
  | {
      readonly use: 'channel';
      readonly channel: string;
      readonly unit: string;
      /** −1 for a vacuum logged as negative gauge pressure, or a sensor wired the other way round. */
      readonly sign: 1 | -1;
      /** A vacuum logged as absolute pressure is taken from the local atmosphere, and the atmosphere from a gauge pressure. */
      readonly absolute: boolean;
    };

/** What a step asks of a log. */
export interface LogNeeds extends Pick<LogFeed, 'formerly' | 'named' | 'anyOf'> {
  readonly step: string;
  readonly needs: readonly string[];
  readonly leastRows: number;
}

export interface MappedLog {
  readonly trace: Trace;
  /** Rows that repeat the time stamp of the row before. */
  readonly repeatedTimes: number;
  /** Lines that were left out, each with why. */
  readonly leftOut: readonly string[];
}

export interface MappingOptions {
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
  /** Leaves named rows out instead of refusing the file; the screen asks first, the command line never does. */
  readonly leaveOut: boolean;
}

/** What is wrong with a log for a step, by line, in file order. */
export function rowProblems(raw: RawLog, mapping: readonly MappedColumn[], needs: LogNeeds): ReadProblem[] {
  const { file } = raw;
  const idOf = (column: number) => columnId(raw, mapping, column);
  const needed = mapping.map(
    (each) => each.use === 'time' || (each.use === 'channel' && needs.needs.includes(each.channel)),
  );
  const problems: ReadProblem[] = [];
  for (const { line, column, text } of raw.bad) {
    if (column < 0) problems.push({ code: 'ragged-row', file, line, cells: Number(text), needs: raw.headers.length });
    else if (needed[column]) problems.push({ code: 'not-a-number', file, line, column: idOf(column), text });
  }
  const timeAt = mapping.findIndex((each) => each.use === 'time');
  const time = raw.columns[timeAt];
  const badTimes = new Set(raw.bad.filter((cell) => cell.column === timeAt).map((cell) => cell.row));
  let before = -Infinity;
  for (let row = 0; row < raw.rows; row++) {
    const now = time[row];
    if (Number.isNaN(now)) {
      if (!badTimes.has(row))
        problems.push({ code: 'not-a-number', file, line: raw.lineOf(row), column: 'time', text: '' });
      continue;
    }
    if (now < before) problems.push({ code: 'time-backwards', file, line: raw.lineOf(row), time: now, before });
    else before = now;
  }
  const lineOf = (problem: ReadProblem) => ('line' in problem ? problem.line : 0);
  return problems.sort((p, q) => lineOf(p) - lineOf(q));
}

function columnId(raw: RawLog, mapping: readonly MappedColumn[], column: number): string {
  const mapped = mapping[column];
  if (mapped.use === 'time') return 'time';
  return mapped.use === 'channel' ? mapped.channel : raw.headers[column].trim();
}

/**
 * A raw log as a trace in SI, by what its columns are. An empty cell is a missing sample; equal time stamps are kept and
 * counted; a bad cell in a channel the step does not need is a missing sample of it. What the step cannot do without is
 * refused, named by line, or left out by name where that was asked for.
 */
export function applyMapping(
  raw: RawLog,
  mapping: readonly MappedColumn[],
  needs: LogNeeds,
  { ambient, leaveOut }: MappingOptions,
): Read<MappedLog> {
  const { file } = raw;
  const timeAt = mapping.findIndex((each) => each.use === 'time');
  if (timeAt < 0) return readFailed({ code: 'no-time-column', file, line: raw.headerLine });
  for (const channel of needs.needs)
    if (!mapping.some((each) => each.use === 'channel' && each.channel === channel))
      return readFailed({ code: 'missing-channel', file, line: raw.headerLine, channel, step: needs.step });
  const { anyOf = [] } = needs;
  const isMapped = (channel: string) => mapping.some((each) => each.use === 'channel' && each.channel === channel);
  if (anyOf.length > 0 && !anyOf.some((way) => way.every(isMapped)))
    return readFailed({ code: 'nothing-of-use', file, line: raw.headerLine, anyOf, step: needs.step });
  const twice = mappedTwice(mapping);
  if (twice !== null) return readFailed({ code: 'duplicate-channel', file, line: raw.headerLine, channel: twice });
  const problems = rowProblems(raw, mapping, needs);
  if (problems.length > 0 && !leaveOut) return readFailed(problems[0]);
  const keep = leaveOut && problems.length > 0 ? rowsWithout(raw, problems) : null;
  const rows = keep ? keep.length : raw.rows;
  if (rows < needs.leastRows)
    return readFailed({ code: 'too-few-rows', file, rows, needs: needs.leastRows, step: needs.step });

  const column = (at: number, factor: number, offset: number) => {
    const from = raw.columns[at];
    const out = new Float64Array(rows);
    for (let i = 0; i < rows; i++) out[i] = from[keep ? keep[i] : i] * factor + offset;
    return out;
  };
  const columns: Record<string, Float64Array> = {};
  let time = new Float64Array();
  // A column of the user's own may bear a channel's name: what is mapped to that channel comes after it.
  mapping.forEach((mapped, at) => {
    if (mapped.use === 'own') columns[raw.headers[at].trim()] = column(at, 1, 0);
  });
  mapping.forEach((mapped, at) => {
    if (mapped.use === 'time') time = column(at, unitOf(mapped.unit).factor, 0);
    if (mapped.use !== 'channel') return;
    const unit = unitOf(mapped.unit);
    const reference = findChannel(mapped.channel)?.reference;
    columns[mapped.channel] =
      mapped.absolute && reference
        ? column(
            at,
            ...(reference === 'vacuum' ? ([-unit.factor, ambient] as const) : ([unit.factor, -ambient] as const)),
          )
        : column(at, mapped.sign * unit.factor, mapped.sign * unit.offset);
  });
  let repeatedTimes = 0;
  for (let i = 1; i < rows; i++) if (time[i] === time[i - 1]) repeatedTimes++;
  const said = saidColumn(raw, needs, rows);
  if (said && !said.ok) return said;
  if (said?.ok && !(said.value.channel in columns)) columns[said.value.channel] = said.value.column;
  const trace = makeTrace(time, columns);
  const empty = needs.needs.find((channel) => !columnOf(trace, channel));
  if (empty) return readFailed({ code: 'empty-channel', file, channel: empty, step: needs.step });
  const leftOut = keep ? problems.flatMap((problem) => ('line' in problem ? [`line ${problem.line}`] : [])) : [];
  return readOk({ trace, repeatedTimes, leftOut });
}

/** What a log says of itself in its own lines, as a column; null where it says nothing that the step asks for. */
function saidColumn(
  { metadata, file }: RawLog,
  { named }: LogNeeds,
  rows: number,
): Read<{ readonly channel: string; readonly column: Float64Array }> | null {
  const said = named && metadata[named.key]?.trim().toLowerCase();
  if (!named || said === undefined) return null;
  const number = Object.hasOwn(named.values, said) ? named.values[said] : undefined;
  if (number === undefined)
    return readFailed({
      code: 'bad-field',
      file,
      field: named.key,
      detail: `"${said}" is none of ${Object.keys(named.values).join(', ')}`,
    });
  return readOk({ channel: named.channel, column: new Float64Array(rows).fill(number) });
}

/** The first thing that two columns are said to be; null where every column is something else. */
function mappedTwice(mapping: readonly MappedColumn[]): string | null {
  const said = mapping.flatMap((each) => {
    if (each.use === 'time') return ['time'];
    return each.use === 'channel' ? [each.channel] : [];
  });
  return said.find((each, at) => said.indexOf(each) < at) ?? null;
}

/** Rows that have no problem, as indices. */
function rowsWithout(raw: RawLog, problems: readonly ReadProblem[]): Int32Array {
  const lines = new Set(problems.flatMap((problem) => ('line' in problem ? [problem.line] : [])));
  const kept: number[] = [];
  for (let row = 0; row < raw.rows; row++) if (!lines.has(raw.lineOf(row))) kept.push(row);
  return Int32Array.from(kept);
}

/** A mapping with the channels as a step calls them today, whatever they were called when it was made. */
export function mappingInTodaysNames(
  feed: Pick<LogFeed, 'formerly'>,
  mapping: readonly MappedColumn[],
): readonly MappedColumn[] {
  const former = formerNames(
    feed,
    mapping.flatMap((column) => (column.use === 'channel' ? [column.channel] : [])),
  );
  return mapping.map((column) =>
    column.use === 'channel' ? { ...column, channel: former.get(column.channel) ?? column.channel } : column,
  );
}
