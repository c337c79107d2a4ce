import { findUnit, toSi, type MeasurementUnit } from './measurement-unit';

/** How a typed figure was understood. */
export type ReadFigure =
  | { readonly kind: 'empty' }
  | {
      readonly kind: 'figure';
      /** SI */
      readonly value: number;
      /** What was inferred about its reference and should be said; null when it was typed as asked. */
      readonly inferred: 'negative-gauge' | 'absolute' | null;
    }
  | { readonly kind: 'not-a-figure'; readonly text: string }
  | { readonly kind: 'unknown-unit'; readonly unit: string }
  | { readonly kind: 'wrong-unit'; readonly unit: string; readonly wanted: string };

export interface FigureExpected {
  /** Unit of a figure typed without one. */
  readonly unit: MeasurementUnit;
  /** Set for a vacuum: a negative gauge or an absolute pressure is turned into one. */
  readonly vacuum: boolean;
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
}

const absolute = /\s*(?:abs\.?|absolute)$/i;
const reference = /\s*(?:vac\.?|vacuum|gauge)$/i;

/**
 * Reads what a hand types for one figure: "14 inHg", "0.7bar", "-0.7 bar" (a vacuum as negative gauge), "38 kPa abs",
 * a decimal comma. A figure without a unit is in the expected one.
 */
export function readFigure(text: string, expected: FigureExpected): ReadFigure {
  const trimmed = text.trim().replace('−', '-');
  if (trimmed === '') return { kind: 'empty' };
  const parts = /^([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(.*)$/.exec(trimmed);
  if (!parts) return { kind: 'not-a-figure', text: trimmed };
  const shown = Number(parts[1].replace(',', '.'));
  const isAbsolute = absolute.test(parts[2]);
  const spelled = parts[2].replace(absolute, '').replace(reference, '').trim();
  const unit = spelled === '' ? expected.unit : findUnit(spelled);
  if (!unit) return { kind: 'unknown-unit', unit: spelled };
  if (unit.dimension !== expected.unit.dimension)
    return { kind: 'wrong-unit', unit: spelled, wanted: expected.unit.symbol };
  const value = toSi(shown, unit);
  if (!expected.vacuum) return { kind: 'figure', value, inferred: null };
  if (isAbsolute) return { kind: 'figure', value: expected.ambient - value, inferred: 'absolute' };
  if (value < 0) return { kind: 'figure', value: -value, inferred: 'negative-gauge' };
  return { kind: 'figure', value, inferred: null };
}
