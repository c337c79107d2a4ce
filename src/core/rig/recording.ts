import type { Trace } from '../traces/trace';

/** Samples that a rig has made so far, SI, in columns that grow by doubling. */
export interface Recording {
  readonly channels: readonly string[];
  /** Makes room for more samples and returns where the first of them goes. */
  begin(samples: number): number;
  readonly time: () => Float64Array;
  /** Columns in the order of `channels`; both are longer than what is in them. */
  readonly columns: () => readonly Float64Array[];
  /** The last sample of a channel; undefined where there is no such channel or no sample. */
  last(channel: string): number | undefined;
  trace(): Trace;
}

function grown(column: Float64Array, length: number): Float64Array {
  const longer = new Float64Array(length);
  longer.set(column);
  return longer;
}

export function recordingOf(channels: readonly string[], room: number): Recording {
  let count = 0;
  let time: Float64Array = new Float64Array(room);
  let columns: readonly Float64Array[] = channels.map(() => new Float64Array(room));
  return {
    channels,
    begin(samples) {
      const from = count;
      count += samples;
      if (count > time.length) {
        const length = Math.max(count, 2 * time.length);
        time = grown(time, length);
        columns = columns.map((column) => grown(column, length));
      }
      return from;
    },
    time: () => time,
    columns: () => columns,
    last: (channel) => (count > 0 ? columns[channels.indexOf(channel)]?.[count - 1] : undefined),
    trace: () => ({
      time: time.slice(0, count),
      columns: Object.fromEntries(channels.map((channel, c) => [channel, columns[c].slice(0, count)])),
    }),
  };
}
