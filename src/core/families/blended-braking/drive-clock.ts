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

/** Brings a column onto a clock; one pass over both. */
export function onClock({ time, value }: Samples, clock: DriveClock, between: Between): Clocked {
  const { start, step, count } = clock;
  const [out, known] = [new Float64Array(count), new Uint8Array(count)];
  const bridge = longestBridged({ time });
  const perStep = 1 / step;
  const firstFrom = (t: number) => max(0, ceil((t - start) * perStep - 1e-6));
  let next = time.length > 0 ? firstFrom(time[0]) : 0;
  for (let at = 0; at + 1 < time.length; at++) {
    const [from, until] = [time[at], time[at + 1]];
    if (until - from > bridge) {
      next = firstFrom(until);
      continue;
    }
    // What is held ends where the next sample is; what runs straight meets it there.
    const reached = (until - start) * perStep;
    const last = min(
      count - 1,
      between === 'held' && at + 2 < time.length ? ceil(reached - 1e-6) - 1 : floor(reached + 1e-6),
    );
    if (next > last) continue;
    const slope = between === 'held' ? 0 : (value[at + 1] - value[at]) / (until - from);
    for (; next <= last; next++) {
      out[next] = value[at] + slope * (start + next * step - from);
      known[next] = 1;
    }
  }
  return { value: out, known };
}

/** Sum of columns, known where each of them is. */
export function sumOf(parts: readonly { readonly of: Clocked; readonly times: number }[], count: number): Clocked {
  const value = new Float64Array(count);
  const known = new Uint8Array(count).fill(1);
  for (const { of, times } of parts) {
    const [own, there] = [of.value, of.known];
    for (let i = 0; i < count; i++) {
      value[i] += times * own[i];
      known[i] &= there[i];
    }
  }
  return { value, known };
}

/** Means of a column over a window that begins at each step, `width` s long: known where all of it is. */
export function windowMeans({ value, known }: Clocked, { step }: DriveClock, width: number): Clocked {
  const count = value.length;
  const n = max(1, Math.round(width / step));
  const out = { value: new Float64Array(count), known: new Uint8Array(count) };
  let [sum, unknown] = [0, 0];
  for (let i = 0; i < count; i++) {
    sum += value[i];
    unknown += 1 - known[i];
    if (i >= n) {
      sum -= value[i - n];
      unknown -= 1 - known[i - n];
    }
    if (i < n - 1) continue;
    out.value[i - n + 1] = sum / n;
    out.known[i - n + 1] = unknown === 0 ? 1 : 0;
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
