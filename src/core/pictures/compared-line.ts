import { pictureOf, type Picture } from '../procedure/picture';
import type { MeasuredStep } from '../procedure/step-definition';
import type { StepAnalysis } from '../procedure/step-analysis';
import type { StepContext } from '../procedure/step-context';
import type { Trace } from '../traces/trace';
import { drawnCurve } from './drawn-curve';
import { pathOf, smoothed, type Path } from './drawn-line';

/** One time of a step as it is drawn over another time of it; SI. */
export interface ComparedLine {
  /** Channel, `time` (s since the run began), `stroke` (its number from 1), or `run-time` of a pump (s). */
  readonly x: string;
  /** Channel, or `rest-time` of a pump (s). */
  readonly y: string;
  /** A line, a step for each stroke, or points that nothing joins. */
  readonly drawn: 'line' | 'steps' | 'points';
  readonly path: Path;
  /** What the analysis found on it: a knee, cut-in and run-out. */
  readonly found: Path;
  /** Where a sound unit’s points would lie; nothing where a line needs no such mark. */
  readonly sound: Path;
}

/** A run of a step with what it came to. */
export interface Compared {
  readonly step: MeasuredStep<unknown>;
  readonly trace: Trace;
  readonly analysis: StepAnalysis;
  readonly context: StepContext<unknown>;
}

/** Events that stand at a point of a curve, and of a line over time. */
const onCurves = ['cut-in', 'run-out', 'regulated'];
const onTimes = ['knee'];

function curveOf({ trace, analysis, context }: Compared, curve: Extract<Picture<unknown>, { kind: 'curve' }>) {
  const drawn = drawnCurve(trace, curve, { pair: context.corrections.pair, points: comparedPoints, context });
  if (!drawn) return null;
  const found = analysis.events.flatMap(({ id, x, y }) =>
    curve.input !== 'time' && onCurves.includes(id) && x !== undefined && y !== undefined ? [[x, y] as const] : [],
  );
  return {
    x: curve.input,
    y: curve.outputs[0],
    drawn: 'line' as const,
    path: [...drawn.apply, ...drawn.wayBack],
    found,
    sound: [],
  };
}

function strokesOf({ analysis, context }: Compared, picture: Extract<Picture<unknown>, { kind: 'steps' }>) {
  const { strokes = [] } = analysis;
  if (strokes.length === 0) return null;
  const { of } = picture.predict(context, analysis);
  return {
    x: 'stroke',
    y: of === 'store' ? 'accumulator_pressure' : 'output_pressure',
    drawn: 'steps' as const,
    path: strokes.map(({ output }, at) => [at + 1, output] as const),
    found: [],
    sound: [],
  };
}

function cyclesOf({ analysis, context }: Compared, picture: Extract<Picture<unknown>, { kind: 'map' }>) {
  const { cycles = [] } = analysis;
  if (cycles.length === 0) return null;
  return {
    x: 'run-time',
    y: 'rest-time',
    drawn: 'points' as const,
    path: cycles.map(({ run, rest }) => [run, rest] as const),
    found: [],
    sound: picture.maps(context).map(({ sound }) => [sound.run, sound.rest] as const),
  };
}

/** Points of a line that is compared. */
const comparedPoints = 300;

function overTimeOf({ trace, analysis }: Compared, channel: string): ComparedLine | null {
  const column = trace.columns[channel];
  if (!column || trace.time.length < 2) return null;
  const begun = trace.time.map((time) => time - trace.time[0]);
  const smooth = smoothed(column);
  const reach = smooth.reduce((most, each) => (Math.abs(each) > most ? Math.abs(each) : most), 0);
  const found = analysis.events.flatMap(({ id, time, y }) =>
    onTimes.includes(id) && time !== null && y !== undefined ? [[time - trace.time[0], y] as const] : [],
  );
  const thin = { x: begun[begun.length - 1] / comparedPoints, y: reach / comparedPoints };
  return { x: 'time', y: channel, drawn: 'line', path: pathOf(begun, smooth, thin), found, sound: [] };
}

function lineOf(run: Compared, picture: Picture<unknown>): ComparedLine | null {
  switch (picture.kind) {
    case 'curve':
      return curveOf(run, picture);
    case 'steps':
      return strokesOf(run, picture);
    case 'map':
      return cyclesOf(run, picture);
    case 'over-time':
      return overTimeOf(run, picture.channels[0]);
    // Two drives are not alike second by second: what is compared is worked out of each.
    case 'timeline':
      return null;
  }
}

/**
 * Every way in which a run can be drawn over another run of its step, the step's own pictures first, and last its first channel over the
 * time. A picture that the run does not hold (no pull, no whole cycle) is left out.
 */
export function comparedLines(run: Compared): readonly ComparedLine[] {
  const { pictures, feeds } = run.step;
  const lines = pictures.flatMap((picture) => lineOf(run, picture) ?? []);
  const plain =
    pictureOf(pictures, 'over-time') || pictureOf(pictures, 'timeline') ? null : overTimeOf(run, feeds.log.needs[0]);
  return plain ? [...lines, plain] : lines;
}

const alike = (a: ComparedLine, b: ComparedLine) => a.x === b.x && a.y === b.y && a.drawn === b.drawn;

/**
 * Of several runs, each with its ways to be drawn, the line of each on the axes that most of them share: the first such way of the first
 * run that has any. Null for a run that cannot be drawn on them.
 */
export function onSameAxes(runs: readonly (readonly ComparedLine[])[]): readonly (ComparedLine | null)[] {
  const ways = runs.flat();
  const shownBy = (way: ComparedLine) => runs.filter((lines) => lines.some((line) => alike(line, way))).length;
  const most = Math.max(0, ...ways.map(shownBy));
  const chosen = ways.find((way) => shownBy(way) === most);
  return runs.map((lines) => lines.find((line) => chosen && alike(line, chosen)) ?? null);
}
