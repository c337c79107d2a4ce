import { cellTime } from './cell-time';
import { longestCell } from './odd-cells';

/** Where a log's table begins, and how its cells are told apart. */
export interface LogLayout {
  readonly delimiter: string;
  readonly headers: readonly string[];
  /** Place of the header among the lines, and of the first row after it (behind a row of units, where there is one). */
  readonly headerAt: number;
  readonly rowsAt: number;
  /** Lines before the header that are no table: a logger's own words. */
  readonly preamble: readonly string[];
}

const delimiters = [';', '\t', '|', ','] as const;
/** A header is looked for in so many lines, none of them longer than a line is. */
const mostPreamble = 60;
const longestLine = 100_000;

/** Cells of a line; quotes keep a delimiter that stands inside them. */
export function cellsOf(line: string, delimiter: string): string[] {
  if (!line.includes('"')) return line.split(delimiter);
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  for (const sign of line) {
    if (sign === '"') quoted = !quoted;
    else if (sign === delimiter && !quoted) {
      cells.push(cell);
      cell = '';
    } else cell += sign;
  }
  return [...cells, cell];
}

const figure = /^[+-]?(?:\d[\d.,' \u00a0]*|[.,]\d+)(?:[eE][+-]?\d+)?$/;
const isData = (cell: string) =>
  cell.length <= longestCell && (figure.test(cell.trim()) || cellTime(cell) !== undefined);

/** Whether a line could be a row of data of `width` cells. */
function isRow(cells: readonly string[], width: number): boolean {
  const filled = cells.filter((cell) => cell.trim() !== '');
  return cells.length === width && filled.length > 0 && filled.filter(isData).length > filled.length / 2;
}

/** Whether a line could head a table: words, most of them no figures. */
function isHeader(cells: readonly string[]): boolean {
  const filled = cells.filter((cell) => cell.trim() !== '');
  return cells.length > 1 && filled.length > 1 && filled.filter(isData).length < filled.length / 2;
}

/**
 * Finds the table in the first lines of a log: a `sep=` line says what parts the cells; lines of the logger's own words come before
 * the header; a row of units may follow it. Where no table is to be seen the first line is taken for the header.
 */
export function findLayout(lines: readonly string[]): LogLayout {
  const [, said] = /^"?sep=(.)"?$/i.exec(lines[0]?.trim() ?? '') ?? [];
  const begin = said === undefined ? 0 : 1;
  const candidates = said === undefined ? delimiters : [said];
  for (let at = begin; at < Math.min(lines.length, mostPreamble); at++) {
    if (lines[at].length > longestLine) continue;
    for (const delimiter of candidates) {
      const headers = cellsOf(lines[at], delimiter);
      if (!isHeader(headers)) continue;
      // Words before the table that are parted like it are its header, whatever the first rows hold.
      const first = lines
        .slice(begin, at)
        .some((line) => isHeader(cellsOf(line, delimiter)) && cellsOf(line, delimiter).length === headers.length);
      if (first) continue;
      const next = followingLine(lines, at + 1);
      if (next === null) continue;
      const after = cellsOf(lines[next], delimiter);
      if (isRow(after, headers.length)) return laidOut(lines, { at, delimiter, headers, units: null, rowsAt: at + 1 });
      const later = followingLine(lines, next + 1);
      const units = after.length === headers.length && after.every((cell) => !isData(cell) && cell.length < 16);
      if (units && later !== null && isRow(cellsOf(lines[later], delimiter), headers.length))
        return laidOut(lines, { at, delimiter, headers, units: after, rowsAt: next + 1 });
    }
  }
  const header = lines[begin] ?? '';
  const delimiter = said ?? delimiters.find((mark) => header.includes(mark)) ?? ',';
  return laidOut(lines, { at: begin, delimiter, headers: cellsOf(header, delimiter), units: null, rowsAt: begin + 1 });
}

function followingLine(lines: readonly string[], from: number): number | null {
  for (let at = from; at < lines.length; at++) if (lines[at].trim() !== '') return at;
  return null;
}

interface Found {
  readonly at: number;
  readonly delimiter: string;
  readonly headers: readonly string[];
  readonly units: readonly string[] | null;
  readonly rowsAt: number;
}

function laidOut(lines: readonly string[], { at, delimiter, headers, units, rowsAt }: Found): LogLayout {
  const named = headers.map((header, column) => {
    const unit = units?.[column].trim().replace(/^[[(]|[\])]$/g, '') ?? '';
    return unit === '' ? header : `${header.trim()} [${unit}]`;
  });
  return {
    delimiter,
    headers: named,
    headerAt: at,
    rowsAt,
    preamble: lines.slice(0, at).filter((line) => line.trim() !== ''),
  };
}
