/** Powers of ten that a double holds exactly. */
const exactPowers = Float64Array.from({ length: 23 }, (_, power) => 10 ** power);
/** Figures of a mantissa that a double holds exactly whatever they are. */
const exactFigures = 15;

const [zero, nine, minus, point, comma] = ['0', '9', '-', '.', ','].map((sign) => sign.charCodeAt(0));
const [lineFeed, carriageReturn] = ['\n', '\r'].map((sign) => sign.charCodeAt(0));

/** How the cells of a row are told apart. */
export interface RowMarks {
  /** Character code of the delimiter. */
  readonly delimiter: number;
  /** A comma stands for the decimal point. */
  readonly decimalComma: boolean;
  /** A point parts decimals too. */
  readonly points: boolean;
}

/**
 * Reads a row of plain figures (an optional minus, digits, a decimal point) or empty cells that begins at `at` into
 * `columns[c][row]`; an empty cell is NaN. Returns where the next row begins, or −1 where anything else stands in it, in
 * which case the row has to be looked at cell by cell. At most 15 figures over an exact power of ten: the quotient of
 * two exact doubles is rounded once, as `Number` would (Clinger 1990).
 */
export function readPlainRow(
  text: string,
  at: number,
  { delimiter, decimalComma, points }: RowMarks,
  columns: readonly Float64Array[],
  row: number,
): number {
  const last = columns.length - 1;
  let i = at;
  for (let c = 0; c <= last; c++) {
    let code = text.charCodeAt(i);
    const negative = code === minus;
    if (negative) code = text.charCodeAt(++i);
    let mantissa = 0;
    let figures = 0;
    for (; code >= zero && code <= nine; code = text.charCodeAt(++i)) {
      mantissa = mantissa * 10 + (code - zero);
      figures++;
    }
    const whole = figures;
    if ((points && code === point) || (decimalComma && code === comma)) {
      for (code = text.charCodeAt(++i); code >= zero && code <= nine; code = text.charCodeAt(++i)) {
        mantissa = mantissa * 10 + (code - zero);
        figures++;
      }
      if (figures === 0) return -1;
    } else if (figures === 0 && negative) return -1;
    if (figures > exactFigures) return -1;
    if (c < last ? code !== delimiter : !(code === lineFeed || code === carriageReturn || i >= text.length)) return -1;
    const size = mantissa / exactPowers[figures - whole];
    columns[c][row] = figures === 0 ? NaN : negative ? -size : size;
    i++;
  }
  if (text.charCodeAt(i - 1) === carriageReturn) {
    // Only as half of a line's end.
    if (i < text.length && text.charCodeAt(i) !== lineFeed) return -1;
    i++;
  }
  return Math.min(i, text.length);
}
