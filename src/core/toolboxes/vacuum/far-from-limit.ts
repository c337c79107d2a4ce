import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** Where more than this share was lost, how it went matters: it must have been read near the limit's own time. */
const muchLost = 0.2;
/** Near is within this factor of that time. */
const near = 1.5;

/**
 * What keeps a typed hold from passing: more than a fifth of `start` was gone by the reading `end` (both of one unit), and the reading
 * nearest to the time that the limit speaks of, at `seconds`, was not near it (`stated`, s).
 */
export function farFromLimit(
  start: number,
  { seconds, end }: { readonly seconds: number; readonly end: number },
  stated: number,
): AnalysisProblem[] {
  const isNear = seconds <= near * stated && seconds >= stated / near;
  return start - end > muchLost * start && !isNear ? [{ code: 'read-far-from-limit', seconds, stated }] : [];
}
