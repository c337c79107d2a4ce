import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { BoostSetup } from './corrected-pull';

/** Both gauges at one moment: Pa gauge, and Pa gauge or N. */
export interface MarkedPoint {
  readonly input: number;
  readonly output: number;
}

/** What a boost curve read at a few points tells; NaN where it does not. Pa gauge, N. */
export type PointFigures = Readonly<
  Record<'cutIn' | 'slope' | 'runOut' | 'runOutOutput' | 'ratio' | 'atReference' | 'hysteresis', number>
>;

/** Points shared out to the modulating line and the one beyond run-out. */
export interface PointLines {
  readonly runOutReached: boolean;
  /** The point that lies furthest off its line: its place, by how much (in the output's unit) and how many times its doubt. */
  readonly worst: { readonly at: number; readonly off: number; readonly times: number };
  /** What the points scatter about their lines beyond what their readings explain, as a share of the output. */
  readonly scatterShare: number;
  /** The same points, moved, read by the same lines. */
  readonly figuresOf: (
    points: readonly MarkedPoint[],
    back: MarkedPoint | null,
    reference: number,
  ) => PointFigures | null;
}

interface Line {
  readonly slope: number;
  readonly intercept: number;
}

interface Split {
  /** Points on the modulating line, from the first that is helped to before the first beyond. */
  readonly helpedFrom: number;
  readonly beyondFrom: number;
}

/** A point that gives no more than the unit passes without help lies within so many times its doubt of that. */
const notHelped = 4;
/** Two parameters more must be worth this much in squared deviations. */
const worthALine = 4;

function through(points: readonly MarkedPoint[]): Line {
  const n = points.length;
  const meanX = points.reduce((sum, { input }) => sum + input, 0) / n;
  const meanY = points.reduce((sum, { output }) => sum + output, 0) / n;
  const xx = points.reduce((sum, { input }) => sum + (input - meanX) ** 2, 0);
  const xy = points.reduce((sum, { input, output }) => sum + (input - meanX) * (output - meanY), 0);
  return { slope: xy / xx, intercept: meanY - (xy / xx) * meanX };
}

/** Whether run-out lies between the last point on the modulating line and the first beyond it, as far as the points tell. */
function endsBetween(
  points: readonly MarkedPoint[],
  split: Split,
  setup: BoostSetup,
  doubt: (point: MarkedPoint) => number,
): boolean {
  const { modulating, beyond } = linesOf(points, split, setup);
  if (!beyond) return true;
  const apart = modulating.slope - beyond.slope;
  const runOut = (beyond.intercept - modulating.intercept) / apart;
  const [last, first] = [points[split.beyondFrom - 1], points[split.beyondFrom]];
  const unsure = (point: MarkedPoint) => (notHelped * doubt(point)) / apart;
  return runOut > last.input - unsure(last) && runOut < first.input + unsure(first);
}

/** The line of the given slope through points. */
function withSlope(points: readonly MarkedPoint[], slope: number): Line {
  const intercept = points.reduce((sum, { input, output }) => sum + output - slope * input, 0) / points.length;
  return { slope, intercept };
}

const at = ({ slope, intercept }: Line, input: number) => intercept + slope * input;

function linesOf(points: readonly MarkedPoint[], { helpedFrom, beyondFrom }: Split, setup: BoostSetup) {
  const modulating = through(points.slice(helpedFrom, beyondFrom));
  const rest = points.slice(beyondFrom);
  return { modulating, beyond: rest.length > 0 ? withSlope(rest, setup.slopeBeyond) : null };
}

/**
 * Shares the points of a boost curve (by input, the output corrected) out to its lines: those below cut-in give what passes
 * unassisted, those beyond run-out lie on a line of the geometry's slope, those between on the modulating line; by least squares over
 * the places where run-out may fall. `doubt` is what reading a point leaves unknown of its output, one sigma.
 */
export function splitPoints(
  points: readonly MarkedPoint[],
  setup: BoostSetup,
  doubt: (point: MarkedPoint) => number,
): PointLines | AnalysisProblem {
  const helpedFrom = points.findIndex(
    (point) => point.output > setup.unassisted.slope * point.input + notHelped * doubt(point),
  );
  if (helpedFrom < 0) return { code: 'no-boost' };
  const splits: Split[] = [];
  for (let beyondFrom = helpedFrom + 2; beyondFrom <= points.length; beyondFrom++)
    splits.push({ helpedFrom, beyondFrom });
  if (splits.length === 0) return { code: 'no-boost' };
  const deviations = (split: Split) => {
    const { modulating, beyond } = linesOf(points, split, setup);
    return points.map((point, place) => {
      const line = place >= split.beyondFrom && beyond ? beyond : modulating;
      const passed = setup.unassisted.slope * point.input;
      // Before cut-in the fluid passes; a point above it that gives no more is off the line.
      const off =
        point.output - (place < helpedFrom ? Math.max(passed, at(modulating, point.input)) : at(line, point.input));
      return { at: place, off, times: Math.abs(off) / Math.max(doubt(point), Number.EPSILON) };
    });
  };
  const scored = splits.map((split) => {
    const each = deviations(split);
    const squares = each.reduce((sum, { times }) => sum + times ** 2, 0);
    const { modulating } = linesOf(points, split, setup);
    // A modulating line rises more steeply than anything else, and ends between its last point and the first beyond it.
    const sensible =
      modulating.slope > Math.max(setup.unassisted.slope, setup.slopeBeyond) &&
      endsBetween(points, split, setup, doubt);
    return {
      split,
      each,
      score: sensible ? squares + (split.beyondFrom < points.length ? worthALine : 0) : Infinity,
    };
  });
  const best = scored.reduce((one, other) => (other.score < one.score ? other : one));
  if (!Number.isFinite(best.score)) return { code: 'no-boost' };
  const worst = best.each.reduce((one, other) => (other.times > one.times ? other : one));
  const excess = worst.times > 1 ? Math.abs(worst.off) / Math.max(Math.abs(points[worst.at].output), 1) : 0;
  return {
    runOutReached: best.split.beyondFrom < points.length,
    worst,
    scatterShare: excess,
    figuresOf: (moved, back, reference) => figures(moved, back, { split: best.split, setup, reference }),
  };
}

function figures(
  points: readonly MarkedPoint[],
  back: MarkedPoint | null,
  { split, setup, reference }: { readonly split: Split; readonly setup: BoostSetup; readonly reference: number },
): PointFigures | null {
  const { modulating, beyond } = linesOf(points, split, setup);
  const excess = modulating.slope - setup.unassisted.slope;
  if (!(excess > 0)) return null;
  const cutIn = -modulating.intercept / excess;
  const runOut = beyond ? (beyond.intercept - modulating.intercept) / (modulating.slope - beyond.slope) : Number.NaN;
  const peak = points[points.length - 1].input;
  const line = beyond && reference > runOut ? beyond : modulating;
  const passed = setup.unassisted.slope * reference;
  const atReference = reference > peak ? Number.NaN : reference < cutIn ? passed : at(line, reference);
  const onApply = back ? (back.output - modulating.intercept) / modulating.slope : Number.NaN;
  const comparable = back !== null && onApply > cutIn && !(onApply > runOut);
  return {
    cutIn,
    slope: modulating.slope,
    runOut,
    runOutOutput: Number.isNaN(runOut) ? Number.NaN : at(modulating, runOut),
    ratio: atReference / reference,
    atReference,
    hysteresis: comparable ? onApply - back.input : Number.NaN,
  };
}
