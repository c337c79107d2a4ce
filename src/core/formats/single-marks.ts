/** Lines looked at to see what parts the cells. */
const looked = 40;

/** Cells of a line that runs of spaces part. */
const bySpaces = (line: string): string[] => line.trim().split(/[ \t]+/);

const figure = /^[+-]?\d[\d.,:]{0,30}(?:[eE][+-]?\d{1,3})?$/;

/** Whether no other mark parts the cells, and most lines are rows of figures of one width that spaces part. */
function isPartedBySpaces(lines: readonly string[]): boolean {
  if (lines.some((line) => /[;|]/.test(line))) return false;
  const rows = lines.map(bySpaces).filter((cells) => cells.length > 1 && cells.every((cell) => figure.test(cell)));
  if (rows.length < 3 || rows.length < lines.length / 2) return false;
  // Commas or tabs that part cells leave none of a row of figures without one between each two.
  const marked = lines.filter((line) => /[\t]/.test(line.trim()) || /\d,\s/.test(line)).length;
  return marked === 0 && rows.every((cells) => cells.length === rows[0].length);
}

/** Whether lines begin and end with a bar, as tables in words are drawn. */
const isFramed = (lines: readonly string[]): boolean =>
  lines.length > 1 && lines.every((line) => /^\s*\|.*\|\s*$/.test(line));

/**
 * A text whose cells are parted by one mark each: runs of spaces become one tab, and bars around a line are taken off. A text that is
 * parted otherwise stays as it is; no line is added or lost.
 */
export function withSingleMarks(text: string): string {
  const lines = text
    .slice(0, 20_000)
    .split('\n')
    .slice(0, looked)
    .filter((line) => line.trim() !== '');
  if (isFramed(lines.slice(0, -1).length > 1 ? lines.slice(0, -1) : lines))
    return text.replace(/^[ \t]*\|/gm, '').replace(/\|[ \t]*(\r?)$/gm, '$1');
  const whole = lines.slice(0, -1);
  if (!isPartedBySpaces(whole)) return text;
  const width = bySpaces(whole[whole.length - 1]).length;
  return text
    .split('\n')
    .map((line) => {
      // Words of a header may have a space in them where two or more part the cells.
      const wide = line.trim().split(/[ \t]{2,}/);
      return (wide.length === width ? wide : bySpaces(line)).join('\t');
    })
    .join('\n');
}
