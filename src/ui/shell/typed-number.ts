/** A plain number as people type it, decimal comma or point; undefined for an empty field, NaN for anything else. */
export function typedNumber(text: string): number | undefined {
  const trimmed = text.trim();
  return trimmed === '' ? undefined : Number(trimmed.replace(',', '.').replace('−', '-'));
}
