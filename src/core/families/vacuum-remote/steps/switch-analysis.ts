import { differenceComponents, random, systematic, type UncertaintyComponent } from '../../../instruments/uncertainty';
import { findPull, isPull, type Pull } from '../../../traces/pull';
import { columnOf, sampleInterval, type Trace } from '../../../traces/trace';
import { noiseOf } from '../../../traces/smoothing';
import type { CharacteristicId } from '../../../quantities/characteristics';
import type { Characteristic, StepAnalysis, TraceEvent } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { beyond, measured, nothingMeasured, absent } from '../../../procedure/analysis-result';

const ids: readonly CharacteristicId[] = ['switch-close-pressure', 'switch-open-pressure'];

/** Lag of a gauge of which nothing is recorded, one sigma, s. */
const unknownLag = 0.05;
/** A change of state must last this long to count: contacts bounce. s */
const debounce = 0.02;

/** First index in [from, to) at which `column` takes `state` and keeps it for the debounce time; −1 if never. */
function firstSettled(column: Float64Array, state: 0 | 1, span: { from: number; to: number; keep: number }): number {
  const is = (i: number) => (column[i] >= 0.5 ? 1 : 0) === state;
  for (let i = span.from; i < span.to; i++) {
    if (Number.isNaN(column[i]) || !is(i)) continue;
    let lasts = true;
    for (let k = i; k < Math.min(column.length, i + span.keep) && lasts; k++) lasts = Number.isNaN(column[k]) || is(k);
    if (lasts) return i;
  }
  return -1;
}

function pressureParts(trace: Trace, context: StepContext<unknown>, pull: Pull, index: number): UncertaintyComponent[] {
  const input = trace.columns.input_pressure;
  const instrument = context.instruments.get('input_pressure');
  const near = Math.min(pull.smooth.length - 2, Math.max(1, index));
  // One sample of travel of the lever is not resolved.
  const travel = Math.abs(pull.smooth[near + 1] - pull.smooth[near - 1]) / 2;
  const seconds = (trace.time[near + 1] - trace.time[near - 1]) / 2;
  const late = seconds > 0 ? (travel / seconds) * (instrument?.lagSeconds ?? unknownLag) : 0;
  const parts = [
    random('noise', noiseOf(input) / 3),
    random('timing', travel / Math.sqrt(12)),
    // The lamp is read at once, the pressure as late as its gauge is.
    systematic('timing', late),
  ];
  if (!instrument) return parts;
  return [
    ...parts,
    random('resolution', instrument.resolution / Math.sqrt(12)),
    ...differenceComponents(instrument, 0, pull.smooth[index], context.date),
  ];
}

/**
 * Closing and opening pressure (Pa gauge, above the rest before) of a hydraulic stop-lamp switch from one
 * slow pull: channels `input_pressure`, `stop_switch`. A switch that never closes is `beyond` the peak.
 */
export function analyseStopLampSwitch(trace: Trace, context: StepContext<unknown>): StepAnalysis {
  const input = columnOf(trace, 'input_pressure');
  const state = columnOf(trace, 'stop_switch');
  if (!input || !state) return nothingMeasured(ids, { code: 'no-pull', channel: 'input_pressure' });
  const pull = findPull(trace, input);
  if (!isPull(pull)) return nothingMeasured(ids, { code: 'no-pull', channel: 'input_pressure' });
  const keep = Math.max(1, Math.round(debounce / sampleInterval(trace)));
  const zero = pull.zero ?? 0;
  const end = pull.wayBack.to;
  const closes = firstSettled(state, 1, { from: 0, to: end, keep });
  if (closes < 0) {
    const bound = { value: pull.peak - zero, components: pressureParts(trace, context, pull, pull.plateau.from) };
    const problem = { code: 'switch-never-closed', peak: bound.value } as const;
    return {
      characteristics: [
        beyond('switch-close-pressure', 'above', bound, problem),
        absent('switch-open-pressure', problem),
      ],
      events: [],
      notes: [],
    };
  }
  if (closes <= pull.restBefore.from) return nothingMeasured(ids, { code: 'switch-always-closed' });
  const characteristics: Characteristic[] = [
    measured('switch-close-pressure', pull.smooth[closes] - zero, pressureParts(trace, context, pull, closes)),
  ];
  const events: TraceEvent[] = [{ id: 'switch-closes', time: trace.time[closes], y: pull.smooth[closes] - zero }];
  const opens = firstSettled(state, 0, { from: Math.max(closes, pull.plateau.from), to: state.length, keep });
  if (opens < 0) characteristics.push(absent('switch-open-pressure', { code: 'switch-never-opened' }));
  else {
    characteristics.push(
      measured('switch-open-pressure', pull.smooth[opens] - zero, pressureParts(trace, context, pull, opens)),
    );
    events.push({ id: 'switch-opens', time: trace.time[opens], y: pull.smooth[opens] - zero });
  }
  return { characteristics, events, notes: [] };
}
