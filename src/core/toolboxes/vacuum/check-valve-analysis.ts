import { stuckProblem } from '../../procedure/stuck-problem';
import {
  differenceComponents,
  differenceResolution,
  expandedUncertainty,
  random,
  stabilityComponent,
  systematic,
} from '../../instruments/uncertainty';
import { measured, nothingMeasured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { divisionOf, ownSamples, samplesBetween, scatterOf, type Samples } from '../../traces/own-samples';
import { findStuck, neverMoved, type Stuck } from '../../traces/stuck';
import { columnOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { fittedChange } from './held-change';

const { hypot, max, min, sqrt } = Math;

const ids = ['reverse-leak'] as const;
/** Left off at the start of each wait, s. */
const settling = 0.8;
/** Each wait is read from as many samples at least. */
const fewest = 3;
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

/** A valve with the source side shut, then open to the air, as far as the trace shows it; times in s, vacuums in Pa. */
interface TwoWaitsFound {
  readonly supply: Samples;
  readonly neverMoved: boolean;
  readonly stuck: Stuck | null;
  readonly end: number;
  /** Vacuum at the beginning. */
  readonly start: number;
  readonly opened: SideOpened;
}

/** Two waits one after the other: with the source side shut, then open to the air; s. */
interface TwoWaits {
  readonly supply: Samples;
  readonly opened: number;
  readonly end: number;
  readonly level: number;
}

/** What the source side's own gauge shows of its being opened to the air. */
type SideOpened =
  | { readonly kind: 'seen'; readonly at: number }
  /** Nobody recorded it: taken to be what the trace ends with. */
  | { readonly kind: 'assumed'; readonly at: number }
  | { readonly kind: 'never'; readonly lowest: number };

/** When the source side was opened to the air: the last fall of `source_vacuum` to next to nothing. */
function sideOpened(trace: Trace, level: number, seconds: number): SideOpened {
  const column = columnOf(trace, 'source_vacuum');
  if (!column) return { kind: 'assumed', at: trace.time[trace.time.length - 1] - seconds };
  const { time, value } = ownSamples(trace, column);
  const lowest = value.reduce((least, each) => min(least, each), Infinity);
  if (lowest > openBelow * level) return { kind: 'never', lowest };
  let at = value.length - 1;
  if (value[at] > openBelow * level) return { kind: 'never', lowest: value[at] };
  while (at > 0 && value[at - 1] <= openBelow * level) at--;
  return { kind: 'seen', at: time[at] };
}

function findTwoWaits(trace: Trace, context: StepContext<unknown>, seconds: number): TwoWaitsFound | NoEvidence {
  const column = columnOf(trace, 'supply_vacuum');
  if (!column) return noEvidence({ code: 'supply-missing' });
  const supply = ownSamples(trace, column);
  const { time } = supply;
  const start = meanOf(samplesBetween(supply, time[0], time[0] + settling));
  return {
    supply,
    neverMoved: neverMoved(supply),
    stuck: findStuck(supply, context.instruments.get('supply_vacuum')?.range ?? null),
    end: time[time.length - 1],
    start,
    opened: sideOpened(trace, start, seconds),
  };
}

/** A trace that begins without vacuum: there never was any, or it came later. */
function withoutVacuum({ supply, start }: TwoWaitsFound): AnalysisProblem {
  const highest = supply.value.reduce((most, each) => max(most, each), 0);
  return highest < noVacuum
    ? { code: 'source-never-opened', vacuum: max(0, highest) }
    : { code: 'begins-without-vacuum', vacuum: max(0, start), later: highest };
}

/** Whether a trace shows a valve that was first shut off and then had the air behind it. */
function twoWaits(found: TwoWaitsFound, seconds: number): Judged<TwoWaits> {
  const { supply, end, start, opened, stuck } = found;
  const begin = supply.time[0];
  if (found.neverMoved) return noEvidence({ code: 'gauge-never-moved', channel: 'supply_vacuum' });
  if (start < noVacuum) return noEvidence(withoutVacuum(found));
  if (opened.kind === 'never') return noEvidence({ code: 'side-not-opened', vacuum: opened.lowest });
  const { at } = opened;
  const shortest = min(at - begin, end - at);
  if (shortest < leastShare * seconds - settling)
    return noEvidence({ code: 'hold-too-short', seconds: max(0, shortest), needed: seconds });
  const left = meanOf(samplesBetween(supply, at, at + settling));
  if (!(left >= leastLeft * start)) return noEvidence({ code: 'vacuum-gone', vacuum: left });
  if (stuck && stuck.to > at - seconds) return noEvidence(stuckProblem(stuck, 'supply_vacuum'));
  const doubts: AnalysisProblem[] = opened.kind === 'assumed' ? [{ code: 'side-not-seen-open' }] : [];
  return evidence({ supply, opened: at, end, level: left }, [], doubts);
}

/**
 * What leaks back through a check valve (Pa over `seconds`): the loss with the source side open to the air less the loss
 * with it shut off before, so that a leak of the unit itself does not count. Channels `supply_vacuum`, and `source_vacuum`,
 * which shows the source side being opened.
 */
export function analyseCheckValve(trace: Trace, context: StepContext<unknown>, seconds: number): Answered {
  return answer(checkValve(seconds), trace, context);
}

const checkValve = (seconds: number): Question<StepContext<unknown>, TwoWaitsFound, TwoWaits> => ({
  characteristics: ids,
  happened: (trace, context) => findTwoWaits(trace, context, seconds),
  shows: (found) => twoWaits(found, seconds),
  comesTo: (shown, context) => reverseLeak(shown, context, seconds),
});

/** Air that comes in is squeezed and warm until its shell takes the heat: it stands for so much more than it is, one sigma, as a share. */
const filling = 0.015;

function reverseLeak(waits: Evidence<TwoWaits>, context: StepContext<unknown>, seconds: number): StepAnalysis {
  const { supply, opened, end, level } = waits;
  // A leak that takes much of the vacuum slows down: its fall is read off the decay, not off a line.
  const part = (from: number, to: number) => {
    const samples = samplesBetween(supply, from, to);
    return samples.time.length < fewest ? null : fittedChange(samples, seconds, 0);
  };
  const shut = part(max(supply.time[0], opened - seconds) + settling, opened - settling / 2);
  const vented = part(opened + settling, min(end, opened + seconds));
  if (!shut || !vented) return nothingMeasured(ids, { code: 'fit-failed', termination: 'too-few-points' });
  const value = vented.value - shut.value;
  const instrument = context.instruments.get('supply_vacuum');
  const scatter = scatterOf(supply);
  const division = divisionOf(supply);
  const resolution = max(instrument?.resolution ?? 0, scatter < division ? division : 0);
  const components = [
    random('fit', hypot(shut.standard, vented.standard)),
    differenceResolution({ resolution: scatter < resolution ? resolution : 0 }),
    systematic('gas-heat', ((context.ambient.pressure - level) * warming) / context.airTemperature / sqrt(3)),
    systematic('gas-heat', filling * value),
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
