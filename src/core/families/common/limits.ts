import type { CharacteristicId } from '../../quantities/characteristics';
import type { Limit, LimitSource } from '../limit';
import type { WorkshopLimits } from './default-limits';

/** A sheet's figure if it has one, else the workshop's, with where it came from. */
export function limitFrom(
  sheet: { readonly field: string; readonly value: number | undefined },
  workshop: { readonly key: keyof WorkshopLimits; readonly value: number },
): { value: number; source: LimitSource } {
  return sheet.value === undefined
    ? { value: workshop.value, source: { kind: 'workshop', key: workshop.key } }
    : { value: sheet.value, source: { kind: 'sheet', field: sheet.field } };
}

/** "At most" limit on one characteristic, SI. */
export function atMost(
  characteristic: CharacteristicId,
  from: { value: number; source: LimitSource },
  options: { expected?: number | null; standard?: number; low?: number | null } = {},
): Limit {
  return {
    characteristic,
    low: options.low ?? null,
    high: from.value,
    expected: options.expected ?? null,
    standard: options.standard ?? 0,
    source: from.source,
  };
}

/** Limits at ± `fraction` of an expected value, SI. */
export function around(
  characteristic: CharacteristicId,
  expected: number,
  fraction: { value: number; source: LimitSource },
  standard = 0,
): Limit {
  const reach = Math.abs(expected) * fraction.value;
  return {
    characteristic,
    low: expected - reach,
    high: expected + reach,
    expected,
    standard,
    source: fraction.source,
  };
}
