import { findChannel } from '../quantities/channels';
import type { Trace } from '../traces/trace';
import { isImplausible } from './guess-mapping';
import { inferReference } from './infer-reference';

/** A channel of a mapped log whose figures are in doubt, and why. */
export interface QuestionedChannel {
  readonly channel: string;
  readonly why: 'scale-questioned' | 'reference-open';
}

/**
 * Channels of a mapped log (SI) that somebody has to have looked at before it counts, by their figures alone: more than anything here
 * has, or as good an absolute pressure as the vacuum that they are taken for. `ambient` is the local atmosphere, Pa absolute; `called` are
 * channels that the file calls by their own names.
 */
export function questionedChannels(
  trace: Trace,
  ambient: number,
  called: ReadonlySet<string> = new Set(),
): readonly QuestionedChannel[] {
  return Object.entries(trace.columns).flatMap(([id, column]): QuestionedChannel[] => {
    const channel = findChannel(id);
    if (!channel) return [];
    if (isImplausible(channel, column)) return [{ channel: id, why: 'scale-questioned' }];
    return inferReference(channel, column, ambient, called.has(id)).kind === 'ambiguous'
      ? [{ channel: id, why: 'reference-open' }]
      : [];
  });
}
