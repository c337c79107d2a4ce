import type { Stuck } from '../traces/stuck';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';

/** What has to be said of a channel that stood where it should not have: its gauge at its end, or frozen. */
export function stuckProblem(stuck: Stuck, channel: string): AnalysisProblem {
  return stuck.kind === 'clipped'
    ? { code: 'gauge-clipped', channel, at: stuck.value }
    : { code: 'gauge-frozen', channel, seconds: stuck.to - stuck.from };
}
