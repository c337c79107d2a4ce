import { fitLine, lineAt, type LineFit } from '../../fitting/line';
import { binByX, fitSegments } from '../../fitting/segments';
import { movingMean, noiseOf } from '../../traces/smoothing';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

const { max, min, sqrt } = Math;

/** The parts of an assist curve's apply branch: rod force N, output Pa gauge, zeros taken off. */
export interface AssistLines {
  /** Rod force at which the output jumps, and its standard uncertainty from noise. */
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
/** Half window of the smoothing that the jump is looked for on, samples. */
const jumpHalfWindow = 4;

/**
 * Finds the jump, the modulating line, run-out and the line beyond. The jump is where the output first leaves zero
 * for good, taken at half its height; then two straight pieces on what follows, and least-squares lines on the
 * samples between the joints, trimmed by 10 % at each end. Samples taken while the rod slipped back are left out.
 */
export function fitAssistLines(
  force: Float64Array,
  output: Float64Array,
  outputNoise: number,
): AssistLines | AnalysisProblem {
  const smoothForce = movingMean(force, 8);
  const smoothOutput = movingMean(output, jumpHalfWindow);
  const slipped = 4 * (noiseOf(force) / sqrt(17));
  let peakForce = -Infinity;
  const rising = smoothForce.map((value) => {
    peakForce = max(peakForce, value);
    return value >= peakForce - slipped ? 1 : 0;
  });
  let highest = -Infinity;
  for (const value of smoothOutput) highest = max(highest, value);
  const visible = max(8 * (outputNoise / sqrt(2 * jumpHalfWindow + 1)), 0.01 * highest);
  const first = firstForGood(smoothOutput, visible);
  if (first === null || highest < 3 * visible) return { code: 'no-boost' };

  const from = smoothForce[first];
  const keep = (i: number) => rising[i] === 1 && i >= first;
  // What is still rising out of the jump belongs to neither line.
  const clear = from + 0.03 * (peakForce - from);
  const binned = binByX(force, output, searchBins, { keep: (i) => keep(i) && force[i] > clear });
  const two = fitSegments(binned, 2);
  let runOut: number | null = null;
  if (two.termination === 'converged' || two.termination === 'max-iterations') {
    const [before, after] = two.slopes;
    if (after < runOutSlopeShare * before && peakForce - two.breaks[0] > leastBeyond * peakForce)
      runOut = two.breaks[0];
  }
  let lines: AssistLines | AnalysisProblem = { code: 'no-boost' };
  for (let round = 0; round < 3; round++) {
    const end: number = runOut ?? peakForce;
    const margin = trim * (end - clear);
    const modulating = fitLine(force, output, {
      keep: (i) => keep(i) && force[i] > clear + margin && force[i] < end - margin,
    });
    if (modulating.termination !== 'converged') return { code: 'fit-failed', termination: modulating.termination };
    if (modulating.slope <= 0) return { code: 'no-boost' };
    lines = withRunOut(
      { force, output, keep, peakForce, runOut },
      modulating,
      jumpAt(force, smoothOutput, modulating, first),
    );
    runOut = lines.runOut?.input ?? null;
  }
  return lines;
}

/** First sample from which the column stays above `level`. */
function firstForGood(column: Float64Array, level: number): number | null {
  let at = column.length - 1;
  if (!(column[at] > level)) return null;
  while (at > 0 && !(column[at - 1] <= level)) at--;
  return at;
}

interface Jump {
  readonly at: number;
  readonly standard: number;
}

/** Force at which the output passes half the height that the modulating line has there. */
function jumpAt(force: Float64Array, smooth: Float64Array, modulating: LineFit, first: number): Jump {
  let at = first;
  const half = (i: number) => (modulating.intercept + modulating.slope * force[i]) / 2;
  while (at > 0 && smooth[at - 1] > half(at - 1)) at--;
  while (at < smooth.length - 1 && smooth[at] < half(at)) at++;
  const few = { from: max(0, at - 3), to: min(force.length, at + 4) };
  let sum = 0;
  for (let i = few.from; i < few.to; i++) sum += force[i];
  return { at: sum / (few.to - few.from), standard: noiseOf(force) / sqrt(few.to - few.from) };
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
