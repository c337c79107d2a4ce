import { findUnit, symbolsOf, toSi, type MeasurementUnit } from './measurement-unit';
import { readDuration } from './read-duration';

/** How a typed figure was understood. */
export type ReadFigure =
  | { readonly kind: 'empty' }
  | {
      readonly kind: 'figure';
      /** SI */
      readonly value: number;
      /** What was inferred about its reference and should be said; null when it was typed as asked. */
      readonly inferred: 'negative-gauge' | 'absolute' | null;
      /** A comma that may part thousands or decimals: read as the first of these texts, and asked about; null otherwise. */
      readonly either: readonly [thousands: string, decimals: string] | null;
    }
  | { readonly kind: 'not-a-figure'; readonly text: string }
  /** `accepted` are the units that it may be in. */
  | { readonly kind: 'unknown-unit'; readonly unit: string; readonly accepted: readonly string[] }
  | {
      readonly kind: 'wrong-unit';
      readonly unit: string;
      readonly wanted: string;
      readonly accepted: readonly string[];
    };

export interface FigureExpected {
  /** Unit of a figure typed without one. */
  readonly unit: MeasurementUnit;
  /**
   * What a pressure is read against: a vacuum that was typed as negative gauge or absolute, and a gauge pressure that was typed as
   * absolute, are turned into what they should be. `none` for differences and for what is no pressure.
   */
  readonly reference: 'vacuum' | 'gauge' | 'absolute' | 'none';
  /** Local atmosphere, Pa absolute. */
  readonly ambient: number;
}

/** Longest text that anybody would type for one figure. */
const longest = 60;
const minusSigns = /^[\u2212\u2013\u2012]\s*/;
const spaces = /[\u00a0\u2007\u2009\u202f]/g;
/** Figures grouped beyond doubt: by spaces or apostrophes, or by one mark where the other parts the decimals. */
const grouped: readonly { readonly pattern: RegExp; readonly mark: RegExp }[] = [
  { pattern: /^\d{1,3}(?:[ '’]\d{3})+(?:[.,]\d+)?(?![\d.,])/, mark: /[ '’]/g },
  { pattern: /^\d{1,3}(?:,\d{3})+\.\d+(?![\d.,])/, mark: /,/g },
  { pattern: /^\d{1,3}(?:,\d{3}){2,}(?![\d.,])/, mark: /,/g },
  { pattern: /^\d{1,3}(?:\.\d{3})+,\d+(?![\d.,])/, mark: /\./g },
  { pattern: /^\d{1,3}(?:\.\d{3}){2,}(?![\d.,])/, mark: /\./g },
];
/** One comma before exactly three figures: thousands to one hand, decimals to another. */
const eitherWay = /^[1-9]\d{0,2},\d{3}(?![\d.,])/;
const plain = /^(?:\d+(?:[.,]\d*)?|[.,]\d+)(?![\d.,])/;

interface Taken {
  readonly digits: string;
  readonly either: boolean;
  readonly rest: string;
}

/** The figure that a text begins with, its decimal mark a point, and what follows it; null where it begins with none. */
function takeFigure(text: string): Taken | null {
  for (const { pattern, mark } of grouped) {
    const [found] = pattern.exec(text) ?? [];
    if (found !== undefined)
      return { digits: found.replace(mark, '').replace(',', '.'), either: false, rest: text.slice(found.length) };
  }
  const [doubtful] = eitherWay.exec(text) ?? [];
  if (doubtful !== undefined)
    return { digits: doubtful.replace(',', ''), either: true, rest: text.slice(doubtful.length) };
  const [found] = plain.exec(text) ?? [];
  return found === undefined
    ? null
    : { digits: found.replace(',', '.'), either: false, rest: text.slice(found.length) };
}

type Reference = 'absolute' | 'gauge' | 'vacuum' | null;

const referenceWords: readonly { readonly pattern: RegExp; readonly reference: Reference }[] = [
  { pattern: /\s*\(?\b(?:abs\.?|absolute)\)?$/i, reference: 'absolute' },
  { pattern: /\s*\(?\b(?:vac\.?|vacuum)\)?$/i, reference: 'vacuum' },
  { pattern: /\s*\(?\b(?:gauge|rel\.?)\)?$/i, reference: 'gauge' },
];
const referenceLetter = /^([mhk]?pa|m?bar|psi)\s*\(?([ag])\)?$/i;

/** A unit as it was spelled, parted from the word or letter that says what it is read against. */
export function partReference(spelled: string): { readonly unit: string; readonly reference: Reference } {
  const text = spelled.trim();
  const [, unit, letter] = referenceLetter.exec(text) ?? [];
  if (unit !== undefined) return { unit, reference: letter.toLowerCase() === 'a' ? 'absolute' : 'gauge' };
  for (const { pattern, reference } of referenceWords)
    if (pattern.test(text)) return { unit: text.replace(pattern, '').trim(), reference };
  return { unit: text, reference: null };
}

const unitBefore = /^([^\d+\-.,]{1,16}?)\s*([+-]?[\d.,].*)$/;

/** A unit that stands before its figure ("kPa 38"), put behind it; any other text as it is. */
function unitBehind(text: string): string {
  const [, unit, figure] = unitBefore.exec(text) ?? [];
  return unit !== undefined && findUnit(partReference(unit).unit) && /^[+-]?[\d., '’]+$/.test(figure)
    ? `${figure} ${unit}`
    : text;
}

/**
 * Reads what a hand types for one figure: "14 inHg", "0.7bar", "1 450 psi", "-0.7 bar" (a vacuum as negative gauge), "38 kPa
 * abs", "5 bara", a decimal comma, "kPa 38", and times as "1:30" or "2 min 30 s". A figure without a unit is in the expected one. A comma before exactly three figures is taken for
 * thousands, and asked about.
 */
export function readFigure(text: string, expected: FigureExpected): ReadFigure {
  const trimmed = text.trim().replace(minusSigns, '-').replace(spaces, ' ');
  if (trimmed === '') return { kind: 'empty' };
  const notAFigure = { kind: 'not-a-figure', text: trimmed.slice(0, longest) } as const;
  if (trimmed.length > longest) return notAFigure;
  if (expected.unit.dimension === 'time') {
    const seconds = readDuration(trimmed, expected.unit.factor >= 3600);
    if (seconds !== null) return { kind: 'figure', value: seconds, inferred: null, either: null };
  }
  const written = unitBehind(trimmed);
  const sign = written.startsWith('-') ? -1 : 1;
  const taken = takeFigure(written.replace(/^[+-]\s*/, ''));
  if (!taken || /^(?:e[+-]?\d|x[\da-f])/i.test(taken.rest)) return notAFigure;
  const { unit: spelled, reference } = partReference(taken.rest);
  const unit = spelled === '' ? expected.unit : findUnit(spelled);
  const accepted = symbolsOf(expected.unit.dimension);
  if (!unit) return { kind: 'unknown-unit', unit: spelled, accepted };
  if (unit.dimension !== expected.unit.dimension)
    return { kind: 'wrong-unit', unit: spelled, wanted: expected.unit.symbol, accepted };
  const value = toSi(sign * Number(taken.digits), unit);
  const signs = sign < 0 ? '-' : '';
  const [whole, decimals] = [taken.digits.slice(0, -3), taken.digits.slice(-3)];
  const either = taken.either
    ? ([`${signs}${taken.digits}${taken.rest}`, `${signs}${whole}.${decimals}${taken.rest}`] as const)
    : null;
  return { kind: 'figure', either, ...refer(value, reference, expected) };
}

/** A pressure turned into what it should be read against. */
function refer(
  value: number,
  typed: Reference,
  { reference, ambient }: FigureExpected,
): { readonly value: number; readonly inferred: 'negative-gauge' | 'absolute' | null } {
  switch (reference) {
    case 'vacuum':
      if (typed === 'absolute') return { value: ambient - value, inferred: 'absolute' };
      if (typed === 'gauge' || value < 0) return { value: -value, inferred: 'negative-gauge' };
      return { value, inferred: null };
    case 'gauge':
      if (typed === 'absolute') return { value: value - ambient, inferred: 'absolute' };
      return { value: typed === 'vacuum' ? -value : value, inferred: null };
    case 'absolute':
    case 'none':
      return { value, inferred: null };
  }
}
