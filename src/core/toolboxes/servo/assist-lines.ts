import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import { scatterOf } from '../../traces/own-samples';
import { movingMean } from '../../traces/smoothing';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

const { abs, hypot, max, min, sqrt } = Math;

/** The parts of an assist curve's apply branch: rod force N, output Pa gauge, zeros taken off. */
export interface AssistLines {
  /** Rod force at which the output jumps, and how well the samples around it tell that, one sigma. */
  readonly cutIn: number;
  readonly cutInStandard: number;
  /** Output right after the jump: the modulating line read there. */
  readonly jumpIn: number;
  readonly modulating: LineFit;
  /** Null when the push ended before run-out. */
  readonly beyond: LineFit | null;
  readonly runOut: { readonly input: number; readonly output: number } | null;
  readonly peakForce: number;
}

const searchBins = 160;
const trim = 0.1;
/** A piece counts as run out when its slope is below this share of the modulating slope. */
const runOutSlopeShare = 0.75;
const leastBeyond = 0.04;
/** Half windows of the smoothing that the beginning is looked for on, samples. */
const startHalfWindow = 4;
const forceHalfWindow = 8;
/** Share of the highest output that clearly is some. */
const clearlyMore = 0.05;
/** Between these shares of the line's height a sample lies in the jump itself. */
const inJump = [0.15, 0.85] as const;

/**
 * Finds the jump, the modulating line, run-out and the line beyond. The jump is where the samples change from nothing to the
 * modulating line with the least to spare on either side; then two straight pieces on what follows, and least-squares lines
 * on the samples between the joints, trimmed by 10 % at each end. Samples taken while the rod slipped back are left out.
 */
export function fitAssistLines(
  force: Float64Array,
  output: Float64Array,
  outputNoise: number,
): AssistLines | AnalysisProblem {
  const smoothForce = movingMean(force, forceHalfWindow);
  const smoothOutput = movingMean(output, startHalfWindow);
  const slipped = 4 * (scatterOf({ value: force }) / sqrt(2 * forceHalfWindow + 1));
  let peakForce = -Infinity;
  const rising = smoothForce.map((value) => {
    peakForce = max(peakForce, value);
    return value >= peakForce - slipped ? 1 : 0;
  });
  let highest = -Infinity;
  for (const value of smoothOutput) if (value > highest) highest = value;
  const visible = max(8 * (outputNoise / sqrt(2 * startHalfWindow + 1)), 0.01 * highest);
  const begins = firstForGood(smoothOutput, max(visible, clearlyMore * highest));
  if (begins === null || highest < 3 * visible) return { code: 'no-boost' };

  const keep = (i: number) => rising[i] === 1;
  let jump: Jump = { at: smoothForce[begins], standard: 0 };
  let runOut: number | null = null;
  let lines: AssistLines | AnalysisProblem = { code: 'no-boost' };
  for (let round = 0; round < 3; round++) {
    // What is still rising out of the jump belongs to neither line.
    const clear = jump.at + max(0.03 * (peakForce - jump.at), 3 * jump.standard);
    if (round === 0) runOut = cornerOf(force, output, (i) => keep(i) && force[i] > clear, peakForce);
    const end: number = runOut ?? peakForce;
    const margin = trim * (end - clear);
    const modulating = fitLine(force, output, {
      keep: (i) => keep(i) && force[i] > clear + margin && force[i] < end - margin,
    });
    if (modulating.termination !== 'converged') return { code: 'fit-failed', termination: modulating.termination };
    if (modulating.slope <= 0) return { code: 'no-boost' };
    jump = jumpAt(force, output, modulating, { keep, end });
    lines = withRunOut({ force, output, keep, peakForce, runOut }, modulating, jump);
    runOut = lines.runOut?.input ?? null;
  }
  return lines;
}

/** Force at which two straight pieces meet, where the second is a line beyond run-out; null where there is none. */
function cornerOf(
  force: Float64Array,
  output: Float64Array,
  keep: (index: number) => boolean,
  peakForce: number,
): number | null {
  const two = fitSegments(binByX(force, output, searchBins, { keep }), 2);
  if (two.termination !== 'converged' && two.termination !== 'max-iterations') return null;
  const [before, after] = two.slopes;
  return after < runOutSlopeShare * before && peakForce - two.breaks[0] > leastBeyond * peakForce
    ? two.breaks[0]
    : null;
}

/** First sample from which the column stays above `level`. */
function firstForGood(column: Float64Array, level: number): number | null {
  let at = column.length - 1;
  while (at > 0 && Number.isNaN(column[at])) at--;
  if (!(column[at] > level)) return null;
  while (at > 0 && !(column[at - 1] <= level)) at--;
  return at;
}

interface Jump {
  readonly at: number;
  readonly standard: number;
}

/**
 * Force at which the output changes from nothing to the modulating line: of all places between two samples (in the order of their
 * force, up to `end`) the one that leaves the least squares. As well known as the samples on either side of it are close, and
 * as those that lie in the jump itself are few.
 */
function jumpAt(
  force: Float64Array,
  output: Float64Array,
  line: LineFit,
  { keep, end }: { readonly keep: (index: number) => boolean; readonly end: number },
): Jump {
  const used = [...force.keys()].filter((i) => keep(i) && force[i] < end && !Number.isNaN(output[i]));
  used.sort((p, q) => force[p] - force[q]);
  const onLine = (i: number) => line.intercept + line.slope * force[i];
  let cost = used.reduce((sum, i) => sum + (output[i] - onLine(i)) ** 2, 0);
  let [least, at] = [cost, 0];
  used.forEach((i, k) => {
    // Below where the line itself is nothing there is no jump to be seen.
    cost += output[i] ** 2 - (output[i] - onLine(i)) ** 2;
    if (cost < least) [least, at] = [cost, k + 1];
  });
  if (at === 0) return { at: force[used[0] ?? 0], standard: 0 };
  const below = force[used[at - 1]];
  const above = force[used[min(at, used.length - 1)]];
  const middle = (below + above) / 2;
  const height = line.intercept + line.slope * middle;
  let [low, high] = [below, above];
  // Samples on their way up count where the line has a height to be on the way to.
  for (let k = at - 1; k >= 0 && height > 0 && output[used[k]] > inJump[0] * height; k--) low = force[used[k]];
  for (let k = at; k < used.length && output[used[k]] < inJump[1] * onLine(used[k]); k++) high = force[used[k]];
  const near = used.slice(max(0, at - 4), at + 4);
  const noise = scatterOf({ value: force }) / sqrt(max(1, near.length));
  return { at: middle, standard: hypot(abs(high - low) / sqrt(12), noise) };
}

interface Search {
  readonly force: Float64Array;
  readonly output: Float64Array;
  readonly keep: (index: number) => boolean;
  readonly peakForce: number;
  readonly runOut: number | null;
}

function withRunOut(search: Search, modulating: LineFit, jump: Jump): AssistLines {
  const { force, output, keep, peakForce, runOut } = search;
  const common = {
    cutIn: jump.at,
    cutInStandard: jump.standard,
    jumpIn: lineAt(modulating, jump.at).value,
    modulating,
    peakForce,
  };
  const none = { ...common, beyond: null, runOut: null };
  if (runOut === null) return none;
  const beyondFrom = runOut + trim * (peakForce - runOut);
  const beyond = fitLine(force, output, { keep: (i) => keep(i) && force[i] > beyondFrom });
  if (beyond.termination !== 'converged' || beyond.slope >= modulating.slope) return none;
  const input = (beyond.intercept - modulating.intercept) / (modulating.slope - beyond.slope);
  return { ...common, beyond, runOut: { input, output: modulating.intercept + modulating.slope * input } };
}
