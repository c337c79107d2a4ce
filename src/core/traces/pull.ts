import { meanOf, sampleInterval, type Trace } from './trace';
import { movingMean, noiseOf } from './smoothing';

const { ceil, max, min, round, sqrt } = Math;

/** Half-open range of sample indices. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** One application of the lever: rest, apply, plateau, way back, rest. */
export interface Pull {
  readonly restBefore: Span;
  readonly apply: Span;
  readonly plateau: Span;
  readonly wayBack: Span;
  readonly restAfter: Span;
  /** Mean of the driving channel in the rest before, or null when the trace starts too late for one. */
  readonly zero: number | null;
  readonly peak: number;
  /** Smoothed driving channel that the spans were found on. */
  readonly smooth: Float64Array;
}

export type PullProblem = { readonly code: 'no-pull' } | { readonly code: 'no-way-back' };

/** Half window of the smoothing used to find events, s. */
const smoothingHalfWindow = 0.06;

/**
 * Finds the largest application in `column` (for instance input pressure). A rest is where the smoothed
 * channel stays within 1 % of the peak (or four deviations of its noise) of its lowest level; the plateau
 * is what lies within 1.5 % of the peak. Without a return to rest the way back is empty.
 */
export function findPull(trace: Trace, column: Float64Array): Pull | PullProblem {
  const interval = sampleInterval(trace);
  const half = max(1, round(smoothingHalfWindow / interval));
  const smooth = movingMean(column, half);
  let peak = -Infinity;
  let low = Infinity;
  for (const value of smooth) {
    if (value > peak) peak = value;
    if (value < low) low = value;
  }
  const noise = noiseOf(column);
  const smoothNoise = noise / sqrt(2 * half + 1);
  if (!(peak - low > max(20 * smoothNoise, 1e-9))) return { code: 'no-pull' };
  const restBand = max(0.01 * (peak - low), 4 * smoothNoise);
  const plateauBand = max(0.015 * (peak - low), 4 * smoothNoise);

  let top = 0;
  while (!(smooth[top] >= peak)) top++;
  let plateauFrom = top;
  let plateauTo = top;
  let rest = top;
  while (rest > 0 && !(smooth[rest] < low + restBand)) rest--;
  for (let i = top; i > rest; i--) if (smooth[i] >= peak - plateauBand) plateauFrom = i;
  let restAfter = top;
  const length = smooth.length;
  while (restAfter < length && !(smooth[restAfter] < low + restBand)) restAfter++;
  for (let i = top; i < restAfter; i++) if (smooth[i] >= peak - plateauBand) plateauTo = i;

  let restFrom = rest;
  // Wider on the way back, so that noise on the slope at the band's edge does not end the rest at once.
  while (restFrom > 0 && smooth[restFrom - 1] < low + restBand + 6 * smoothNoise) restFrom--;
  // The first of the pull still lies in the rest's band: a zero read from it would be high.
  const level = meanOf(smooth, restFrom, restFrom + max(1, (rest - restFrom) >> 1)).mean;
  const leaves = level + max(0.001 * (peak - low), 4 * smoothNoise);
  let still = rest;
  while (still > restFrom && !(smooth[still - 1] < leaves)) still--;
  const before: Span = { from: restFrom, to: max(restFrom, still - half) };
  const zero = before.to - before.from >= ceil(0.3 / interval) ? meanOf(column, before.from, before.to).mean : null;
  return {
    restBefore: before,
    apply: { from: rest, to: plateauFrom },
    plateau: { from: plateauFrom, to: plateauTo + 1 },
    wayBack: { from: plateauTo + 1, to: restAfter },
    restAfter: { from: min(length, restAfter + half), to: length },
    zero,
    peak,
    smooth,
  };
}

/** Whether `findPull` found one. */
export function isPull(found: Pull | PullProblem): found is Pull {
  return !('code' in found);
}
