import { thinned } from '@/core/traces/decimate';
import { packFrame } from '@/core/traces/frame';
import type { Trace } from '@/core/traces/trace';
import type { RunStatus } from './run-recorder';

/** What is said with the samples of a run on their way to a screen. */
export interface WireWord {
  readonly kind: 'whole' | 'more';
  readonly state: string;
  readonly status: RunStatus | null;
}

/** Samples of a run, or none, as one frame of its stream. */
export function wire(word: WireWord, samples: Trace): Uint8Array<ArrayBuffer> {
  return packFrame(samples, word);
}

/** A finished run longer than this is sent as the lowest and highest of every stretch: more than a screen can show. */
const mostSent = 120_000;
const thinnedTo = 8_000;

/** A finished run as the first and only frame of its stream. */
export function wholeFrame(state: string, trace: Trace): Uint8Array<ArrayBuffer> {
  const samples = trace.time.length <= mostSent ? trace : thinned(trace, thinnedTo);
  return wire({ kind: 'whole', state, status: null }, samples);
}
