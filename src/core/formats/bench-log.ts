import { findChannel } from '../quantities/channels';
import { findUnit, fromSi, unitOf, type MeasurementUnit } from '../quantities/measurement-unit';
import type { Trace } from '../traces/trace';
import { applyMapping, mappingInTodaysNames, type LogNeeds, type MappedColumn } from './column-mapping';
import { inferReference } from './infer-reference';
import { readRawLog, type RawLog } from './raw-log';
import type { LogNotice } from '../vocabulary/log-notice';
import { readFailed, readOk, type Read } from './read-result';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { ReadProblem } from '../vocabulary/read-problem';

/** A bench log as read: the trace in SI, its metadata, and what was odd but usable. */
export interface BenchLog {
  readonly trace: Trace;
  readonly metadata: Readonly<Record<string, string>>;
  /** Rows that repeat the time stamp of the row before. */
  readonly repeatedTimes: number;
  /** Rows that only say the header again. */
  readonly repeatedHeaders: number;
  /** What was read otherwise than as it stands, by column of `headers`. */
  readonly noticed: readonly LogNotice[];
  readonly headers: readonly string[];
  /** What was turned, taken for absolute, or settled by an assumption that was given. */
  readonly turned: readonly AnalysisProblem[];
}

/** How a channel of a log is to be read, where the file leaves it open. */
export type Assumption = 'absolute' | 'vacuum' | 'gauge' | 'negative';

/** What sign and reference are told by. */
export interface Referring {
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
  readonly assume: ReadonlyMap<string, Assumption>;
}

/** What the metadata of a log says as its `source` when the stand-in rig made it. */
export const standInSource = 'stand-in rig';

const longestHeader = 200;
/** `channel [unit]`, in a header without spaces at its ends: no part of it can match what another can. */
const headerPattern = /^([^[\]]+)(?:\[([^\]]*)\])?$/;

/** The columns of a log whose headers are written `channel [unit]`; every header that is not is a problem. */
export function readHeader(cells: readonly string[], file: string, line: number): Read<MappedColumn[]> {
  const columns: MappedColumn[] = [];
  const seen = new Set<string>();
  const problems: ReadProblem[] = [];
  for (const header of cells) {
    const [, name, inside] = header.length > longestHeader ? [] : (headerPattern.exec(header.trim()) ?? []);
    const [id, spelling] = [name?.trim(), inside?.trim()];
    if (!id) {
      problems.push({ code: 'bad-header', file, line, header });
      continue;
    }
    const channel = findChannel(id);
    const fallback = id === 'time' ? 's' : channel?.dimension === 'ratio' ? '1' : undefined;
    const needs = id === 'time' ? 's' : channel?.fileUnit;
    if (seen.has(id)) problems.push({ code: 'duplicate-channel', file, line, channel: id });
    seen.add(id);
    // A column of the user's own is kept as it is, whatever its unit.
    if (needs === undefined) {
      columns.push({ use: 'own' });
      continue;
    }
    const absolute = /\babs(?:olute)?\b/i.test(spelling ?? '');
    const unit = findUnit((spelling ?? fallback ?? '').replace(/\s*\b(?:abs(?:olute)?|gauge|vac(?:uum)?)\b\.?/i, ''));
    if (!unit || (spelling === undefined && fallback === undefined))
      problems.push(
        spelling === undefined
          ? { code: 'wrong-unit', file, line, header, needs }
          : { code: 'unknown-unit', file, line, header, unit: spelling },
      );
    else if (unit.dimension !== unitOf(needs).dimension)
      problems.push({ code: 'wrong-unit', file, line, header, needs });
    else if (id === 'time') columns.push({ use: 'time', unit: unit.symbol });
    else columns.push({ use: 'channel', channel: id, unit: unit.symbol, sign: 1, absolute });
  }
  if (problems.length === 0 && !columns.some((column) => column.use === 'time'))
    problems.push({ code: 'no-time-column', file, line });
  return problems.length > 0 ? readFailed(...problems) : readOk(columns);
}

/**
 * Reads a bench log (RFC 4180; comma, semicolon or tab; decimal point or comma; leading `# key: value` lines) with
 * headers `channel [unit]`. What is unusable is named by file, line and column; nothing is left out. With `referring` a
 * column that is negative or absolute throughout is turned, and what makes sense both ways is refused with the question.
 */
export function readBenchLog(text: string, file: string, needs: LogNeeds, referring?: Referring): Read<BenchLog> {
  const raw = readRawLog(text, file);
  if (!raw.ok) return raw;
  const header = readHeader(raw.value.headers, file, raw.value.headerLine);
  if (!header.ok) return header;
  const named = mappingInTodaysNames(needs, header.value);
  const referred = referring ? refer(raw.value, named, referring) : readOk({ columns: named, turned: [] });
  if (!referred.ok) return referred;
  const { columns, turned } = referred.value;
  const mapped = applyMapping(raw.value, columns, needs, {
    ambient: referring?.ambient ?? Number.NaN,
    leaveOut: false,
  });
  if (!mapped.ok) return mapped;
  const { trace, repeatedTimes } = mapped.value;
  const { metadata, repeatedHeaders, noticed, headers } = raw.value;
  return readOk({ trace, metadata, repeatedTimes, repeatedHeaders, noticed, headers, turned });
}

interface Referred {
  readonly columns: readonly MappedColumn[];
  readonly turned: readonly AnalysisProblem[];
}

/** The columns with sign and reference as their header, an assumption or their own figures say. */
function refer(raw: RawLog, columns: readonly MappedColumn[], { ambient, assume }: Referring): Read<Referred> {
  const turned: AnalysisProblem[] = [];
  const problems: ReadProblem[] = [];
  const referred = columns.map((column, at): MappedColumn => {
    if (column.use !== 'channel') return column;
    const { channel } = column;
    const described = findChannel(channel);
    if (!described) return column;
    const given = assume.get(channel);
    if (given !== undefined) {
      turned.push({ code: 'reference-assumed', channel, as: given });
      return { ...column, absolute: given === 'absolute', sign: given === 'negative' ? -1 : 1 };
    }
    if (column.absolute) {
      turned.push({ code: 'read-as-absolute', channel });
      return column;
    }
    const { factor, offset } = unitOf(column.unit);
    const found = inferReference(
      described,
      raw.columns[at].map((value) => value * factor + offset),
      ambient,
      true,
    );
    switch (found.kind) {
      case 'as-written':
        return column;
      case 'negative':
        turned.push({ code: 'sign-turned', channel });
        return { ...column, sign: -1 };
      case 'absolute':
        turned.push({ code: 'read-as-absolute', channel });
        return { ...column, absolute: true };
      case 'ambiguous':
        problems.push({ ...found, code: 'ambiguous-reference', file: raw.file, line: raw.headerLine, channel });
        return column;
    }
  });
  return problems.length > 0 ? readFailed(...problems) : readOk({ columns: referred, turned });
}

const { round } = Math;

/** Figures without trailing noughts. */
const plainly = Number;

/** Readings of a gauge repeat, as it has a resolution: so many texts of a column are kept. */
const textsKept = 4096;

/** Writes the numbers of one column; a missing sample, the one number that is not itself, is an empty cell. */
function cellWriter(unit: MeasurementUnit): (value: number) => string {
  const known = new Map<number, string>();
  return (value) => {
    if (value !== value) return '';
    const before = known.get(value);
    if (before !== undefined) return before;
    const text = `${plainly(fromSi(value, unit).toPrecision(10))}`;
    if (known.size < textsKept) known.set(value, text);
    return text;
  };
}

/** Writes a trace as a bench log in the channels' file units; a missing sample is an empty cell. */
export function writeBenchLog(trace: Trace, metadata: Readonly<Record<string, string>>): string {
  const ids = Object.keys(trace.columns);
  const units = ids.map((id) => unitOf(findChannel(id)?.fileUnit ?? '1'));
  const lines = Object.entries(metadata).map(([key, value]) => `# ${key}: ${value.replace(/[\r\n]+/g, ' ')}`);
  lines.push(['time [s]', ...ids.map((id, c) => `${id} [${units[c].symbol}]`)].join(','));
  const columns = ids.map((id) => trace.columns[id]);
  const writers = units.map(cellWriter);
  for (let i = 0; i < trace.time.length; i++) {
    let line = `${round(trace.time[i] * 1e6) / 1e6}`;
    for (let c = 0; c < columns.length; c++) line += `,${writers[c](columns[c][i])}`;
    lines.push(line);
  }
  return `${lines.join('\n')}\n`;
}
