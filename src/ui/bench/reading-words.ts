import type { StepContext } from '@/core/procedure/step-context';
import { readBy, type ReadBy } from '@/core/procedure/typed-entry';
import { fromSi, type MeasurementUnit } from '@/core/quantities/measurement-unit';
import { figure, referenceOf, shownUnit, type DisplayUnits } from '@/core/wording/display';
import type { TypedRow } from './use-typed-readings';

const orList = (all: readonly string[]): string =>
  all.length < 2 ? all.join() : `${all.slice(0, -1).join(', ')} or ${all.at(-1)}`;

/** What of a text cannot be read; nothing where it can, or nothing stands there. */
export function problemText({ read }: TypedRow): string {
  switch (read.kind) {
    case 'not-a-figure':
      return `“${read.text}” is not a figure`;
    case 'unknown-unit':
      return `the unit “${read.unit}” is not known; it may be ${orList(read.accepted)}`;
    case 'wrong-unit':
      return `“${read.unit}” does not measure this; it may be ${orList(read.accepted)}`;
    case 'empty':
    case 'figure':
      return '';
  }
}

/** Whether a figure may mean one thing or another. */
export const asked = ({ read }: TypedRow): boolean => read.kind === 'figure' && read.either !== null;

/** How a text was understood, or why not. */
export function understood(row: TypedRow, units: DisplayUnits): string {
  const problem = problemText(row);
  if (problem) return problem;
  if (row.read.kind !== 'figure') return '';
  // A word that was chosen stands where it was chosen.
  if (row.field.choices) return '';
  const unit = shownUnit(row.field.as, units);
  const reference = referenceOf(row.field.as);
  const inferred = { absolute: ', read as absolute', 'negative-gauge': ', read as negative gauge' };
  // As many figures as were typed, not as many as an uncertainty would carry.
  const shown = String(Number(fromSi(row.read.value, unit).toPrecision(4)));
  const said = `${shown} ${unit.symbol === '1' ? '' : unit.symbol} ${reference}`.trim();
  const how = row.read.inferred ? inferred[row.read.inferred] : '';
  if (row.questioned) return `${said}${how}? Hardly: look again.`;
  return row.confirmed ? `${said}${how}, looked at again` : `${said}${how}`;
}

/** What a sound unit would show. */
export function expectedText({ field }: TypedRow, units: DisplayUnits): string {
  if (!field.expected) return '';
  if (field.choices) return `sheet: ${(field.choices[field.expected.low] ?? '').toLowerCase()}`;
  const unit = shownUnit(field.as, units);
  const { low, high } = field.expected;
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  if (field.toHold) return `hold at about ${figure((low + high) / 2, unit)}${symbol}`;
  if (!Number.isFinite(low)) return `sound: up to ${figure(high, unit)}${symbol}`;
  if (!Number.isFinite(high)) return `sound: from ${figure(low, unit)}${symbol}`;
  return `sound: ${figure(low, unit)} to ${figure(high, unit)}${symbol}`;
}

/** Decimals that a channel's gauge can be read to. */
export function decimalsOf(channel: string | null, unit: MeasurementUnit, context: StepContext<unknown>): number {
  const resolution = (channel && context.instruments.get(channel)?.resolution) || 0;
  return resolution > 0 ? Math.max(0, Math.ceil(-Math.log10(resolution / unit.factor))) : 3;
}

const withWords: Partial<Record<ReadBy, string>> = {
  watch: 'watch',
  rule: 'rule',
  vessel: 'marked vessel',
  count: 'counted',
  foot: 'by foot',
  ear: 'by ear',
};

/** What a figure is read with, where that is no gauge of the bench. */
export function readWith({ field }: TypedRow): string {
  const by = readBy(field);
  return by && !field.choices ? (withWords[by] ?? '') : '';
}

/** A sum with the figures that were typed in it; nothing while one of them is missing. */
export function sumText(terms: readonly string[] | undefined, rows: readonly TypedRow[], units: DisplayUnits): string {
  if (!terms) return '';
  const words = terms.map((term) => {
    const row = rows.find(({ field }) => field.id === term);
    if (!row) return term;
    if (row.read.kind !== 'figure') return null;
    const unit = shownUnit(row.field.as, units);
    return `${Number(fromSi(row.read.value, unit).toPrecision(4))} ${unit.symbol}`;
  });
  return words.includes(null) ? '' : words.join(' ').replaceAll('( ', '(').replaceAll(' )', ')');
}
