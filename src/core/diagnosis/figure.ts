import { combinedStandard, type Estimate } from '../instruments/uncertainty';
import type { Check } from '../judging/judge-step';
import type { Characteristic } from '../procedure/step-analysis';
import { characteristicRow } from '../quantities/characteristics';
import { shownAs } from '../quantities/shown-as';
import type { Limit } from '../procedure/limit';

/**
 * How a figure is held against what a sound unit of its sheet would show, so that units of all sizes lie on one scale: as a
 * share of what is expected, or, where that is nothing or hardly anything (leaks, residuals), by its distance to the limit.
 */
export type Measure = 'share' | 'limit';

/** What a sound unit would show, and how far away from it one is the coordinate's unit; SI. */
export interface FigureScale {
  readonly reference: number;
  readonly per: number;
}

/** What a step said of a figure, in the figure's coordinate; standard uncertainties. */
export type Seen =
  | {
      readonly kind: 'measured' | 'above' | 'below';
      readonly at: number;
      readonly standard: number;
      /** The part of `standard` that readings of one gauge have in common; left out where it has none. */
      readonly shared?: number;
    }
  | { readonly kind: 'absent' };

/** A figure as a step judged it: what was found, its limit, and the model's truth of a sound unit of the sheet; SI. */
export interface JudgedFigure {
  readonly found: Characteristic;
  readonly limit: Limit | undefined;
  readonly truth: number | undefined;
}

const oneOver = (value: number | null) => (value === null || value === 0 ? null : 1 / value);

function estimateOneOver({ value, components }: Estimate): Estimate {
  return {
    value: 1 / value,
    components: components.map((part) => ({ ...part, standard: part.standard / value ** 2 })),
  };
}

/** A figure as faults move it in proportion: a time that a leak takes as one over it (1/s), any other as it is. */
export function inProportion({ found, limit, truth }: JudgedFigure): JudgedFigure {
  if (characteristicRow(found.id).inverse === undefined) return { found, limit, truth };
  return {
    found: foundOneOver(found),
    limit: limit && {
      ...limit,
      low: oneOver(limit.high),
      high: oneOver(limit.low),
      expected: oneOver(limit.expected),
      standard: 0,
    },
    truth: oneOver(truth ?? null) ?? undefined,
  };
}

function foundOneOver(found: Characteristic): Characteristic {
  switch (found.kind) {
    case 'measured':
      return { ...found, estimate: estimateOneOver(found.estimate) };
    case 'beyond':
      return { ...found, side: found.side === 'above' ? 'below' : 'above', bound: estimateOneOver(found.bound) };
    case 'absent':
      return found;
  }
}

/** Expected figures smaller than this share of the distance to their limit are as good as nothing. */
const hardlyAnything = 0.5;

function referenceOf(limit: Limit | undefined, truth: number | undefined): number | null {
  if (limit?.expected != null) return limit.expected;
  if (limit && limit.low !== null && limit.high !== null) return (limit.low + limit.high) / 2;
  return truth ?? null;
}

/** Distance from what is expected to the nearer limit; null where there is none. */
function reachOf(limit: Limit | undefined, reference: number): number | null {
  const reaches = [limit?.low, limit?.high]
    .flatMap((each) => (each == null ? [] : [Math.abs(each - reference)]))
    .filter((each) => each > 0);
  if (reaches.length > 0) return Math.min(...reaches);
  // Of what may not happen at all, once is the unit.
  return limit && shownAs(limit.characteristic) === 'tally' ? 1 : null;
}

/** Which measure fits a figure; null where neither a limit nor the model says what is sound. */
export function measureOf(limit: Limit | undefined, truth: number | undefined): Measure | null {
  const reference = referenceOf(limit, truth);
  const reach = reachOf(limit, reference ?? 0);
  if (reference === null || reference === 0) return reach === null ? null : 'limit';
  return reach === null || Math.abs(reference) >= hardlyAnything * reach ? 'share' : 'limit';
}

/**
 * Scale of a figure as it was judged: by its limit, which knows the air and the supply of the moment, else by the model's
 * `truth` of a sound unit of the sheet (SI). Null where a sheet or a log leaves nothing to hold it against.
 */
export function scaleOf(measure: Measure, limit: Limit | undefined, truth: number | undefined): FigureScale | null {
  const reference = referenceOf(limit, truth);
  switch (measure) {
    case 'share':
      return reference === null || reference === 0 ? null : { reference, per: Math.abs(reference) };
    case 'limit': {
      const per = reachOf(limit, reference ?? 0);
      return per === null ? null : { reference: reference ?? 0, per };
    }
  }
}

/** Place of a value on its scale: in proportion near nothing, by its logarithm far away, so that a leak of forty limits is no further from one of twenty than two from one. */
export function placeOf(value: number, { reference, per }: FigureScale): number {
  return Math.asinh((value - reference) / per);
}

/** The value at a place: the inverse of `placeOf`, SI. */
export function valueAt(place: number, { reference, per }: FigureScale): number {
  return reference + per * Math.sinh(place);
}

function standardAt(place: number, standard: number, { per }: FigureScale): number {
  return standard / (per * Math.cosh(place));
}

/** A count stands for what lies up to one above it: standard uncertainty of its edge, in counts. */
const countDoubt = 0.5;

/** A characteristic in its figure's coordinate; the limit's own uncertainty counts, for the scale hangs on it. */
export function seenOf(found: Characteristic, scale: FigureScale, limitStandard = 0): Seen {
  if (found.kind === 'absent') return { kind: 'absent' };
  const estimate = found.kind === 'measured' ? found.estimate : found.bound;
  const at = placeOf(estimate.value, scale);
  if (!Number.isFinite(at)) return { kind: 'absent' };
  const own = combinedStandard(estimate);
  const counted = shownAs(found.id) === 'count' ? countDoubt : 0;
  const standard = standardAt(at, Math.hypot(own, limitStandard, counted), scale);
  const systematic = estimate.components.filter((part) => !part.random).map((part) => part.standard);
  const shared = standardAt(at, Math.hypot(...systematic), scale);
  return { kind: found.kind === 'measured' ? 'measured' : found.side, at, standard, shared };
}

/** The limit that a characteristic was held against; undefined where it was against none. */
export function limitOf(checks: readonly Check[], id: string): Limit | undefined {
  return checks.find((check) => check.characteristic === id)?.limit;
}
