/** One whole run of a pump: samples from start to stop; `stop` is null where the trace ended first. */
export interface PumpRun {
  readonly start: number;
  readonly stop: number | null;
}

/** A pump's signal comes off a relay, a clamp or a lamp: both edges of a run or a rest together are known to this, one sigma, s. */
export const signalEdges = 0.05;

/** Runs of a pump, from its own 0/1 signal. */
export function pumpRuns(pump: Float64Array): PumpRun[] {
  const runs: PumpRun[] = [];
  let start = -1;
  for (let i = 1; i < pump.length; i++) {
    if (pump[i] > 0.5 && pump[i - 1] <= 0.5) start = i;
    if (pump[i] <= 0.5 && pump[i - 1] > 0.5 && start >= 0) {
      runs.push({ start, stop: i });
      start = -1;
    }
  }
  if (start >= 0) runs.push({ start, stop: null });
  return runs;
}

/** Mean of some values and its standard uncertainty from their spread. */
export function meanAndSpread(values: readonly number[]): { mean: number; standard: number } {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const squares = values.reduce((sum, value) => sum + (value - mean) ** 2, 0);
  return { mean, standard: values.length > 1 ? Math.sqrt(squares / (values.length - 1) / values.length) : 0 };
}

/** What a store moved from the row before a switching to its own, Pa: of a stiff one more than a slope says, and nobody saw where in it. */
export function stepAt(column: Float64Array, at: number): number {
  const step = at > 0 ? Math.abs(column[at] - column[at - 1]) : 0;
  return Number.isFinite(step) ? step : 0;
}
