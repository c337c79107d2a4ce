import { columnOf, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { StepContext } from './step-context';
import type { MeasuredStep } from './step-definition';

/** What has to be said of a log that another tool wrote: for which of its channels nobody named a gauge, so that the stand-in's stands in for it. */
export function unnamedGauges(
  { feeds: { log } }: MeasuredStep<unknown>,
  trace: Trace,
  { instruments }: StepContext<unknown>,
): AnalysisProblem[] {
  if (log.ownSensors) return [];
  const channels = [...new Set([...log.needs, ...log.uses])].filter(
    (channel) => columnOf(trace, channel) && instruments.get(channel)?.ofStandIn,
  );
  return channels.length > 0 ? [{ code: 'gauges-assumed', channels }] : [];
}
