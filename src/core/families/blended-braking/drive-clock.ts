import type { Samples } from '../../traces/own-samples';
import { longestBridged, meanInterval } from '../../traces/time-mean';

const { ceil, floor, max, min } = Math;

/** An even clock under all columns of a drive, s. */
export interface DriveClock {
  readonly start: number;
  readonly step: number;
  readonly count: number;
}

/** A column on that clock; `known` is 0 where it has a gap. */
export interface Clocked {
  readonly value: Float64Array;
  readonly known: Uint8Array;
}

/** Steps are no finer than delays are told, and no coarser than what a window of 0.1 s still sees, s. */
const finest = 0.01;
const coarsest = 0.05;

/** A clock from the first sample to the last of any column, as fine as the quickest of them. */
export function clockUnder(columns: readonly Samples[]): DriveClock {
  const filled = columns.filter(({ time }) => time.length > 0);
  const start = min(...filled.map(({ time }) => time[0]));
  const end = max(...filled.map(({ time }) => time[time.length - 1]));
  const step = min(coarsest, max(finest, min(...filled.map(meanInterval))));
  return { start, step, count: filled.length === 0 ? 0 : floor((end - start) / step + 1e-6) + 1 };
}

/** How a column runs between its own samples: straight, or held until the next. */
export type Between = 'straight' | 'held';

/** Two times that lie within this share of a step are one and the same. */
const sameTime = 1e-6;

/** Times that were held against a clock already: nearly all columns of a log share one array of them. */
const onTheClock = new WeakMap<Float64Array, { readonly clock: DriveClock; readonly known: Uint8Array | null }>();

/** Ones for every step of a clock, where the times are its steps to the last of them; else null. */
function stepByStep(time: Float64Array, clock: DriveClock): Uint8Array | null {
  const before = onTheClock.get(time);
  if (before?.clock === clock) return before.known;
  const { start, step, count } = clock;
  let alike = time.length === count;
  for (let i = 0; alike && i < count; i++) alike = Math.abs(time[i] - start - i * step) <= sameTime * step;
  const known = alike ? new Uint8Array(count).fill(1) : null;
  onTheClock.set(time, { clock, known });
  return known;
}

/** Brings a column onto a clock; one pass over both, and none where its samples are the steps of the clock. */
export function onClock(samples: Samples, clock: DriveClock, between: Between): Clocked {
  const { time, value } = samples;
  const asItIs = stepByStep(time, clock);
  if (asItIs) return { value, known: asItIs };
  const { start, step, count } = clock;
  const [out, known] = [new Float64Array(count), new Uint8Array(count)];
  if (time.length < 2) return { value: out, known };
  const bridge = longestBridged(samples);
  const [held, same, last] = [between === 'held', sameTime * step, time.length - 2];
  // What is held ends where the next sample is; what runs straight meets it there.
  const reaches = held ? -same : same;
  let at = 0;
  let from = time[0];
  let until = time[1];
  let slope = held ? 0 : (value[1] - value[0]) / (until - from);
  let gap = until - from > bridge;
  for (let next = max(0, ceil((from - start) / step - sameTime)); next < count; next++) {
    const now = start + next * step;
    while (at < last && now > until + (gap ? -same : reaches)) {
      at++;
      from = until;
      until = time[at + 1];
      gap = until - from > bridge;
      if (!held) slope = (value[at + 1] - value[at]) / (until - from);
    }
    if (now > until + same) break;
    if (gap) continue;
    out[next] = value[at] + slope * (now - from);
    known[next] = 1;
  }
  return { value: out, known };
}

/** Sum of columns, known where each of them is. */
export function sumOf(parts: readonly { readonly of: Clocked; readonly times: number }[], count: number): Clocked {
  const value = new Float64Array(count);
  const known = new Uint8Array(count).fill(1);
  for (const { of, times } of parts) addTo(value, known, of, times);
  return { value, known };
}

function addTo(value: Float64Array, known: Uint8Array, of: Clocked, times: number): void {
  const own = of.value;
  const there = of.known;
  for (let i = 0; i < value.length; i++) {
    value[i] += times * own[i];
    known[i] &= there[i];
  }
}

/** Means of a column over a window that begins at each step, `width` s long: known where all of it is. */
export function windowMeans({ value, known }: Clocked, { step }: DriveClock, width: number): Clocked {
  const count = value.length;
  const n = max(1, Math.round(width / step));
  const out = { value: new Float64Array(count), known: new Uint8Array(count) };
  let sum = 0;
  let unknown = 0;
  for (let i = 0; i < count; i++) {
    sum += value[i];
    unknown += 1 - known[i];
    if (i < n - 1) continue;
    const first = i - n + 1;
    out.value[first] = sum / n;
    out.known[first] = unknown === 0 ? 1 : 0;
    sum -= value[first];
    unknown -= 1 - known[first];
  }
  return out;
}

/** Stretches in which a flag is set, [from, to) steps. */
export function stretchesOf(flag: Uint8Array): readonly (readonly [number, number])[] {
  const found: (readonly [number, number])[] = [];
  let from = -1;
  for (let i = 0; i <= flag.length; i++) {
    const set = i < flag.length && flag[i] === 1;
    if (set && from < 0) from = i;
    if (!set && from >= 0) {
      found.push([from, i]);
      from = -1;
    }
  }
  return found;
}
