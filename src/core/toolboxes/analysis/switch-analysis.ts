import { differenceComponents, random, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { findPull, isPull, type Pull } from '../../traces/pull';
import { columnOf, sampleInterval, type Trace } from '../../traces/trace';
import { noiseOf } from '../../traces/smoothing';
import type { CharacteristicId } from '../../quantities/characteristics';
import { evidence, noEvidence, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic, TraceEvent } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, beyond, measured } from '../../procedure/analysis-result';

/** What works a switch, and where what is read of it goes. */
export interface SwitchWorked {
  /** Channel of what works it, SI: a pressure, a travel. */
  readonly by: string;
  readonly closes: CharacteristicId;
  /** Null where nobody asks where it opens again. */
  readonly opens: CharacteristicId | null;
  /** What it says that it is closed before anything works it: nothing, for its wire may be; or that it is set too tight. */
  readonly closedAtRest: 'says-nothing' | 'too-tight';
}

const idsOf = ({ closes, opens }: SwitchWorked): readonly CharacteristicId[] =>
  opens === null ? [closes] : [closes, opens];

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

function readingParts(
  trace: Trace,
  by: string,
  context: StepContext<unknown>,
  pull: Pull,
  index: number,
): UncertaintyComponent[] {
  const input = trace.columns[by];
  const instrument = context.instruments.get(by);
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
  /** Whether it ever goes open while it is worked. */
  readonly opensPressed: boolean;
}

function findSwitch(trace: Trace, by: string): SwitchFound | NoEvidence {
  const input = columnOf(trace, by);
  const state = columnOf(trace, 'stop_switch');
  if (!input || !state) return noEvidence({ code: 'no-pull', channel: by });
  const pull = findPull(trace, input);
  if (!isPull(pull)) return noEvidence({ code: 'no-pull', channel: by });
  const keep = Math.max(1, Math.round(debounce / sampleInterval(trace)));
  const closes = firstSettled(state, 1, { from: 0, to: pull.wayBack.to, keep });
  const opens = firstSettled(state, 0, { from: Math.max(closes, pull.plateau.from), to: state.length, keep });
  const { restBefore, plateau } = pull;
  const restedClosed = state[Math.max(0, restBefore.to - 1)] >= 0.5;
  const opensPressed = restedClosed && firstSettled(state, 0, { from: restBefore.to, to: plateau.to, keep }) >= 0;
  return { trace, pull, closes, opens, opensPressed };
}

const isClosedAtRest = ({ closes, pull }: Pick<SwitchFound, 'closes' | 'pull'>) =>
  closes >= 0 && closes <= pull.restBefore.from;

const switchQuestion = (worked: SwitchWorked): Question<StepContext<unknown>, SwitchFound, SwitchFound> => ({
  characteristics: idsOf(worked),
  happened: (trace) => findSwitch(trace, worked.by),
  shows: (found) => {
    if (!isClosedAtRest(found)) return evidence(found);
    if (found.opensPressed) return noEvidence({ code: 'switch-opens-when-pressed' });
    return worked.closedAtRest === 'says-nothing' ? noEvidence({ code: 'switch-always-closed' }) : evidence(found);
  },
  comesTo: ({ trace, pull, closes, opens }, context) => {
    const zero = pull.zero ?? 0;
    const parts = (index: number) => readingParts(trace, worked.by, context, pull, index);
    const opening = (found: (id: CharacteristicId) => Characteristic) =>
      worked.opens === null ? [] : [found(worked.opens)];
    // Closed before anything works it: it closes below nothing.
    if (isClosedAtRest({ closes, pull })) {
      const problem = { code: 'switch-always-closed' } as const;
      const bound = { value: 0, components: parts(pull.restBefore.from) };
      return {
        characteristics: [beyond(worked.closes, 'below', bound, problem), ...opening((id) => absent(id, problem))],
        events: [],
        notes: [],
      };
    }
    if (closes < 0) {
      const bound = { value: pull.peak - zero, components: parts(pull.plateau.from) };
      const problem = { code: 'switch-never-closed', peak: bound.value } as const;
      return {
        characteristics: [beyond(worked.closes, 'above', bound, problem), ...opening((id) => absent(id, problem))],
        events: [],
        notes: [],
      };
    }
    const at = (id: CharacteristicId, index: number) => measured(id, pull.smooth[index] - zero, parts(index));
    const event = (id: 'switch-closes' | 'switch-opens', index: number): TraceEvent => ({
      id,
      time: trace.time[index],
      y: pull.smooth[index] - zero,
    });
    return {
      characteristics: [
        at(worked.closes, closes),
        ...opening((id) => (opens < 0 ? absent(id, { code: 'switch-never-opened' }) : at(id, opens))),
      ],
      events: [event('switch-closes', closes), ...(opens < 0 ? [] : [event('switch-opens', opens)])],
      notes: [],
    };
  },
});

/**
 * Where a stop-lamp switch closes and opens again (SI of what works it, above the rest before) in one slow pull: that channel and
 * `stop_switch`. A switch that never closes is `beyond` the peak, one that is closed at rest below nothing.
 */
export function analyseStopLampSwitch(worked: SwitchWorked, trace: Trace, context: StepContext<unknown>): Answered {
  return answer(switchQuestion(worked), trace, context);
}
