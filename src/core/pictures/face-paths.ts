import type { DrawnCurve } from './drawn-curve';

const { abs, hypot, max, min } = Math;

/** A unit's decisive test over the band it should lie in, SI. */
export interface FaceCurves {
  readonly input: readonly number[];
  readonly low: readonly number[];
  readonly high: readonly number[];
  readonly measured: DrawnCurve | null;
}

/** The same as finished paths of a picture of one size, so that no screen needs to know what was drawn. */
export interface FacePaths {
  readonly width: number;
  readonly height: number;
  readonly band: string;
  readonly apply: string | null;
  readonly wayBack: string | null;
  readonly earlier: string | null;
}

type Point = readonly [number, number];

const margin = 7;
/** A drawn line is never further than this from any of its points, px. */
const tolerance = 0.35;

/** Indices that are left of a line when every point lies within the tolerance of what is drawn (Ramer, Douglas, Peucker). */
function simplified(points: readonly Point[]): readonly Point[] {
  if (points.length < 3) return points;
  const kept = new Set([0, points.length - 1]);
  const spans: [number, number][] = [[0, points.length - 1]];
  for (let span = spans.pop(); span; span = spans.pop()) {
    const [from, to] = span;
    const [[ax, ay], [bx, by]] = [points[from], points[to]];
    const length = hypot(bx - ax, by - ay);
    let worst = tolerance;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const [px, py] = points[i];
      const off = length > 0 ? abs((bx - ax) * (ay - py) - (ax - px) * (by - ay)) / length : hypot(px - ax, py - ay);
      if (off <= worst) continue;
      worst = off;
      at = i;
    }
    if (at < 0) continue;
    kept.add(at);
    spans.push([from, at], [at, to]);
  }
  return points.filter((_, i) => kept.has(i));
}

/** A line as a path of relative steps, a tenth of a pixel fine. */
function pathOf(points: readonly Point[]): string {
  let [x, y] = [0, 0];
  return simplified(points)
    .map(([px, py], i) => {
      const [dx, dy] = [Math.round(px * 10) - x, Math.round(py * 10) - y];
      [x, y] = [x + dx, y + dy];
      return `${i === 0 ? 'M' : 'l'}${dx / 10}${dy < 0 ? '' : ' '}${dy / 10}`;
    })
    .join('');
}

/** Draws a face in px; `earlier` is what was measured when the unit was here before. */
export function facePaths(
  face: FaceCurves,
  size: { readonly width: number; readonly height: number },
  earlier: DrawnCurve | null = null,
): FacePaths {
  const { width, height } = size;
  const endX = face.input[face.input.length - 1];
  // What was measured above the band is drawn above it, and not cut at its top.
  const drawn = [face.measured?.apply, face.measured?.wayBack, earlier?.apply].flatMap((points) => points ?? []);
  const endY = drawn.reduce((most, [, y]) => max(most, y), max(...face.high));
  const at = ([px, py]: Point): Point => [
    margin + (min(px, endX) / endX) * (width - 2 * margin),
    height - margin - (max(0, py) / endY) * (height - 2 * margin),
  ];
  const line = (points: readonly Point[]) => pathOf(points.map(at));
  const low = face.input.map((input, i): Point => [input, face.low[i]]);
  const high = face.input.map((input, i): Point => [input, face.high[i]]).reverse();
  return {
    width,
    height,
    band: `${line([...low, ...high])}Z`,
    apply: face.measured && line(face.measured.apply),
    wayBack: face.measured && line(face.measured.wayBack),
    earlier: earlier && line(earlier.apply),
  };
}
