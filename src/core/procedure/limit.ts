import type { CharacteristicId } from '../quantities/characteristics';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { WorkshopLimits } from './workshop-limits';

/** Where a limit comes from. */
export type LimitSource =
  | { readonly kind: 'sheet'; readonly field: string }
  | { readonly kind: 'workshop'; readonly key: keyof WorkshopLimits };

/** An allowed interval for one characteristic, SI; null is open. */
export interface Limit {
  readonly characteristic: CharacteristicId;
  readonly low: number | null;
  readonly high: number | null;
  /** What a sound unit would read, for the band and the report. */
  readonly expected: number | null;
  /** Standard uncertainty of the limit itself (it may depend on a measured vacuum). */
  readonly standard: number;
  readonly source: LimitSource;
  /** Where a sound unit may lie, where that is less than what is allowed: what is set by hand lies anywhere in it. */
  readonly window?: readonly [number, number];
  /** Low limit of the stricter school: a pass short of it is marginal. */
  readonly stricterLow?: number;
  /** The limit as it is written for sea level, where it was restated for today's air. */
  readonly restatedFrom?: number;
  /** Why nobody can say what the limit is; the check stays undecided. */
  readonly withheld?: AnalysisProblem;
}

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
