import { fitLine, type LineFit } from '../../../fitting/line';
import { binByX, fitSegments, type SegmentFit } from '../../../fitting/segments';
import { scatterOf } from '../../../traces/own-samples';
import { movingMean } from '../../../traces/smoothing';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';

const { max, sqrt } = Math;

/** What a unit gives without assist: output = slope·input, and the least slope that counts as boost. */
export interface Unassisted {
  readonly slope: number;
  readonly leastBoost: number;
}

/** In the brake line the pressure passes through the open bypass. */
export const passesThrough: Unassisted = { slope: 1, leastBoost: 1.02 };

/** The straight lines of a boost curve's apply branch: corrected input in Pa gauge, output in the unit's own SI unit. */
export interface BoostLines {
  /** While the control valve modulates. */
  readonly modulating: LineFit;
  /** Beyond run-out; null when the pull ended before it. */
  readonly beyond: LineFit | null;
  readonly cutIn: number;
  readonly runOut: { readonly input: number; readonly output: number } | null;
  readonly peakInput: number;
}

/** Bins of the joint search, trimmed share at each end of a line, and least share of the pull beyond run-out. */
const searchBins = 240;
const trim = 0.1;
const leastBeyond = 0.03;
/** A piece counts as run out when its slope is below this share of the modulating slope. */
const runOutSlopeShare = 0.75;
/** A piece counts as boost when it is steeper than what came before by this factor. */
const boostSteeper = 1.12;

/**
 * Finds cut-in, modulating line, run-out and the line beyond on the apply branch. First joints of a
 * three-piece line, then least-squares lines on the samples between them, trimmed by 10 % at each end,
 * repeated once with the better joints. Samples taken while the lever slipped back are left out, because
 * the control valve's friction holds the output there.
 */
export function fitBoostLines(
  input: Float64Array,
  output: Float64Array,
  unassisted: Unassisted = passesThrough,
): BoostLines | AnalysisProblem {
  const smooth = movingMean(input, 8);
  const noise = scatterOf({ value: input });
  const tolerance = 4 * (noise / sqrt(17));
  let highest = -Infinity;
  const rising = smooth.map((value) => {
    highest = max(highest, value);
    return value >= highest - tolerance ? 1 : 0;
  });
  const keep = (i: number) => rising[i] === 1;
  const binned = binByX(input, output, searchBins, { keep });
  const three = fitSegments(binned, 3);
  if (three.termination !== 'converged' && three.termination !== 'max-iterations')
    return { code: 'fit-failed', termination: three.termination };
  const joints = boostJoints(three, highest, unassisted) ?? twoPieceJoints(binned, highest, unassisted);
  if (!joints) return withoutLine(binned, unassisted);
  let { cutIn, runOut } = joints;
  let lines: BoostLines | AnalysisProblem = { code: 'no-boost' };
  for (let round = 0; round < 3; round++) {
    lines = linesBetween(input, output, {
      cutIn,
      runOut,
      peak: highest,
      keep,
      unassisted,
      smooth,
      noise,
    });
    if ('code' in lines) return lines.code === 'no-boost' ? withoutLine(binned, unassisted) : lines;
    cutIn = lines.cutIn;
    runOut = lines.runOut?.input ?? null;
  }
  return lines;
}

/** Output more than this above what passes through unassisted is boost, whatever line it lies on. */
const boosted = 1.1;

/** No modulating line was found: because there is no boost, or although there is some. */
function withoutLine(binned: ReturnType<typeof binByX>, { slope }: Unassisted): AnalysisProblem {
  let ratio = 0;
  const highest = binned.x.reduce((most, each) => max(most, each), 0);
  for (let i = 0; i < binned.x.length; i++)
    if (binned.x[i] > 0.2 * highest) ratio = max(ratio, binned.y[i] / binned.x[i]);
  return slope > 0 && ratio > boosted * slope ? { code: 'no-modulating-line', ratio } : { code: 'no-boost' };
}

/** Joints as cut-in and run-out, or null when the three pieces do not look like a boost curve to run-out. */
function boostJoints({ slopes, breaks }: SegmentFit, peak: number, { leastBoost }: Unassisted) {
  const [before, boosted, after] = slopes;
  if (!(boosted > before * boostSteeper && boosted > leastBoost)) return null;
  const reached = after < runOutSlopeShare * boosted && peak - breaks[1] > leastBeyond * peak;
  return { cutIn: breaks[0], runOut: reached ? breaks[1] : null };
}

/** A pull that ends on the modulating line has two pieces only. */
function twoPieceJoints(binned: ReturnType<typeof binByX>, peak: number, { leastBoost }: Unassisted) {
  const two = fitSegments(binned, 2);
  if (two.termination !== 'converged' && two.termination !== 'max-iterations') return null;
  const [before, after] = two.slopes;
  if (after > before * boostSteeper && after > leastBoost && peak > two.breaks[0]) {
    return { cutIn: two.breaks[0], runOut: null };
  }
  return null;
}

interface Between {
  readonly cutIn: number;
  readonly runOut: number | null;
  readonly peak: number;
  readonly keep: (index: number) => boolean;
  readonly unassisted: Unassisted;
  /** The input without its noise, to tell which samples lie between joints. */
  readonly smooth: Float64Array;
  readonly noise: number;
}

function linesBetween(input: Float64Array, output: Float64Array, joints: Between): BoostLines | AnalysisProblem {
  const { cutIn, runOut, peak, keep, unassisted, smooth, noise: noiseX } = joints;
  const end = runOut ?? peak;
  const margin = trim * (end - cutIn);
  const modulating = fitLine(input, output, {
    keep: (i) => keep(i) && smooth[i] > cutIn + margin && smooth[i] < end - margin,
    noiseX,
  });
  if (modulating.termination !== 'converged') return { code: 'fit-failed', termination: modulating.termination };
  if (modulating.slope <= unassisted.leastBoost) return { code: 'no-boost' };
  const meets = modulating.intercept / (unassisted.slope - modulating.slope);
  if (runOut === null) return { modulating, beyond: null, cutIn: meets, runOut: null, peakInput: peak };
  const beyondFrom = runOut + trim * (peak - runOut);
  const beyond = fitLine(input, output, { keep: (i) => keep(i) && smooth[i] > beyondFrom, noiseX });
  if (beyond.termination !== 'converged')
    return { modulating, beyond: null, cutIn: meets, runOut: null, peakInput: peak };
  const meeting = (beyond.intercept - modulating.intercept) / (modulating.slope - beyond.slope);
  return {
    modulating,
    beyond,
    cutIn: meets,
    runOut: { input: meeting, output: modulating.intercept + modulating.slope * meeting },
    peakInput: peak,
  };
}
