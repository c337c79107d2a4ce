import { sampleAt } from '../traces/own-samples';
import type { TimelineLane, TimelineLine } from '../procedure/picture';

const { ceil, max, min } = Math;
const { isNaN } = Number;

/** The part of a time-line that is looked at, s; both ends included. */
export interface TimelineWindow {
  readonly from: number;
  readonly to: number;
}

/** From the first time of any line to the last; null where there is none. */
export function wholeOf(lanes: readonly TimelineLane[]): TimelineWindow | null {
  const times = lanes.flatMap(({ lines }) => lines.map(({ time }) => time)).filter((time) => time.length > 0);
  if (times.length === 0) return null;
  return { from: min(...times.map((time) => time[0])), to: max(...times.map((time) => time[time.length - 1])) };
}

/** What is drawn of a stretch: its lowest and its highest in the order they came; nothing known is drawn as nothing. */
function drawnOf(
  { time, value }: TimelineLine,
  from: number,
  to: number,
  out: { time: number[]; value: number[] },
): void {
  let [low, high] = [-1, -1];
  for (let i = from; i < to; i++) {
    if (isNaN(value[i])) continue;
    if (low < 0 || value[i] < value[low]) low = i;
    if (high < 0 || value[i] > value[high]) high = i;
  }
  const keep = low < 0 ? [from] : low === high ? [low] : [min(low, high), max(low, high)];
  for (const i of keep) {
    out.time.push(time[i]);
    out.value.push(value[i]);
  }
}

function lineWithin(line: TimelineLine, { from, to }: TimelineWindow, pieces: number): TimelineLine {
  // One sample more on either side, so that a line runs to the edge.
  const first = max(0, sampleAt(line, from) - 1);
  const last = min(line.time.length, sampleAt(line, to) + 2);
  const size = max(1, ceil((last - first) / pieces));
  const out = { time: [] as number[], value: [] as number[] };
  for (let at = first; at < last; at += size) drawnOf(line, at, min(last, at + size), out);
  return { ...line, time: Float64Array.from(out.time), value: Float64Array.from(out.value) };
}

/** The lanes of a window in about `pieces` columns of pixels: every peak is kept, whatever lies between; a gap stays one. */
export function lanesWithin(
  lanes: readonly TimelineLane[],
  window: TimelineWindow,
  pieces: number,
): readonly TimelineLane[] {
  return lanes.map((lane) => ({ ...lane, lines: lane.lines.map((line) => lineWithin(line, window, pieces)) }));
}

/** Lanes as plain numbers, as they go to a page: `null` is nothing known. */
export interface SentLane extends Omit<TimelineLane, 'lines'> {
  readonly lines: readonly (Pick<TimelineLine, 'title' | 'drawn'> & {
    readonly points: readonly (readonly [number, number | null])[];
  })[];
}

/** Part of a time-line as it goes to a page */
export interface TimelinePart {
  readonly lanes: readonly SentLane[];
  readonly window: TimelineWindow;
  readonly whole: TimelineWindow;
}

/** So many columns of pixels a time-line is drawn in. */
const columnsOfPixels = 900;

/** A part of lanes ready for a page, or the whole of them; null where there is nothing in them. */
export function timelinePart(lanes: readonly TimelineLane[], window: TimelineWindow | null): TimelinePart | null {
  const whole = wholeOf(lanes);
  if (!whole) return null;
  const seen = window ?? whole;
  return { lanes: sentLanes(lanesWithin(lanes, seen, columnsOfPixels)), window: seen, whole };
}

/** Figures as they are drawn need no more digits than this. */
const digits = 6;
const short = (value: number) => Number(value.toPrecision(digits));

export function sentLanes(lanes: readonly TimelineLane[]): readonly SentLane[] {
  return lanes.map((lane) => ({
    ...lane,
    lines: lane.lines.map(({ title, drawn, time, value }) => ({
      title,
      drawn,
      points: Array.from(time, (at, i) => [Number(at.toFixed(3)), isNaN(value[i]) ? null : short(value[i])] as const),
    })),
  }));
}
