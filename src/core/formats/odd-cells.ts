/** What loggers write where they had no reading. */
const missingWords = new Set(['--', '---', '----', 'n/a', '#n/a', '***']);
/** A figure that stands for none, in loggers that can only write figures. */
export const missingFigure = -9999;

/** States of a switch as words: 1 is closed or on. */
const states: ReadonlyMap<string, 0 | 1> = new Map([
  ['on', 1],
  ['off', 0],
  ['closed', 1],
  ['open', 0],
  ['true', 1],
  ['false', 0],
  ['yes', 1],
  ['no', 0],
]);

/** Longest cell that could be a figure, a state or a mark. */
export const longestCell = 40;

/** What a cell that is no figure stands for: none was read, or a state of a switch; undefined where it is neither. */
export function oddCell(
  cell: string,
): { readonly kind: 'missing' } | { readonly kind: 'state'; readonly value: 0 | 1 } | undefined {
  if (cell.length > longestCell) return undefined;
  const text = cell.trim().toLowerCase().replaceAll('−', '-').replaceAll('–', '-');
  if (missingWords.has(text)) return { kind: 'missing' };
  const value = states.get(text);
  return value === undefined ? undefined : { kind: 'state', value };
}
