import { stuckProblem } from '../../procedure/stuck-problem';
import { fitLine, type LineFit } from '../../fitting/line';
import {
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  random,
  stabilityComponent,
  systematic,
} from '../../instruments/uncertainty';
import { measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged } from '../../procedure/evidence';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { divisionOf, ownSamples, samplesBetween, scatterOf, type Samples } from '../../traces/own-samples';
import { findStuck, neverMoved } from '../../traces/stuck';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

const { max, min, sqrt } = Math;

const ids = ['reverse-leak'] as const;
/** Left off at the start of each wait, s. */
const settling = 0.8;
/** Each wait must last this share of its time. */
const leastShare = 0.9;
/** With less than this share of the vacuum left nobody can tell what the valve holds back. */
const leastLeft = 0.6;
/** The source side is open to the air below this share of the unit's vacuum. */
const openBelow = 0.1;
/** No vacuum to speak of, Pa. */
const noVacuum = 2_000;
/** The air of the first wait may still warm by about this, K. */
const warming = 0.5;

/** Two waits one after the other: with the source side shut, then open to the air; s. */
interface TwoWaits {
  readonly supply: Samples;
  readonly opened: number;
  readonly end: number;
  readonly level: number;
}

/**
 * When the source side was opened to the air: the last fall of `source_vacuum` to next to nothing. Without that gauge
 * the trace is taken to end with `seconds` of it, which it does not show.
 */
function openedAt(
  trace: Trace,
  level: number,
  seconds: number,
): { readonly at: number; readonly doubts: readonly AnalysisProblem[] } | AnalysisProblem {
  const end = trace.time[trace.time.length - 1];
  const column = columnOf(trace, 'source_vacuum');
  if (!column) return { at: end - seconds, doubts: [{ code: 'side-not-seen-open' }] };
  const { time, value } = ownSamples(trace, column);
  const lowest = value.reduce((least, each) => min(least, each), Infinity);
  if (lowest > openBelow * level) return { code: 'side-not-opened', vacuum: lowest };
  let at = value.length - 1;
  if (value[at] > openBelow * level) return { code: 'side-not-opened', vacuum: value[at] };
  while (at > 0 && value[at - 1] <= openBelow * level) at--;
  return { at: time[at], doubts: [] };
}

/** Whether a trace shows a valve that was first shut off and then had the air behind it. */
function twoWaits(trace: Trace, context: StepContext<unknown>, seconds: number): Judged<TwoWaits> {
  const column = columnOf(trace, 'supply_vacuum');
  if (!column) return noEvidence({ code: 'supply-missing' });
  const supply = ownSamples(trace, column);
  const { time } = supply;
  const end = time[time.length - 1];
  if (neverMoved(supply)) return noEvidence({ code: 'gauge-frozen', channel: 'supply_vacuum', seconds: end - time[0] });
  const level = meanOf(samplesBetween(supply, time[0], time[0] + settling));
  if (level < noVacuum) return noEvidence({ code: 'source-never-opened', vacuum: max(0, level) });
  const opened = openedAt(trace, level, seconds);
  if ('code' in opened) return noEvidence(opened);
  const shortest = min(opened.at - time[0], end - opened.at);
  if (shortest < leastShare * seconds - settling)
    return noEvidence({ code: 'hold-too-short', seconds: max(0, shortest), needed: seconds });
  const left = meanOf(samplesBetween(supply, opened.at, opened.at + settling));
  if (!(left >= leastLeft * level)) return noEvidence({ code: 'vacuum-gone', vacuum: left });
  const stuck = findStuck(supply, context.instruments.get('supply_vacuum')?.range ?? null);
  if (stuck && stuck.to > opened.at - seconds) return noEvidence(stuckProblem(stuck, 'supply_vacuum'));
  return evidence({ supply, opened: opened.at, end, level: left }, [], opened.doubts);
}

/**
 * What leaks back through a check valve (Pa over `seconds`): the loss with the source side open to the air less the loss
 * with it shut off before, so that a leak of the unit itself does not count. Channels `supply_vacuum`, and `source_vacuum`,
 * which shows the source side being opened.
 */
export function analyseCheckValve(trace: Trace, context: StepContext<unknown>, seconds: number): StepAnalysis {
  const judged = twoWaits(trace, context, seconds);
  if (judged.kind === 'none') return nothingMeasured(ids, judged.problem);
  return { ...reverseLeak(judged.found, context, seconds), doubts: judged.doubts };
}

function reverseLeak(waits: Evidence<TwoWaits>, context: StepContext<unknown>, seconds: number): StepAnalysis {
  const { supply, opened, end, level } = waits;
  const part = (from: number, to: number): LineFit => {
    const samples = samplesBetween(supply, from, to);
    return fitLine(samples.time, samples.value);
  };
  const shut = part(max(supply.time[0], opened - seconds) + settling, opened - settling / 2);
  const vented = part(opened + settling, min(end, opened + seconds));
  if (shut.termination !== 'converged' || vented.termination !== 'converged')
    return nothingMeasured(ids, { code: 'fit-failed', termination: vented.termination });
  const value = (shut.slope - vented.slope) * seconds;
  const instrument = context.instruments.get('supply_vacuum');
  const scatter = scatterOf(supply);
  const division = divisionOf(supply);
  const resolution = max(instrument?.resolution ?? 0, scatter < division ? division : 0);
  const components = [
    random('fit', sqrt(shut.slopeVariance + vented.slopeVariance) * seconds),
    differenceResolution({ resolution: scatter < resolution ? resolution : 0 }),
    systematic('gas-heat', ((context.ambient.pressure - level) * warming) / context.airTemperature / sqrt(3)),
    ...(instrument
      ? [
          ...differenceComponents(instrument, 0, value, context.date),
          stabilityComponent(instrument, level, seconds, context.date),
        ]
      : []),
  ];
  const events = [{ id: 'hold', time: opened } as const];
  if (value < -expandedUncertainty({ value, components }))
    return { ...nothingMeasured(ids, { code: 'gains', channel: 'supply_vacuum', gain: -value }), events };
  return { characteristics: [measured('reverse-leak', value, components)], events, notes: [] };
}

function meanOf({ value }: Samples): number {
  return value.reduce((sum, each) => sum + each, 0) / value.length;
}
