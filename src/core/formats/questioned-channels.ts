import { findChannel } from '../quantities/channels';
import type { Trace } from '../traces/trace';
import { isImplausible } from './guess-mapping';
import { inferReference } from './infer-reference';

/**
 * Channels of a mapped log (SI) that somebody has to have looked at before it counts, by their figures alone: more than anything here
 * has, or as good an absolute pressure as the vacuum that they are called. `ambient` is the local atmosphere, Pa absolute.
 */
export function questionedChannels(trace: Trace, ambient: number): readonly string[] {
  return Object.entries(trace.columns).flatMap(([id, column]) => {
    const channel = findChannel(id);
    if (!channel) return [];
    return isImplausible(channel, column) || inferReference(channel, column, ambient).kind === 'ambiguous' ? [id] : [];
  });
}
