import type { Trace } from '../traces/trace';
import type { LogFeed } from './step-definition';

/** Former names that stand for a channel of today's in a list of names: former → today's. */
export function formerNames(
  { formerly = {} }: Pick<LogFeed, 'formerly'>,
  there: readonly string[],
): ReadonlyMap<string, string> {
  return new Map(
    Object.entries(formerly).flatMap(([today, former]) =>
      there.includes(former) && !there.includes(today) ? [[former, today] as const] : [],
    ),
  );
}

/** A trace of a step with its channels as they are called today; a name that it has already is left alone. */
export function inTodaysNames(trace: Trace, feed: Pick<LogFeed, 'formerly'>): Trace {
  const former = formerNames(feed, Object.keys(trace.columns));
  if (former.size === 0) return trace;
  const columns = Object.entries(trace.columns).map(([id, column]) => [former.get(id) ?? id, column] as const);
  return { time: trace.time, columns: Object.fromEntries(columns) };
}
