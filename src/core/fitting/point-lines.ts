/** What drives a unit and what comes out of it, at one moment, in any units. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** What is known beforehand of a curve that is read at a few points. */
export interface PiecesSetup {
  /** What it gains with x before it is helped. */
  readonly before: number;
  /** What it still gains with x beyond its end; null where it does not bend. */
  readonly beyond: number | null;
  /** Help begins with a jump, not where the modulating line leaves what passes without. */
  readonly jumps: boolean;
}

export interface Line {
  readonly slope: number;
  readonly intercept: number;
}

/** Points shared out to what passes without help, to the modulating line and to the one beyond it. */
export interface Pieces {
  /** The first point that is helped, and the first beyond the modulating line: all of them where none is. */
  readonly helpedFrom: number;
  readonly beyondFrom: number;
  /** Whether any point lies beyond the modulating line. */
  readonly ends: boolean;
  /** The point that lies furthest off its line: its place, by how much and how many times its doubt. */
  readonly worst: { readonly at: number; readonly off: number; readonly times: number };
  /** What the points scatter about their lines beyond what their readings explain, as a share of y. */
  readonly scatterShare: number;
  /** The lines of the same points, moved, shared out alike. */
  readonly linesOf: (points: readonly Point[]) => { readonly modulating: Line; readonly beyond: Line | null };
}

type Split = Pick<Pieces, 'helpedFrom' | 'beyondFrom'>;

/** A point that gives no more than passes without help lies within so many times its doubt of that. */
const notHelped = 4;
/** Two parameters more must be worth this much in squared deviations. */
const worthALine = 4;

/** The line through points by least squares. */
export function lineThrough(points: readonly Point[]): Line {
  const n = points.length;
  const meanX = points.reduce((sum, { x }) => sum + x, 0) / n;
  const meanY = points.reduce((sum, { y }) => sum + y, 0) / n;
  const xx = points.reduce((sum, { x }) => sum + (x - meanX) ** 2, 0);
  const xy = points.reduce((sum, { x, y }) => sum + (x - meanX) * (y - meanY), 0);
  return { slope: xy / xx, intercept: meanY - (xy / xx) * meanX };
}

/** The line of the given slope through points. */
function withSlope(points: readonly Point[], slope: number): Line {
  return { slope, intercept: points.reduce((sum, { x, y }) => sum + y - slope * x, 0) / points.length };
}

export const heightAt = ({ slope, intercept }: Line, x: number): number => intercept + slope * x;

/** Where two lines meet. */
export const meetingOf = (one: Line, other: Line): number =>
  (other.intercept - one.intercept) / (one.slope - other.slope);

function linesOf(points: readonly Point[], { helpedFrom, beyondFrom }: Split, setup: PiecesSetup) {
  const modulating = lineThrough(points.slice(helpedFrom, beyondFrom));
  const rest = points.slice(beyondFrom);
  return { modulating, beyond: rest.length > 0 && setup.beyond !== null ? withSlope(rest, setup.beyond) : null };
}

/** Whether the modulating line ends between its last point and the first beyond it, as far as the points tell. */
function endsBetween(
  points: readonly Point[],
  split: Split,
  setup: PiecesSetup,
  doubt: (point: Point) => number,
): boolean {
  const { modulating, beyond } = linesOf(points, split, setup);
  if (!beyond) return true;
  const apart = modulating.slope - beyond.slope;
  const end = meetingOf(modulating, beyond);
  const [last, first] = [points[split.beyondFrom - 1], points[split.beyondFrom]];
  const unsure = (point: Point) => (notHelped * doubt(point)) / apart;
  return end > last.x - unsure(last) && end < first.x + unsure(first);
}

/**
 * Shares the points of a curve, in the order of x, out to its lines: those that give no more than passes without help, those on the
 * modulating line, those beyond it on a line of known slope; by least squares over the places where it may end. `doubt` is what reading a
 * point leaves unknown of its y, one sigma. Null where no two points are helped, or nothing rises as a modulating line does.
 */
export function piecesOf(points: readonly Point[], setup: PiecesSetup, doubt: (point: Point) => number): Pieces | null {
  const helpedFrom = points.findIndex((point) => point.y > setup.before * point.x + notHelped * doubt(point));
  if (helpedFrom < 0) return null;
  const splits: Split[] = [];
  const first = setup.beyond === null ? Math.max(helpedFrom + 2, points.length) : helpedFrom + 2;
  for (let beyondFrom = first; beyondFrom <= points.length; beyondFrom++) splits.push({ helpedFrom, beyondFrom });
  const scored = splits.map((split) => {
    const each = deviationsOf(points, split, setup, doubt);
    const squares = each.reduce((sum, { times }) => sum + times ** 2, 0);
    const { modulating } = linesOf(points, split, setup);
    // A modulating line rises more steeply than anything else, and ends between its last point and the first beyond it.
    const sensible =
      modulating.slope > Math.max(setup.before, setup.beyond ?? -Infinity) && endsBetween(points, split, setup, doubt);
    return {
      split,
      each,
      score: sensible ? squares + (split.beyondFrom < points.length ? worthALine : 0) : Infinity,
    };
  });
  const best = scored.reduce<(typeof scored)[number] | null>(
    (one, other) => (one === null || other.score < one.score ? other : one),
    null,
  );
  if (best === null || !Number.isFinite(best.score)) return null;
  const worst = best.each.reduce((one, other) => (other.times > one.times ? other : one));
  return {
    ...best.split,
    ends: best.split.beyondFrom < points.length,
    worst,
    scatterShare: scatterOf(points, best, doubt),
    linesOf: (moved) => linesOf(moved, best.split, setup),
  };
}

/** What the helped points scatter beyond what their readings explain, as a share of the highest of them; two lines take three points' worth. */
function scatterOf(
  points: readonly Point[],
  { split, each }: { readonly split: Split; readonly each: readonly Pieces['worst'][] },
  doubt: (point: Point) => number,
): number {
  const helped = each.filter(({ at }) => at >= split.helpedFrom);
  const beyond = helped.reduce((sum, { at, off }) => sum + off ** 2 - doubt(points[at]) ** 2, 0);
  const highest = helped.reduce((most, { at }) => Math.max(most, Math.abs(points[at].y)), Number.EPSILON);
  return Math.sqrt(Math.max(0, beyond) / Math.max(1, helped.length - 3)) / highest;
}

function deviationsOf(
  points: readonly Point[],
  split: Split,
  setup: PiecesSetup,
  doubt: (point: Point) => number,
): readonly Pieces['worst'][] {
  const { modulating, beyond } = linesOf(points, split, setup);
  return points.map((point, at) => {
    const line = at >= split.beyondFrom && beyond ? beyond : modulating;
    const passed = setup.before * point.x;
    // Before help begins something passes; a point above it that gives no more is off the line.
    const without = setup.jumps ? passed : Math.max(passed, heightAt(modulating, point.x));
    const off = point.y - (at < split.helpedFrom ? without : heightAt(line, point.x));
    return { at, off, times: Math.abs(off) / Math.max(doubt(point), Number.EPSILON) };
  });
}
