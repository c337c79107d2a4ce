import { columnOf, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { StepAnalysis } from './step-analysis';
import type { StepContext } from './step-context';
import type { MeasuredStep } from './step-definition';

/**
 * What has to be said of a log that another tool wrote: for which of its channels nobody named a gauge, so that the stand-in's stands in
 * for it. Channels that the analysis itself says something of (a vehicle's own sensors) are left out.
 */
export function unnamedGauges(
  step: MeasuredStep<unknown>,
  trace: Trace,
  { instruments }: StepContext<unknown>,
  analysis: StepAnalysis,
): AnalysisProblem[] {
  const said = new Set(
    analysis.notes.flatMap((note) => (note.code === 'vehicle-sensors-assumed' ? note.channels : [])),
  );
  const { needs, uses } = step.feeds.log;
  const channels = [...new Set([...needs, ...uses])].filter(
    (channel) => columnOf(trace, channel) && instruments.get(channel)?.ofStandIn && !said.has(channel),
  );
  return channels.length > 0 ? [{ code: 'gauges-assumed', channels }] : [];
}
