import type { GrowingTrace } from './trace';

/** Readings are means over this long, s: steady enough to read, quick enough to follow a hand. */
const readingSeconds = 0.15;

/** The reading of each channel now, SI; a channel without samples is left out. */
export function readingsNow({ time, columns }: GrowingTrace): Record<string, number> {
  const end = time[time.length - 1] ?? 0;
  let from = time.length;
  while (from > 0 && time[from - 1] > end - readingSeconds) from--;
  const readings: Record<string, number> = {};
  for (const [channel, column] of Object.entries(columns)) {
    let sum = 0;
    let count = 0;
    for (let i = from; i < column.length; i++) {
      if (Number.isNaN(column[i])) continue;
      sum += column[i];
      count++;
    }
    if (count > 0) readings[channel] = sum / count;
  }
  return readings;
}

/** Highest and lowest of a column so far. */
export function extremes(column: readonly number[]): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const value of column) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return { low, high };
}
