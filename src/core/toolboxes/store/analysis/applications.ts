import { expandedUncertainty, random, readingComponents } from '../../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { Characteristic, MeasuredStroke } from '../../../procedure/step-analysis';
import type { PredictedStaircase } from '../../../procedure/expected';
import type { StepContext } from '../../../procedure/step-context';
import { absent, measured } from '../../../procedure/analysis-result';
import { findStrokes } from '../../../traces/strokes';
import { advanceAccumulator, settledAccumulator } from '../../../physics/gas-accumulator';
import { levelAt, type CircuitAnalysis } from './precharge-analysis';
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

/**
 * Useful applications of a charge with the pump off, counted from the first stroke: the one that ends below the least
 * useful pressure does not count. And the pressure at which the lamp comes on. Channels: the lever's, the circuit's
 * pressure, its lamp.
 */
export function analyseApplications<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
  how: { readonly lever: string; readonly lampId: 'lamp-pressure' | 'lamp-pressure-2' | 'alarm-pressure' },
): CircuitAnalysis & { readonly strokes: readonly MeasuredStroke[] } {
  const countId = `assisted-applications${circuit.suffix}` as const;
  const column = columnOf(trace, circuit.pressure);
  const lever = columnOf(trace, how.lever);
  if (!column || !lever) {
    const problem = { code: 'channel-missing', channel: column ? how.lever : circuit.pressure } as const;
    return {
      characteristics: [absent(countId, problem), absent(how.lampId, problem)],
      events: [],
      notes: [],
      strokes: [],
    };
  }
  const store = circuit.storeOf(context.unit);
  const instrument = context.instruments.get(circuit.pressure);
  const held = findStrokes(trace, lever);
  const strokes = held.map(({ from, to }): MeasuredStroke => {
    const late = Math.max(from, indexAtTime(trace, trace.time[to - 1] - 0.4));
    return { output: meanOf(column, late, to).mean, vacuum: Number.NaN, time: trace.time[from] };
  });
  const characteristics: Characteristic[] = [];
  const before = held.map(({ from }) => meanOf(column, indexAtTime(trace, trace.time[from] - restBefore), from).mean);
  const spoiled = strokes.length === 0 ? null : spoiledBy(strokes, before, circuit, store);
  if (strokes.length === 0) characteristics.push(absent(countId, { code: 'no-strokes', channel: how.lever }));
  else if (spoiled) characteristics.push(absent(countId, spoiled));
  else {
    const lost = strokes.findIndex((stroke) => stroke.output < store.leastUseful);
    const count = lost < 0 ? strokes.length : lost;
    const doubt = instrument
      ? expandedUncertainty({ value: 0, components: readingComponents(instrument, store.leastUseful, context.date) })
      : 0;
    const close = strokes.some((stroke) => Math.abs(stroke.output - store.leastUseful) < doubt);
    const estimate = [...(close ? [random('counting', 0.5)] : [])];
    characteristics.push(
      lost < 0
        ? {
            kind: 'beyond',
            id: countId,
            side: 'above',
            bound: { value: count, components: estimate },
            problem: { code: 'store-not-used-up', strokes: count },
          }
        : before[0] < fullShare * store.cutOut
          ? // From less than a full store there are at least so many.
            {
              kind: 'beyond',
              id: countId,
              side: 'above',
              bound: { value: count, components: estimate },
              problem: { code: 'store-not-full', pressure: before[0], full: store.cutOut },
            }
          : measured(countId, count, estimate),
    );
  }
  characteristics.push(lampOf(trace, column, circuit, context, how.lampId));
  return { characteristics, events: [], notes: [], strokes };
}

/** Pressure before a stroke is the mean of so long, s. */
const restBefore = 0.6;
/** A store counts as full from this share of cut-out on, and as empty below that. */
const fullShare = 0.9;
const anythingShare = 0.2;
/** A pressure that rises by more than this share of cut-out between two strokes was pumped up: the gas alone warms by less. */
const pumpedShare = 0.06;

/** What keeps strokes from being a count: nothing was stored, or a pump filled it meanwhile. */
function spoiledBy<Unit>(
  strokes: readonly MeasuredStroke[],
  before: readonly number[],
  circuit: StoreCircuit<Unit>,
  store: StoreUnit,
): AnalysisProblem | null {
  const channel = circuit.pressure;
  if (before[0] < anythingShare * store.cutOut)
    return { code: 'too-little-pressure', channel, pressure: before[0], needed: anythingShare * store.cutOut };
  const pumped = strokes.some((_, at) => at > 0 && before[at] - strokes[at - 1].output > pumpedShare * store.cutOut);
  return pumped ? { code: 'pump-ran-between', channel } : null;
}

function lampOf<Unit>(
  trace: Trace,
  column: Float64Array,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
  id: 'lamp-pressure' | 'lamp-pressure-2' | 'alarm-pressure',
): Characteristic {
  const lamp = columnOf(trace, circuit.lamp);
  if (!lamp) return absent(id, { code: 'channel-missing', channel: circuit.lamp });
  let at = 1;
  while (at < lamp.length && !(lamp[at] > 0.5 && lamp[at - 1] <= 0.5)) at++;
  if (at >= lamp.length) {
    const lowest = column.reduce((least, value) => (value < least ? value : least), Infinity);
    return absent(id, { code: 'lamp-never-lit', down: lowest });
  }
  const half = Math.max(1, Math.round(0.03 / sampleInterval(trace)));
  const around = meanOf(column, Math.max(0, at - half), at + half);
  // The pressure falls quickly within a stroke: what it moves while the lamp's signal comes counts.
  return levelAt(id, around.mean, context.instruments.get(circuit.pressure), context, around.deviation);
}
