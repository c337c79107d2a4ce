import type { SeenFigure } from './evidence';
import type { FigureSignature } from './signature-table';

const { abs, exp, hypot, max, min, sqrt, PI } = Math;

/** How far a figure's place may be off its table by what no model says. */
export const modelDoubt: Readonly<Record<FigureSignature['measure'], number>> = { share: 0.015, limit: 0.15 };

/** Where figures lie that nothing explains, about what is sound. */
const anywhere: Readonly<Record<FigureSignature['measure'], number>> = { share: 0.35, limit: 1.5 };

/** Chances out of four or five units are never quite nothing and never quite one. */
export const smoothed = (share: number) => 0.02 + 0.94 * share;

/** Density of a value that may be anything: Student’s t with two degrees of freedom. */
export function anywhereDensity(at: number, { sound, measure }: FigureSignature): number {
  const scale = anywhere[measure];
  const off = (at - sound.at) / scale;
  const wide = 1 + (off * off) / 2;
  return 1 / (scale * 2 * Math.SQRT2 * wide * sqrt(wide));
}

/** A place as far as anything is held against it: what is only better than sound is as good as sound. */
export function heldAgainst({ better }: SeenFigure, place: number, sound: number): number {
  switch (better) {
    case 'below':
      return max(place, sound);
    case 'above':
      return min(place, sound);
    case undefined:
      return place;
  }
}

/** Density of the standard normal. */
export const density = (z: number) => exp((-z * z) / 2) / sqrt(2 * PI);

/** Φ, by Zelen and Severo (Abramowitz and Stegun, 26.2.17); good to 1e-7. */
export function below(z: number): number {
  const t = 1 / (1 + 0.2316419 * abs(z));
  const tail =
    (exp((-z * z) / 2) / sqrt(2 * PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z > 0 ? 1 - tail : tail;
}

/** Density of a reading in a sound unit: by its own doubt, and by how sound units differ. */
export function asSoundDensity({ sound, scatter, measure }: FigureSignature, each: SeenFigure): number {
  if (each.seen.kind === 'absent') return 0;
  const soundly = hypot(each.seen.standard, sound.spread, modelDoubt[measure], ...scatter);
  return density((heldAgainst(each, each.seen.at, sound.at) - sound.at) / soundly) / soundly;
}
