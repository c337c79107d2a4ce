import { thinned } from '@/core/traces/decimate';
import type { Trace } from '@/core/traces/trace';
import type { RunStatus } from './run-recorder';

/** What goes over the wire: samples as plain numbers, six figures, null where a sample is missing. */
export interface WireFrame {
  readonly kind: 'whole' | 'more';
  readonly state: string;
  readonly time: readonly number[];
  readonly columns: Readonly<Record<string, readonly (number | null)[]>>;
  readonly status: RunStatus | null;
}

function shortened(column: Float64Array): (number | null)[] {
  return Array.from(column, (value) => (Number.isNaN(value) ? null : Number(value.toPrecision(6))));
}

/** A frame as one server-sent event. */
export function wire(kind: WireFrame['kind'], state: string, samples: Trace, status: RunStatus | null): string {
  const frame: WireFrame = {
    kind,
    state,
    time: Array.from(samples.time, (time) => Number(time.toFixed(4))),
    columns: Object.fromEntries(Object.entries(samples.columns).map(([id, column]) => [id, shortened(column)])),
    status,
  };
  return `data: ${JSON.stringify(frame)}\n\n`;
}

/** A finished run longer than this is sent as the lowest and highest of every stretch: more than a screen can show. */
const mostSent = 120_000;
const thinnedTo = 8_000;

/** A finished run as the first and only frame of its stream. */
export function wholeFrame(state: string, trace: Trace): string {
  return wire('whole', state, trace.time.length <= mostSent ? trace : thinned(trace, thinnedTo), null);
}
