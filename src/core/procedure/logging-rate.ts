import { ownInterval, ownSamples } from '../traces/own-samples';
import { rowsToASample } from '../traces/rows-to-a-sample';
import { columnOf, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { LogFeed } from './step-definition';

/** Hz at which what a foot, a lever or a pump does within seconds is seen at all, where a step does not say otherwise. */
export const ordinaryRate = 5;

/** Clocks jitter, and a logger of so many rows a second may write a few less. */
const allowance = 1.1;
/** Fewer samples have no rate; what a step makes of so few is its own to say. */
const fewest = 3;

/** Channels that show what happens in a step: those of which it needs all or some; where it names none, whichever it uses. */
function channelsOf({ needs, anyOf = [], uses }: LogFeed): readonly string[] {
  const needed = [...needs, ...anyOf.flat()];
  return needed.length > 0 ? needed : uses;
}

/**
 * The first of a step's channels that was sampled too seldom to show what happens in the step, whatever its figures come to: between two
 * samples a stroke is missed, a valve opens and shuts, a gauge stops. Null where all of them were sampled often enough.
 */
export function loggedTooSlowly(trace: Trace, feed: LogFeed): AnalysisProblem | null {
  const needed = feed.neededRate ?? ordinaryRate;
  if (needed === 0) return null;
  for (const channel of channelsOf(feed)) {
    const column = columnOf(trace, channel);
    const samples = column && ownSamples(trace, column);
    if (!samples || samples.time.length < fewest) continue;
    const every = rowsToASample(samples) * ownInterval(samples);
    if (every > allowance / needed) return { code: 'logged-too-slowly', channel, every, needed };
  }
  return null;
}
