const { floor, max, min, sqrt } = Math;
const { isNaN } = Number;

/**
 * The one trace type: sample times (s) and one column per channel, SI, all of the same length.
 * NaN is a missing sample (an empty cell, or a channel that was sampled more slowly).
 */
export interface Trace {
  readonly time: Float64Array;
  readonly columns: Readonly<Record<string, Float64Array>>;
}

/** A trace that is still growing: samples as they have come, SI; NaN where one is missing. */
export interface GrowingTrace {
  readonly time: number[];
  readonly columns: Record<string, number[]>;
}

/** Adds samples to a growing trace, in place. */
export function appendTo(growing: GrowingTrace, { time, columns }: Trace): void {
  for (const at of time) growing.time.push(at);
  for (const [id, column] of Object.entries(columns)) {
    const own = (growing.columns[id] ??= []);
    for (const value of column) own.push(value);
  }
}

/** A trace as plain numbers, as a picture takes it. */
export function growingFrom(trace: Trace): GrowingTrace {
  const growing: GrowingTrace = { time: [], columns: {} };
  appendTo(growing, trace);
  return growing;
}

/** Makes a trace; throws when a column has another length than the clock (a programmer's error). */
export function makeTrace(time: Float64Array, columns: Record<string, Float64Array>): Trace {
  for (const [channel, column] of Object.entries(columns)) {
    if (column.length !== time.length) {
      throw new Error(`column ${channel} has ${column.length} samples, the clock has ${time.length}`);
    }
  }
  return { time, columns };
}

/** A column by channel; undefined when the trace does not hold it or holds no number in it. */
export function columnOf(trace: Trace, channel: string): Float64Array | undefined {
  const column = trace.columns[channel];
  return column?.some((value) => !isNaN(value)) ? column : undefined;
}

/** Part of a trace, samples `from` (included) to `to` (not included), sharing memory. */
export function sliceTrace(trace: Trace, from: number, to: number): Trace {
  return {
    time: trace.time.subarray(from, to),
    columns: Object.fromEntries(Object.entries(trace.columns).map(([id, column]) => [id, column.subarray(from, to)])),
  };
}

/** Joins traces end to end; a channel missing in one becomes missing samples there. */
export function concatTraces(parts: readonly Trace[]): Trace {
  const length = parts.reduce((sum, part) => sum + part.time.length, 0);
  const ids = new Set(parts.flatMap((part) => Object.keys(part.columns)));
  const time = new Float64Array(length);
  const columns = Object.fromEntries([...ids].map((id) => [id, new Float64Array(length).fill(Number.NaN)]));
  let at = 0;
  for (const part of parts) {
    time.set(part.time, at);
    for (const [id, column] of Object.entries(part.columns)) columns[id].set(column, at);
    at += part.time.length;
  }
  return { time, columns };
}

/** Mean of the numbers in `column[from, to)`, how many there were and their standard deviation. */
export function meanOf(
  column: Float64Array,
  from = 0,
  to = column.length,
): { mean: number; deviation: number; count: number } {
  let count = 0;
  let mean = 0;
  let squares = 0;
  const end = min(to, column.length);
  for (let i = max(0, from); i < end; i++) {
    const value = column[i];
    if (isNaN(value)) continue;
    count++;
    const delta = value - mean;
    mean += delta / count;
    squares += delta * (value - mean);
  }
  if (count === 0) return { mean: Number.NaN, deviation: Number.NaN, count };
  return { mean, deviation: count > 1 ? sqrt(squares / (count - 1)) : 0, count };
}

/** Index of the first sample at or after `time` (s); the length when there is none. */
export function indexAtTime(trace: Trace, time: number): number {
  let low = 0;
  let high = trace.time.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (trace.time[middle] < time) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * Typical sample interval, s: the median of up to a thousand intervals spread over the trace; where samples share time
 * stamps, the mean. NaN where the clock does not move at all.
 */
export function sampleInterval(trace: Trace): number {
  const { time } = trace;
  if (time.length < 2) return Number.NaN;
  const stride = max(1, floor((time.length - 1) / 1000));
  const intervals = new Float64Array(floor((time.length - 2) / stride) + 1);
  for (let i = 0, at = 0; i + 1 < time.length; i += stride) intervals[at++] = time[i + 1] - time[i];
  intervals.sort();
  if (intervals[intervals.length >> 2] > 0) return intervals[intervals.length >> 1];
  const covered = time[time.length - 1] - time[0];
  return covered > 0 ? covered / (time.length - 1) : Number.NaN;
}
