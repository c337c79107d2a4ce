import { fitLine } from '../../fitting/line';
import { differenceComponents, differenceResolution, random } from '../../instruments/uncertainty';
import { noiseOf } from '../../traces/smoothing';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { measured, nothingMeasured } from '../../procedure/analysis-result';

const ids = ['reverse-leak'] as const;
/** Left off at the start of each wait, s. */
const settling = 0.8;
/** Two waits that follow each other count as the procedure when the trace is at least this share of both long. */
const leastShare = 0.9;
/** With less than this share of the vacuum left nobody can tell what the valve holds back. */
const leastLeft = 0.6;

/**
 * What leaks back through a check valve (Pa over `seconds`): the loss with the source side vented less the loss with
 * the source side shut off before, so that a leak of the unit itself does not count. The trace ends with `seconds`
 * vented, and the wait of the same length before it was shut. Channel `supply_vacuum`.
 */
export function analyseCheckValve(trace: Trace, context: StepContext<unknown>, seconds: number): StepAnalysis {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const end = trace.time[trace.time.length - 1];
  const covered = end - trace.time[0];
  if (covered < leastShare * 2 * seconds)
    return nothingMeasured(ids, { code: 'hold-too-short', seconds: covered, needed: 2 * seconds });
  const split = indexAtTime(trace, end - seconds);
  const start = meanOf(supply, 0, Math.max(2, indexAtTime(trace, trace.time[0] + settling))).mean;
  const left = meanOf(supply, split, Math.min(supply.length, split + 20)).mean;
  if (left < leastLeft * start) return nothingMeasured(ids, { code: 'vacuum-gone', vacuum: left });
  const part = (from: number, to: number) =>
    fitLine(trace.time, supply, { from: indexAtTime(trace, from + settling), to: indexAtTime(trace, to) });
  const shut = part(Math.max(trace.time[0], end - 2 * seconds), trace.time[split] - settling / 2);
  const vented = part(trace.time[split], end);
  if (shut.termination !== 'converged' || vented.termination !== 'converged')
    return nothingMeasured(ids, { code: 'fit-failed', termination: vented.termination });
  const loss = (shut.slope - vented.slope) * seconds;
  const instrument = context.instruments.get('supply_vacuum');
  return {
    characteristics: [
      measured('reverse-leak', loss, [
        random('fit', Math.sqrt(shut.slopeVariance + vented.slopeVariance) * seconds),
        ...(instrument
          ? [
              ...(noiseOf(supply) < instrument.resolution ? [differenceResolution(instrument)] : []),
              ...differenceComponents(instrument, 0, loss, context.date),
            ]
          : []),
      ]),
    ],
    events: [{ id: 'hold', time: trace.time[split] }],
    notes: [],
  };
}
