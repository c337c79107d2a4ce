import {
  heightAt,
  lineThrough,
  meetingOf,
  piecesOf,
  type Line,
  type PiecesSetup,
  type Point,
} from '../fitting/point-lines';
import { random, readingComponents, systematic, type UncertaintyComponent } from '../instruments/uncertainty';
import type { StepContext } from '../procedure/step-context';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';

/** Rows of a curve as they were read: on the way up to the furthest, and on the way back from it. */
export function branchesOf(rows: readonly Point[]): { readonly up: readonly Point[]; readonly back: readonly Point[] } {
  const top = rows.reduce((best, row, at) => (row.x > rows[best].x ? at : best), 0);
  return { up: rows.slice(0, top + 1), back: rows.slice(top + 1) };
}

/** What reading two dials leaves unknown of a point's y, one sigma, without what moves all points alike. */
export function pointDoubt(
  channels: { readonly x: string; readonly y: string },
  steepest: number,
  { instruments, date }: StepContext<unknown>,
): (point: Point) => number {
  const own = (channel: string, value: number) => {
    const instrument = instruments.get(channel);
    if (!instrument) return 0;
    const parts = readingComponents(instrument, value, date);
    return Math.hypot(
      ...parts
        .filter(({ source }) => source === 'resolution' || source === 'gauge-linearity')
        .map((part) => part.standard),
    );
  };
  return ({ x, y }) => Math.max(Number.EPSILON, Math.hypot(own(channels.y, y), steepest * own(channels.x, x)));
}

/** What a curve that was read row by row tells; NaN where it does not. In the units of its rows. */
export type RowFigures = Readonly<Record<'cutIn' | 'jumpIn' | 'slope' | 'end' | 'endHeight' | 'hysteresis', number>>;

export interface RowsCurve {
  /** The figures of the same rows, moved. */
  readonly figuresOf: (rows: readonly Point[], firstOutput: number | null) => RowFigures;
  /** What the rows leave unknown of each figure besides what its readings do. */
  readonly besides: Readonly<Record<keyof RowFigures, readonly UncertaintyComponent[]>>;
  /** Whether any row lies beyond the modulating line. */
  readonly ends: boolean;
  /** Where rows say that help begins, where what was seen to move first does not fit them: they count then. */
  readonly contradicts: readonly [number, number] | null;
  /** Furthest of x, of all rows. */
  readonly furthest: number;
}

/** A first movement may be seen so much beside the rows that bracket it, as a share of all of x. */
const slack = 0.02;
/** So many times its doubt is clear. */
const clearly = 3;

/** A rectangular doubt of half of so much. */
const within = (width: number) => [systematic('model', width / 2 / Math.sqrt(3))];

/**
 * A curve read row by row, up and back: where help begins lies between the last row without and the first with it, and not before the
 * modulating line leaves zero; what it jumps to is that line there; its end is where it meets the line beyond. Null where no two rows are helped.
 * `firstOutput` is where output was first seen, where somebody watched for it.
 */
export function curveOfRows(
  rows: readonly Point[],
  setup: PiecesSetup,
  doubt: (point: Point) => number,
  firstOutput: number | null,
): RowsCurve | null {
  const { up } = branchesOf(rows);
  const order = up.map((_, at) => at).sort((one, other) => up[one].x - up[other].x);
  const pieces = piecesOf(
    order.map((at) => up[at]),
    setup,
    doubt,
  );
  if (!pieces) return null;
  // A row that is helped lies on the line: below it by clearly more than its doubt it was not, whatever a coarse dial makes of little.
  const asRead = order.map((at) => up[at]);
  const line = pieces.linesOf(asRead).modulating;
  const surelyWithout = asRead.flatMap((point, at) =>
    at < pieces.helpedFrom && point.y < heightAt(line, point.x) - clearly * doubt(point) ? [at] : [],
  );
  const zeroOf = ({ slope, intercept }: Line) => -intercept / (slope - setup.before);
  /** Between which rows help begins. */
  const rowsAround = (sorted: readonly Point[], modulating: Line): readonly [number, number] => {
    const last = surelyWithout.reduce((most, at) => Math.max(most, sorted[at].x), -Infinity);
    const first = sorted[pieces.helpedFrom].x;
    return [Math.min(first, Math.max(last, zeroOf(modulating))), first];
  };
  const bracket = (sorted: readonly Point[], modulating: Line): readonly [number, number] =>
    setup.jumps ? rowsAround(sorted, modulating) : [zeroOf(modulating), zeroOf(modulating)];
  // What was seen to move where the rows show no output yet, or after they show some, was something else.
  const [low, high] = rowsAround(asRead, line);
  const beside = (up[up.length - 1].x - up[0].x) * slack;
  const contradicts = firstOutput !== null && (firstOutput < low - beside || firstOutput > high + beside);
  const read = (moved: readonly Point[], seen: number | null) => {
    const sorted = order.map((at) => moved[at]);
    const { modulating, beyond } = pieces.linesOf(sorted);
    const [from, to] = seen === null || contradicts ? bracket(sorted, modulating) : [seen, seen];
    return { modulating, beyond, from, to, cutIn: (from + to) / 2 };
  };
  const figuresOf = (moved: readonly Point[], seen: number | null): RowFigures => {
    const { modulating, beyond, cutIn } = read(moved, seen);
    const end = beyond ? meetingOf(modulating, beyond) : Number.NaN;
    const drag = moved.slice(up.length).flatMap(({ x, y }, at) => {
      const place = rows[up.length + at];
      return comparable.has(place) ? [(y - modulating.intercept) / modulating.slope - x] : [];
    });
    return {
      cutIn,
      jumpIn: heightAt(modulating, cutIn),
      slope: modulating.slope,
      end,
      endHeight: Number.isNaN(end) ? Number.NaN : heightAt(modulating, end),
      hysteresis: drag.length > 0 ? drag.reduce((sum, each) => sum + each, 0) / drag.length : Number.NaN,
    };
  };
  const now = read(rows, firstOutput);
  const top = now.beyond ? heightAt(now.modulating, meetingOf(now.modulating, now.beyond)) : Infinity;
  const least = Math.max(heightAt(now.modulating, now.to), 0);
  // A row of the way back is held against the modulating line where its y is one of that line's, and about half way up it: what a curve
  // lags by is stated there.
  const onLine = rows.slice(up.length).filter(({ y }) => y > least * 1.02 && y < top * 0.99 && y > 0);
  const half = Number.isFinite(top) ? top / 2 : Math.max(...asRead.map(({ y }) => y)) / 2;
  const fromHalf = ({ y }: Point) => Math.abs(y - half);
  const nearest = Math.min(...onLine.map(fromHalf));
  const comparable = new Set(onLine.filter((row) => fromHalf(row) <= Math.max(nearest, 0.4 * half)));
  const figures = figuresOf(rows, firstOutput);
  const scatter = (value: number) =>
    pieces.scatterShare > 0 && Number.isFinite(value) ? [random('fit', Math.abs(value) * pieces.scatterShare)] : [];
  const between = now.to - now.from;
  return {
    figuresOf,
    besides: {
      cutIn: within(between),
      jumpIn: [...within(now.modulating.slope * between), ...scatter(figures.jumpIn)],
      slope: scatter(figures.slope),
      end: scatter(figures.end),
      endHeight: scatter(figures.endHeight),
      hysteresis: [],
    },
    ends: pieces.ends,
    contradicts: contradicts ? [low, high] : null,
    furthest: up.reduce((most, { x }) => Math.max(most, x), -Infinity),
  };
}

/** Rows that tell what a curve does before it bends: at least two of x below where a sound one's bends at the latest place to begin. */
export function tooFarOn(rows: readonly Point[], channel: string, below: number | null): AnalysisProblem | null {
  if (below === null || rows.filter(({ x }) => x < below).length >= 2) return null;
  return { code: 'rows-too-far-on', channel, below };
}

/** Says that a first movement does not fit the rows, where it does not. */
export function firstMovementNotes(
  { contradicts }: RowsCurve,
  channel: string,
  at: number | undefined,
): readonly AnalysisProblem[] {
  if (!contradicts || at === undefined) return [];
  const [low, high] = contradicts;
  return [{ code: 'first-movement-contradicts', channel, at, low, high }];
}

/** Two lines through points in the order of x that bend where they meet, each with points of its own. */
export interface TwoLines {
  readonly linesOf: (points: readonly Point[]) => {
    readonly below: Line;
    readonly above: Line;
    readonly joint: number;
  };
}

/** Each line of two needs so many points. */
const eachLine = 2;
/** The second line must fall to this share of the first's slope, or rise by as much, to be one of its own. */
const bends = 0.1;

/**
 * Shares points out to two lines by least squares over the places where they may part; null where one line does as well, or the lines meet
 * nowhere between their points. `doubt` is what reading a point leaves unknown of its y, one sigma.
 */
export function twoLinesOf(points: readonly Point[], doubt: (point: Point) => number): TwoLines | null {
  const order = points.map((_, at) => at).sort((one, other) => points[one].x - points[other].x);
  const sorted = order.map((at) => points[at]);
  const squares = (own: readonly Point[], line: Line) =>
    own.reduce((sum, point) => sum + ((point.y - heightAt(line, point.x)) / doubt(point)) ** 2, 0);
  const split = (moved: readonly Point[], at: number) => {
    const [below, above] = [lineThrough(moved.slice(0, at)), lineThrough(moved.slice(at))];
    return { below, above, joint: meetingOf(below, above) };
  };
  let best: { readonly at: number; readonly score: number } | null = null;
  for (let at = eachLine; at <= sorted.length - eachLine; at++) {
    const { below, above, joint } = split(sorted, at);
    const apart = Math.abs(above.slope - below.slope);
    const unsure = (4 * Math.max(doubt(sorted[at - 1]), doubt(sorted[at]))) / apart;
    const bent = apart > bends * Math.abs(below.slope);
    const meets = joint > sorted[at - 1].x - unsure && joint < sorted[at].x + unsure;
    const score = squares(sorted.slice(0, at), below) + squares(sorted.slice(at), above);
    if (bent && meets && (best === null || score < best.score)) best = { at, score };
  }
  const whole = sorted.length >= 2 ? squares(sorted, lineThrough(sorted)) : 0;
  // Two parameters more must be worth their while.
  if (best === null || best.score + 9 > whole) return null;
  const { at } = best;
  return {
    linesOf: (moved) =>
      split(
        order.map((place) => moved[place]),
        at,
      ),
  };
}
