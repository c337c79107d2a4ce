import { findChannel } from '../quantities/channels';
import { asSampled } from '../traces/as-sampled';
import { blockMeans } from '../traces/block-means';
import { heldThrough } from '../traces/held-through';
import { inFrames, type ColumnNature } from '../traces/in-frames';
import { oncePerTrace } from '../traces/once-per-trace';
import { ownSamples } from '../traces/own-samples';
import { makeTrace, type Trace } from '../traces/trace';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { loggedTooSlowly } from './logging-rate';
import { saying, unanswered } from './question';
import type { StepDefinition } from './step-definition';

function natureOf(channel: string): ColumnNature {
  if (channel.startsWith('target_')) return 'asked';
  return findChannel(channel)?.dimension === 'ratio' ? 'state' : 'measured';
}

interface SampledLog {
  readonly trace: Trace;
  readonly said: readonly AnalysisProblem[];
}

/** States filled in; the very trace that was given where none has an empty cell. */
function withStates(trace: Trace): Trace {
  const states = Object.entries(trace.columns).filter(([channel]) => natureOf(channel) === 'state');
  const filled = states.map(
    ([channel, column]) => [channel, heldThrough(trace.time, column, ownSamples(trace, column))] as const,
  );
  if (filled.every(([channel, column]) => column === trace.columns[channel])) return trace;
  return makeTrace(trace.time, { ...trace.columns, ...Object.fromEntries(filled) });
}

/** A log, however its logger wrote it, as what its sensors gave: the very trace that was given where it was written so. */
export const sampledLog = oncePerTrace((trace: Trace): SampledLog => {
  const { trace: sampled, over } = asSampled(withStates(trace), (channel) => natureOf(channel) === 'measured');
  const { trace: together, carried } = inFrames(sampled, natureOf);
  return {
    trace: together,
    said: [
      ...over.map((each) => ({ code: 'written-over', ...each }) as const),
      ...(carried > 0 ? [{ code: 'written-in-turn', carried } as const] : []),
    ],
  };
});

/** So many rows of a bandwidth's period are kept of a log. */
const rowsKept = 20;

/** A log at the rate that a step of this bandwidth (Hz) reads it at. */
const atBandwidth = oncePerTrace((trace: Trace, bandwidth: number) =>
  blockMeans(trace, rowsKept * bandwidth, (channel) => natureOf(channel) === 'measured'),
);

/**
 * The step, asked of what the sensors of a log gave; how that differs from what its logger wrote is said. Where they were asked too seldom,
 * nothing is.
 */
export function readingSamples<Step extends StepDefinition<unknown>>(step: Step): Step {
  if (step.kind !== 'measured' || step.feeds.log.ownSensors) return step;
  return {
    ...step,
    analyse: (trace, context) => {
      const log = sampledLog(trace);
      const slow = loggedTooSlowly(log.trace, step.feeds.log);
      if (slow) return saying(unanswered(step.characteristics, slow), log.said);
      const { bandwidth } = step.feeds.log;
      const read = bandwidth ? atBandwidth(log.trace, bandwidth) : log.trace;
      const rows = Math.round(log.trace.time.length / read.time.length);
      const said = read === log.trace ? log.said : [...log.said, { code: 'rows-averaged', rows } as const];
      const part = step.analyse(read, context);
      return said.length === 0 ? part : saying(part, said);
    },
  };
}
