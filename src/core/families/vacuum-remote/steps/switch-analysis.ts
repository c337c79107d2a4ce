import { differenceComponents, random, systematic, type UncertaintyComponent } from '../../../instruments/uncertainty';
import { findPull, isPull, type Pull } from '../../../traces/pull';
import { columnOf, sampleInterval, type Trace } from '../../../traces/trace';
import { noiseOf } from '../../../traces/smoothing';
import type { CharacteristicId } from '../../../quantities/characteristics';
import { evidence, noEvidence, type NoEvidence } from '../../../procedure/evidence';
import { answer, type Answered, type Question } from '../../../procedure/question';
import type { TraceEvent } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { absent, beyond, measured } from '../../../procedure/analysis-result';

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

/** A switch beside the pressure that works it; indices of samples, −1 where it never did. */
interface SwitchFound {
  readonly trace: Trace;
  readonly pull: Pull;
  readonly closes: number;
  readonly opens: number;
}

function findSwitch(trace: Trace): SwitchFound | NoEvidence {
  const input = columnOf(trace, 'input_pressure');
  const state = columnOf(trace, 'stop_switch');
  if (!input || !state) return noEvidence({ code: 'no-pull', channel: 'input_pressure' });
  const pull = findPull(trace, input);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: 'input_pressure' });
  const keep = Math.max(1, Math.round(debounce / sampleInterval(trace)));
  const closes = firstSettled(state, 1, { from: 0, to: pull.wayBack.to, keep });
  const opens = firstSettled(state, 0, { from: Math.max(closes, pull.plateau.from), to: state.length, keep });
  return { trace, pull, closes, opens };
}

const switchQuestion: Question<StepContext<unknown>, SwitchFound, SwitchFound> = {
  characteristics: ids,
  happened: findSwitch,
  shows: (found) =>
    found.closes >= 0 && found.closes <= found.pull.restBefore.from
      ? noEvidence({ code: 'switch-always-closed' })
      : evidence(found),
  comesTo: ({ trace, pull, closes, opens }, context) => {
    const zero = pull.zero ?? 0;
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
    const at = (id: CharacteristicId, index: number) =>
      measured(id, pull.smooth[index] - zero, pressureParts(trace, context, pull, index));
    const event = (id: 'switch-closes' | 'switch-opens', index: number): TraceEvent => ({
      id,
      time: trace.time[index],
      y: pull.smooth[index] - zero,
    });
    return {
      characteristics: [
        at('switch-close-pressure', closes),
        opens < 0 ? absent('switch-open-pressure', { code: 'switch-never-opened' }) : at('switch-open-pressure', opens),
      ],
      events: [event('switch-closes', closes), ...(opens < 0 ? [] : [event('switch-opens', opens)])],
      notes: [],
    };
  },
};

/**
 * Closing and opening pressure (Pa gauge, above the rest before) of a hydraulic stop-lamp switch from one
 * slow pull: channels `input_pressure`, `stop_switch`. A switch that never closes is `beyond` the peak.
 */
export function analyseStopLampSwitch(trace: Trace, context: StepContext<unknown>): Answered {
  return answer(switchQuestion, trace, context);
}
