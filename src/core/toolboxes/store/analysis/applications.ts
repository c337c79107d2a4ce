import { expandedUncertainty, random, readingComponents } from '../../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { Characteristic, MeasuredStroke } from '../../../procedure/step-analysis';
import type { PredictedStaircase } from '../../../procedure/expected';
import type { StepContext } from '../../../procedure/step-context';
import { beyond, measured } from '../../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../../procedure/evidence';
import { answer, joinAnswers, type Answered, type Question } from '../../../procedure/question';
import { findStrokes } from '../../../traces/strokes';
import { advanceAccumulator, settledAccumulator } from '../../../physics/gas-accumulator';
import { levelAt } from './precharge-analysis';
import { accumulatorOf, type StoreCircuit, type StoreUnit } from '../model/store-unit';

/** Strokes follow each other by this, s, unless the log says otherwise; the fluid is taken over this long, s. */
export const strokeSpacing = 10;
const takenOver = 0.5;
const mostStrokes = 60;
/** A stroke moves fluid; between strokes there is only heat, which is advanced exactly, and a slow leak. s */
const strokeStep = 0.05;
const restStep = 0.5;

export interface StrokesFrom {
  /** Gauge pressure at which the store has settled before the first stroke, Pa. */
  readonly pressure: number;
  /** Pa absolute */
  readonly ambient: number;
  /** K */
  readonly environment: number;
  /** Precharge, Pa gauge at 20 °C; the sheet's where nothing was measured. */
  readonly precharge: number;
  readonly spacing: number;
}

/** Pressures (Pa gauge) before and after each stroke with the pump off, until one ends below the least useful pressure. */
export function predictApplications(
  store: StoreUnit,
  from: StrokesFrom,
): readonly { readonly before: number; readonly after: number; readonly useful: boolean }[] {
  const { ambient } = from;
  const spec = accumulatorOf({ ...store, precharge: from.precharge }, ambient);
  const state = settledAccumulator(spec, from.pressure + ambient, from);
  const strokes: { before: number; after: number; useful: boolean }[] = [];
  const leak = store.internalLeak / store.cutOut;
  const pass = (seconds: number, taken: number, step: number) => {
    for (let t = 0; t < seconds - 1e-9; t += step)
      advanceAccumulator(spec, state, step, -(taken * step) / seconds - leak * (state.pressure - ambient) * step, from);
  };
  while (strokes.length < mostStrokes) {
    const before = state.pressure - ambient;
    pass(takenOver, store.fluidPerApplication, strokeStep);
    const after = state.pressure - ambient;
    const useful = after >= store.leastUseful;
    strokes.push({ before, after, useful });
    if (!useful) break;
    pass(from.spacing - takenOver, 0, restStep);
  }
  return strokes;
}

/** Strokes that count, from the first. */
export function usefulCount(strokes: readonly { readonly useful: boolean }[]): number {
  const lost = strokes.findIndex((stroke) => !stroke.useful);
  return lost < 0 ? strokes.length : lost;
}

function strokesFrom<Unit>(circuit: StoreCircuit<Unit>, context: StepContext<Unit>, pressure: number): StrokesFrom {
  const store = circuit.storeOf(context.unit);
  return {
    pressure,
    ambient: context.ambient.pressure,
    environment: context.airTemperature,
    precharge: store.precharge,
    spacing: strokeSpacing,
  };
}

/** The staircase of a sound store from cut-out: pressure after each stroke. */
export function storeStaircase<Unit>(circuit: StoreCircuit<Unit>, context: StepContext<Unit>): PredictedStaircase {
  const store = circuit.storeOf(context.unit);
  const strokes = predictApplications(store, strokesFrom(circuit, context, store.cutOut));
  return {
    strokes: strokes.map(({ before, after, useful }) => ({ output: after, vacuum: before, assisted: useful })),
    threshold: store.leastUseful,
    of: 'store',
  };
}

/** Strokes drawn from a store: the pressure held at the end of each and before it, Pa gauge. */
interface StrokesFound {
  readonly strokes: readonly MeasuredStroke[];
  readonly before: readonly number[];
}

function findApplications<Unit>(trace: Trace, circuit: StoreCircuit<Unit>, lever: string): StrokesFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  const pulled = columnOf(trace, lever);
  if (!column || !pulled) return noEvidence({ code: 'channel-missing', channel: column ? lever : circuit.pressure });
  const held = findStrokes(trace, pulled);
  return {
    strokes: held.map(({ from, to }): MeasuredStroke => {
      const late = Math.max(from, indexAtTime(trace, trace.time[to - 1] - 0.4));
      return { output: meanOf(column, late, to).mean, vacuum: Number.NaN, time: trace.time[from] };
    }),
    before: held.map(({ from }) => meanOf(column, indexAtTime(trace, trace.time[from] - restBefore), from).mean),
  };
}

/** Whether strokes are a count: something was stored, and no pump filled it meanwhile. */
function applicationsEvidence<Unit>(
  found: StrokesFound,
  circuit: StoreCircuit<Unit>,
  store: StoreUnit,
  lever: string,
): Judged<StrokesFound> {
  const { strokes, before } = found;
  const channel = circuit.pressure;
  if (strokes.length === 0) return noEvidence({ code: 'no-strokes', channel: lever }, { strokes });
  const needed = anythingShare * store.cutOut;
  if (before[0] < needed)
    return noEvidence({ code: 'too-little-pressure', channel, pressure: before[0], needed }, { strokes });
  const pumped = strokes.some((_, at) => at > 0 && before[at] - strokes[at - 1].output > pumpedShare * store.cutOut);
  return pumped ? noEvidence({ code: 'pump-ran-between', channel }, { strokes }) : evidence(found);
}

/**
 * Useful applications of a charge with the pump off, counted from the first stroke: the one that ends below the least
 * useful pressure does not count. And, where a lamp is asked about, the pressure at which it comes on. Channels: the lever's, the
 * circuit's pressure, its lamp.
 */
export function analyseApplications<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
  how: { readonly lever: string; readonly lampId: LampId | null },
): Answered {
  const store = circuit.storeOf(context.unit);
  const count: Question<StepContext<Unit>, StrokesFound, StrokesFound> = {
    characteristics: [`assisted-applications${circuit.place}`],
    happened: (read) => findApplications(read, circuit, how.lever),
    shows: (found) => applicationsEvidence(found, circuit, store, how.lever),
    comesTo: (shown) => ({
      characteristics: [countOf(shown, circuit, context)],
      events: [],
      notes: [],
      strokes: shown.strokes,
    }),
  };
  const counted = answer(count, trace, context);
  return how.lampId === null
    ? counted
    : joinAnswers([counted, answer(lampQuestion(circuit, how.lampId), trace, context)]);
}

function countOf<Unit>(
  { strokes, before }: Evidence<StrokesFound>,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Characteristic {
  const id = `assisted-applications${circuit.place}` as const;
  const store = circuit.storeOf(context.unit);
  const instrument = context.instruments.get(circuit.pressure);
  const lost = strokes.findIndex((stroke) => stroke.output < store.leastUseful);
  const count = lost < 0 ? strokes.length : lost;
  const doubt = instrument
    ? expandedUncertainty({ value: 0, components: readingComponents(instrument, store.leastUseful, context.date) })
    : 0;
  const close = strokes.some((stroke) => Math.abs(stroke.output - store.leastUseful) < doubt);
  const components = close ? [random('counting', 0.5)] : [];
  if (lost < 0) return beyond(id, 'above', { value: count, components }, { code: 'store-not-used-up', strokes: count });
  // From less than a full store there are at least so many.
  if (before[0] < fullShare * store.cutOut)
    return beyond(
      id,
      'above',
      { value: count, components },
      { code: 'store-not-full', pressure: before[0], full: store.cutOut },
    );
  return measured(id, count, components);
}

/** Pressure before a stroke is the mean of so long, s. */
const restBefore = 0.6;
/** A store counts as full from this share of cut-out on, and as empty below that. */
const fullShare = 0.9;
const anythingShare = 0.2;
/** A pressure that rises by more than this share of cut-out between two strokes was pumped up: the gas alone warms by less. */
const pumpedShare = 0.06;

export type LampId = 'lamp-pressure' | 'lamp-pressure@2' | 'alarm-pressure';

/** A lamp's signal beside a store's pressure (Pa gauge): the sample at which it comes on, null where it never does. */
interface LampFound {
  readonly trace: Trace;
  readonly column: Float64Array;
  readonly lit: number | null;
  readonly lowest: number;
}

function findLamp<Unit>(trace: Trace, circuit: StoreCircuit<Unit>): LampFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  const lamp = columnOf(trace, circuit.lamp);
  if (!lamp) return noEvidence({ code: 'channel-missing', channel: circuit.lamp });
  let at = 1;
  while (at < lamp.length && !(lamp[at] > 0.5 && lamp[at - 1] <= 0.5)) at++;
  const lowest = column.reduce((least, value) => (value < least ? value : least), Infinity);
  return { trace, column, lit: at < lamp.length ? at : null, lowest };
}

function lampQuestion<Unit>(circuit: StoreCircuit<Unit>, id: LampId) {
  const question: Question<StepContext<Unit>, LampFound, LampFound & { readonly at: number }> = {
    characteristics: [id],
    happened: (trace) => findLamp(trace, circuit),
    shows: (found) =>
      found.lit === null
        ? noEvidence({ code: 'lamp-never-lit', down: found.lowest })
        : evidence({ ...found, at: found.lit }),
    comesTo: ({ trace, column, at }, context) => {
      const half = Math.max(1, Math.round(0.03 / sampleInterval(trace)));
      const { mean, deviation } = meanOf(column, Math.max(0, at - half), at + half);
      const instrument = context.instruments.get(circuit.pressure);
      // The pressure falls quickly within a stroke: what it moves while the lamp's signal comes counts.
      return { characteristics: [levelAt(id, mean, instrument, context, deviation)], events: [], notes: [] };
    },
  };
  return question;
}
