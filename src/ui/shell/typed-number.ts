import { fromSi, unitOf } from '@/core/quantities/measurement-unit';
import { readFigure } from '@/core/quantities/read-figure';

/** A plain number as people type it, decimal comma or point; undefined for an empty field, NaN for anything else. */
export function typedNumber(text: string): number | undefined {
  const trimmed = text.trim();
  return trimmed === '' ? undefined : Number(trimmed.replace(',', '.').replace('−', '-'));
}

/** A figure as people type it, with a unit of its own or in that of the field; in the field's unit. Undefined for an empty field, NaN for anything else. */
export function typedIn(symbol: string, text: string): number | undefined {
  const unit = unitOf(symbol);
  const read = readFigure(text, { unit, reference: 'none', ambient: 0 });
  if (read.kind === 'empty') return undefined;
  // To ten figures: a unit's factor is exact, its product in two's powers is not.
  return read.kind === 'figure' ? Number(fromSi(read.value, unit).toPrecision(10)) : Number.NaN;
}
