import Papa from 'papaparse';
import { cellTime, isDated } from './cell-time';
import { cellsOf, findLayout } from './log-layout';
import { longestCell, missingFigure, oddCell } from './odd-cells';
import { readPlainRow } from './plain-row';
import { readFailed, readOk, type Read } from './read-result';
import type { LogNotice } from '../vocabulary/log-notice';
import { rollClock } from './rolled-clock';
import { withSingleMarks } from './single-marks';

const { ceil, max } = Math;

/** A cell that should be a number and is not, or a row of the wrong width (column −1). */
export interface BadCell {
  /** Row of the columns (0 is the first data row that was kept), or where the next would have been. */
  readonly row: number;
  readonly line: number;
  readonly column: number;
  readonly text: string;
}

/** A log as plain numbers, one column a header, before anybody says what the columns are. */
export interface RawLog {
  readonly file: string;
  readonly metadata: Readonly<Record<string, string>>;
  readonly headers: readonly string[];
  /** Line of the header in the file. */
  readonly headerLine: number;
  /** NaN is an empty cell or a bad one. */
  readonly columns: readonly Float64Array[];
  readonly rows: number;
  /** Line of each row in the file, where blank or ragged lines make it other than its place. */
  readonly lineOf: (row: number) => number;
  /** Bad cells in file order; at most `mostBadCells` are listed, all are counted. */
  readonly bad: readonly BadCell[];
  readonly badCount: number;
  /** Rows that only say the header again, as some tools do now and then; they are left out. */
  readonly repeatedHeaders: number;
  /** Columns in which clocks or dates were read as seconds. */
  readonly clocks: ReadonlySet<number>;
  /** What was read otherwise than as it stands, by column. */
  readonly noticed: readonly LogNotice[];
}

export const mostBadCells = 5000;

function metadataOf(text: string): { metadata: Record<string, string>; body: string; skipped: number } {
  const metadata: Record<string, string> = {};
  let at = 0;
  let skipped = 0;
  while (at < text.length) {
    const end = text.indexOf('\n', at);
    const line = text.slice(at, end < 0 ? text.length : end).replace(/\r$/, '');
    if (line.startsWith('#')) {
      const colon = line.indexOf(':');
      const key = colon < 0 ? '' : line.slice(1, colon).trim();
      if (key) metadata[key] = line.slice(colon + 1).trim();
    } else if (line.trim() !== '') break;
    skipped++;
    at = end < 0 ? text.length : end + 1;
  }
  return { metadata, body: text.slice(at), skipped };
}

/** Line ends of an old kind, a carriage return by itself, as line feeds. */
function withLineFeeds(text: string): string {
  return text.includes('\n') ? text : text.replaceAll('\r', '\n');
}

/** The least that a figure with parted thousands comes to. */
const leastParted = 1_000;

/** No logger of a workshop has more channels. */
const mostColumns = 1_000;

/** So many lines are looked at to find where the table begins. */
const mostFirstLines = 80;

/** The first lines of a text, and where each of them ends. */
function firstLines(text: string): { lines: string[]; ends: number[] } {
  const lines: string[] = [];
  const ends: number[] = [];
  for (let at = 0; at < text.length && lines.length < mostFirstLines;) {
    const end = text.indexOf('\n', at);
    lines.push(text.slice(at, end < 0 ? text.length : end).replace(/\r$/, ''));
    at = end < 0 ? text.length : end + 1;
    ends.push(at);
  }
  return { lines, ends };
}

/** Characters read between two words of progress. */
const progressEvery = 1 << 20;

const numberPattern = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;

/** Number in a cell; NaN for an empty cell; undefined for anything that is not a number. */
function cellNumber(cell: string, decimalComma: boolean, commas: boolean): number | undefined {
  const text = cell.trim();
  if (text === '') return Number.NaN;
  if (text.length > longestCell) return undefined;
  // Beside decimal commas a point before three figures parts thousands, and no other point is a mark.
  if (commas && oneThousand.test(text)) return Number(text.replace('.', ''));
  const plain = decimalComma ? text.replace(',', '.') : text;
  if (numberPattern.test(plain)) return Number(plain);
  const parted = withoutThousands(text, decimalComma);
  return parted === undefined ? undefined : Number(parted);
}

const thousands = /^[+-]?\d{1,3}(?:[ '\u00a0\u202f]\d{3})+(?:[.,]\d+)?$/;
const oneThousand = /^[+-]?[1-9]\d{0,2}\.\d{3}$/;
const commaThousands = /^[+-]?\d{1,3}(?:,\d{3})+(?:\.\d+)?$/;
const pointThousands = /^[+-]?\d{1,3}(?:\.\d{3})+,\d+$/;

/** A figure whose thousands are parted, as plain digits with a point; undefined where it is none. */
function withoutThousands(text: string, decimalComma: boolean): string | undefined {
  if (thousands.test(text)) return text.replace(/[ '\u00a0\u202f]/g, '').replace(',', '.');
  if (decimalComma && pointThousands.test(text)) return text.replaceAll('.', '').replace(',', '.');
  // Between other marks than commas one comma parts decimals; several, or one before a point, part thousands.
  return commaThousands.test(text) && (!decimalComma || /,.*[,.]/.test(text)) ? text.replaceAll(',', '') : undefined;
}

/** Figures with a decimal comma, and none with a decimal point, in the first rows of a text: its points then part thousands. */
function partsByComma(text: string, delimiter: string): boolean {
  const cells = text
    .slice(0, looked)
    .split('\n')
    .flatMap((line) => line.split(delimiter).map((cell) => cell.trim().slice(0, longestCell)));
  return cells.some((cell) => withComma.test(cell)) && !cells.some((cell) => withPoint.test(cell));
}

/** Characters looked through for a decimal comma. */
const looked = 100_000;
const withComma = /^[+-]?\d+,\d+$/;
/** A point that can part no thousands. */
const withPoint = /^[+-]?(?:0?\.\d+|\d+\.(?:\d{1,2}|\d{4,}))$/;

/** Takes figures that stand for no reading out of a column, in place; returns how many. */
function dropMissing(column: Float64Array): number {
  let dropped = 0;
  for (let i = 0; i < column.length; i++)
    if (column[i] === missingFigure) {
      column[i] = Number.NaN;
      dropped++;
    }
  return dropped;
}

function countedNotices() {
  const counts = new Map<string, LogNotice>();
  return {
    add(column: number, what: LogNotice['what'], times = 1) {
      if (times === 0) return;
      const key = `${column} ${what}`;
      counts.set(key, { column, what, times: (counts.get(key)?.times ?? 0) + times });
    },
    get: () => [...counts.values()],
  };
}

/** Columns that grow as rows come in. */
function growingColumns(width: number, capacity: number) {
  let data = Array.from({ length: width }, () => new Float64Array(capacity));
  let room = capacity;
  return {
    get: () => data,
    makeRoom(rows: number) {
      if (rows < room) return;
      room *= 2;
      data = data.map((column) => {
        const larger = new Float64Array(room);
        larger.set(column);
        return larger;
      });
    },
  };
}

/**
 * Reads a CSV (RFC 4180; comma, semicolon, tab, bar or spaces; decimal point or comma; leading `# key: value` lines) as numbers.
 * Nothing is dropped in silence: cells that are no numbers and rows of another width are listed with their lines.
 * `progress` is told the share that has been read.
 */
export function readRawLog(text: string, file: string, progress?: (share: number) => void): Read<RawLog> {
  if (text.includes('\u0000') || text.includes('\uFFFD')) return readFailed({ code: 'not-text', file });
  const { metadata, body: written, skipped } = metadataOf(withLineFeeds(text.replace(/^\uFEFF/, '')));
  const body = withSingleMarks(written);
  if (body.trim() === '') return readFailed({ code: 'empty-file', file });
  const { lines, ends } = firstLines(body);
  const { delimiter, headers, headerAt, rowsAt } = findLayout(lines);
  if (headers.length > mostColumns) return readFailed({ code: 'too-many-columns', file, columns: headers.length });
  return readOk({
    file,
    metadata,
    headers,
    headerLine: skipped + headerAt + 1,
    ...readRows(body.slice(ends[rowsAt - 1] ?? body.length), {
      width: headers.length,
      titles: cellsOf(lines[headerAt] ?? '', delimiter),
      delimiter,
      firstLine: skipped + rowsAt + 1,
      progress,
    }),
  });
}

interface RowReading {
  readonly width: number;
  /** Header as it is written. */
  readonly titles: readonly string[];
  readonly delimiter: string;
  readonly firstLine: number;
  readonly progress?: (share: number) => void;
}

function readRows(text: string, how: RowReading): Omit<RawLog, 'file' | 'metadata' | 'headers' | 'headerLine'> {
  const { width, titles, delimiter, firstLine, progress } = how;
  const quoted = text.includes('"');
  const decimalComma = delimiter !== ',';
  /** Commas part decimals in it, so that a point cannot. */
  const commas = decimalComma && partsByComma(text, delimiter);
  // Rows of a log are about equally long: room for all of them at once, grown only where that guess was short.
  const firstRow = text.indexOf('\n') + 1 || text.length + 1;
  const growing = growingColumns(width, max(16, ceil((1.1 * text.length) / firstRow)));
  const bad: BadCell[] = [];
  let badCount = 0;
  /** Columns of clocks, and whether none of their cells has a date. */
  const clocks = new Map<number, boolean>();
  const notices = countedNotices();
  /** Rows of a column in which a word of a switch stands, and the first of those words. */
  const states = new Map<number, { readonly text: string; readonly rows: number[] }>();
  /** Rows from which the lines run further ahead of the rows, with how far. */
  const skips: { readonly row: number; readonly skipped: number }[] = [];
  let rows = 0;
  let repeatedHeaders = 0;
  const saysHeader = (cells: readonly string[]) => cells.every((cell, c) => cell.trim() === titles[c]?.trim());
  let line = firstLine - 1;
  const note = (column: number, cell: string) => {
    badCount++;
    if (bad.length < mostBadCells) bad.push({ row: rows, line, column, text: cell });
  };
  const skipLine = () => skips.push({ row: rows, skipped: (skips.at(-1)?.skipped ?? 0) + 1 });
  const take = (cells: string[]): void => {
    line++;
    if (cells.length === 1 && cells[0].trim() === '') return void skipLine();
    if (cells.length !== width) {
      note(-1, String(cells.length));
      return void skipLine();
    }
    if (saysHeader(cells)) {
      repeatedHeaders++;
      return void skipLine();
    }
    growing.makeRoom(rows);
    const data = growing.get();
    for (let c = 0; c < width; c++) {
      const cell = cells[c];
      // The usual cell is a plain figure; only what is odd is looked at closely.
      const plain = +cell;
      const pointed = commas && cell.includes('.');
      let value = plain !== 0 && plain - plain === 0 && !pointed ? plain : cellNumber(cell, decimalComma, commas);
      if (pointed && value !== undefined && value >= leastParted) notices.add(c, 'thousands');
      if (value === undefined) {
        value = cellTime(cell);
        if (value !== undefined) clocks.set(c, (clocks.get(c) ?? true) && !isDated(cell));
      }
      if (value === undefined) {
        const odd = oddCell(cell);
        if (odd?.kind === 'missing') notices.add(c, 'missing');
        if (odd?.kind === 'state') {
          if (!states.has(c)) states.set(c, { text: cell.trim(), rows: [] });
          states.get(c)!.rows.push(rows);
        }
        if (odd) value = odd.kind === 'missing' ? Number.NaN : odd.value;
      }
      if (value === undefined) note(c, cell.trim());
      data[c][rows] = value ?? Number.NaN;
    }
    rows++;
  };
  if (quoted) Papa.parse<string[]>(text, { delimiter }).data.forEach(take);
  else readUnquoted();
  progress?.(1);
  const lineOf = (row: number) => {
    const ahead = skips.filter((skip) => skip.row <= row).at(-1)?.skipped ?? 0;
    return firstLine + row + ahead;
  };
  const columns = growing.get().map((column) => column.slice(0, rows));
  for (const [c, column] of columns.entries()) {
    notices.add(c, 'missing', dropMissing(column));
    if (clocks.get(c) === true) notices.add(c, 'clock-rolled', rollClock(column));
  }
  for (const [c, { text: word, rows: at }] of states) {
    // Beside figures such a word is no state: a sensor that is open reads nothing, and not nought.
    if (columns[c].every((value) => Number.isNaN(value) || value === 0 || value === 1)) {
      notices.add(c, 'states', at.length);
      continue;
    }
    badCount += at.length;
    for (const row of at) {
      columns[c][row] = Number.NaN;
      if (bad.length < mostBadCells) bad.push({ row, line: lineOf(row), column: c, text: word });
    }
  }
  bad.sort((one, other) => one.line - other.line);
  return {
    columns,
    rows,
    lineOf,
    bad,
    badCount,
    repeatedHeaders,
    clocks: new Set(clocks.keys()),
    noticed: notices.get(),
  };

  /** Without quotes a line is a row and a row its cells: plain figures are read as they come, the rest looked at closely. */
  function readUnquoted(): void {
    const marks = { delimiter: delimiter.charCodeAt(0), decimalComma, points: !commas };
    let told = 0;
    for (let at = 0; at < text.length;) {
      growing.makeRoom(rows);
      const next = readPlainRow(text, at, marks, growing.get(), rows);
      if (next > 0) {
        line++;
        rows++;
        at = next;
      } else {
        const end = text.indexOf('\n', at);
        take(text.slice(at, end < 0 ? text.length : end).split(delimiter));
        at = end < 0 ? text.length : end + 1;
      }
      if (at - told < progressEvery) continue;
      told = at;
      progress?.(at / text.length);
    }
  }
}
