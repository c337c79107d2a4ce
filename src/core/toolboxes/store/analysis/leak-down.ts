import { fitLine } from '../../../fitting/line';
import { differenceComponents, random, systematic } from '../../../instruments/uncertainty';
import { ownSamples } from '../../../traces/own-samples';
import { neverMoved } from '../../../traces/stuck';
import { columnOf, meanOf, type Trace } from '../../../traces/trace';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../../procedure/evidence';
import { answer, type Answered, type Question } from '../../../procedure/question';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { beyond, measured, nothingMeasured } from '../../../procedure/analysis-result';
import { leakDownCoordinate, prechargeTemperature } from '../../../physics/gas-law';
import type { StoreCircuit } from '../model/store-unit';

/** The gas has cooled after this many time constants. */
const cooled = 4;
const leastSeconds = 300;
/** Below this share of its precharge's pressure a store has collapsed: what follows is lines emptying. */
const collapsedShare = 1.04;
/** Volume and precharge of the sheet are good to about these shares. */
const volumeShare = 0.02;
const sheetPrechargeShare = 0.06;
/** Lines hold up to this share of what the gas gives up. */
const linesShare = 0.006;
/** Air that nobody measured over the hours may have moved by about this, K. */
const airMayMove = 1.5;

/** With fewer readings nobody can tell that a gauge stood still; a soak begins from this share of cut-out at least. */
const fewestSeen = 10;
const leastStored = 0.4;

/** Readings of a soak that may be judged: from where the gas has cooled to where the store is empty, Pa absolute. */
interface SoakFound {
  readonly time: readonly number[];
  readonly pressure: readonly number[];
  /** An air temperature was recorded, and each reading is restated to that of the first. */
  readonly restated: boolean;
  /** Seconds for which the gauge stood at one figure from first to last; null where it moved. */
  readonly stood: number | null;
}

/** Pressure (Pa absolute) below which a store has collapsed, by the precharge found or the sheet's. */
function gasOf<Unit>(circuit: StoreCircuit<Unit>, context: StepContext<Unit>) {
  const store = circuit.storeOf(context.unit);
  const found = context.corrections.precharge[circuit.suffix];
  const precharge = (found?.value ?? store.precharge) + context.ambient.pressure;
  return { store, found, amount: (precharge * context.airTemperature) / prechargeTemperature };
}

function findSoak<Unit>(trace: Trace, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): SoakFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  const { store, amount } = gasOf(circuit, context);
  const ambient = context.ambient.pressure;
  const air = columnOf(trace, 'air_temperature');
  // A log of a soak is read from when the gas has cooled; typed readings begin there.
  const skip = trace.time.length > 20 ? cooled * store.timeConstant : 0;
  let from = 0;
  while (from < trace.time.length && trace.time[from] - trace.time[0] < skip) from++;
  const time: number[] = [];
  const pressure: number[] = [];
  for (let i = from; i < column.length; i++) {
    if (Number.isNaN(column[i])) continue;
    if (column[i] + ambient < amount * collapsedShare) break;
    time.push(trace.time[i]);
    pressure.push(((column[i] + ambient) * (air ? air[from] : 1)) / (air ? air[i] : 1));
  }
  const own = ownSamples(trace, column);
  const stood = own.value.length > fewestSeen && neverMoved(own) ? own.time[own.time.length - 1] - own.time[0] : null;
  return { time, pressure, restated: air !== undefined, stood };
}

const spanOf = ({ time }: SoakFound) => (time.at(-1) ?? 0) - (time[0] ?? 0);

function soakEvidence<Unit>(
  found: SoakFound,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Judged<SoakFound> {
  const { pressure, stood } = found;
  if (stood !== null) return noEvidence({ code: 'gauge-never-moved', channel: circuit.pressure });
  const needed = leastStored * circuit.storeOf(context.unit).cutOut;
  const first = pressure[0] - context.ambient.pressure;
  // What is nearly empty has nothing to lose.
  if (pressure.length > 0 && first < needed)
    return noEvidence({ code: 'too-little-pressure', channel: circuit.pressure, pressure: first, needed });
  const span = spanOf(found);
  if (pressure.length < 2 || span < leastSeconds)
    return noEvidence({ code: 'soak-too-short', seconds: span, needed: leastSeconds });
  return evidence(found);
}

/**
 * Half-life of a store's gauge pressure from cut-out (s) and the oil it loses (m3/s, at the mean of the soak), from two
 * or more readings over hours. A leak in proportion to pressure falls on a straight line in `leakDownCoordinate`; where an
 * air temperature was recorded each reading is first restated to that of the first. What is found out for a later soak is the
 * oil lost at cut-out, m3/s.
 */
export function analyseLeakDown<Unit>(trace: Trace, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Answered {
  const question: Question<StepContext<Unit>, SoakFound, SoakFound> = {
    characteristics: [`half-life${circuit.place}`, `internal-leak-flow${circuit.place}`],
    happened: (read) => findSoak(read, circuit, context),
    shows: (found) => soakEvidence(found, circuit, context),
    comesTo: (shown) => leakDownOf(shown, circuit, context),
  };
  return answer(question, trace, context);
}

function leakDownOf<Unit>(
  shown: Evidence<SoakFound>,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): StepAnalysis {
  const ids = [`half-life${circuit.place}`, `internal-leak-flow${circuit.place}`] as const;
  const { time, pressure, restated: air } = shown;
  const { store, found: precharge, amount } = gasOf(circuit, context);
  const ambient = context.ambient.pressure;
  const span = spanOf(shown);
  const coordinate = pressure.map((value) => leakDownCoordinate(value, ambient));
  const few = time.length < 3;
  const line = few ? null : fitLine(time, coordinate);
  if (line && line.termination !== 'converged')
    return nothingMeasured(ids, { code: 'fit-failed', termination: line.termination });
  const slope = line ? line.slope : (coordinate[1] - coordinate[0]) / span;
  const kappa = -slope;
  const fitShare = line ? Math.sqrt(line.slopeVariance) / Math.abs(slope) : 0;
  const freedom = line ? line.freedom : undefined;
  const ends = { high: meanAt(pressure, 0), low: meanAt(pressure, pressure.length - 1) };
  const lost = ends.high - ends.low;
  const instrument = context.instruments.get(circuit.pressure);
  const gauge = instrument
    ? Math.hypot(
        ...differenceComponents(instrument, ends.low, ends.high, context.date).map((part) => part.standard),
        (instrument.resolution * Math.SQRT2) / Math.sqrt(12),
      )
    : 0;
  const drift = air ? 0 : (ends.low * airMayMove) / context.airTemperature;
  const amountShare = Math.hypot(
    volumeShare,
    precharge ? precharge.standard / (precharge.value + ambient) : sheetPrechargeShare,
  );
  const gas = amount * store.volume;
  const flow = (gas * (1 / ends.low - 1 / ends.high)) / span;
  const perLost = lost > 0 ? 1 / lost : Infinity;
  const leakStandard = (gas / (ends.low * ends.high) / span) * Math.hypot(gauge, drift);
  const leakParts = [
    random('fit', Math.abs(flow) * fitShare, freedom),
    random('noise', leakStandard),
    systematic('volume', flow * amountShare),
  ];
  const leak = measured(ids[1], flow, leakParts);
  // Two soaks are compared at one pressure: the leak is in proportion to it.
  const full = gas * kappa * store.cutOut;
  const atCutOut =
    leak.kind === 'measured' && flow > 0
      ? { value: full, standard: (full / flow) * Math.hypot(...leakParts.map((part) => part.standard)) }
      : null;
  const floor = Math.max(store.cutOut / 2, precharge?.value ?? store.precharge) + ambient;
  const needed = leakDownCoordinate(store.cutOut + ambient, ambient) - leakDownCoordinate(floor, ambient);
  const seconds = needed / kappa;
  const doubt = seconds * Math.hypot(fitShare, Math.hypot(gauge, drift) * perLost);
  const problem = { code: 'nothing-lost', seconds: span } as const;
  const bound = needed / ((kappa * 2 * Math.hypot(gauge, drift)) / Math.max(lost, 1) + Math.max(0, kappa));
  const halfLife =
    kappa > 0 && lost > 2 * Math.hypot(gauge, drift)
      ? measured(ids[0], seconds, [
          random('fit', seconds * fitShare, freedom),
          random('noise', Math.min(doubt, seconds)),
          // Lines and hoses give way too, and they follow another law than the gas.
          systematic('model', seconds * linesShare),
        ])
      : beyond(ids[0], 'above', { value: Number.isFinite(bound) && bound > 0 ? bound : span, components: [] }, problem);
  return {
    characteristics: [halfLife, leak],
    events: [],
    notes: [
      { code: 'leak-read-at', channel: circuit.pressure, pressure: (ends.high + ends.low) / 2 - ambient },
      ...(floor > store.cutOut / 2 + ambient
        ? [{ code: 'empty-before-half', precharge: floor - ambient } as const]
        : []),
    ],
    ...(atCutOut ? { corrections: { soakLeak: { [circuit.suffix]: atCutOut } } } : {}),
  };
}

/** Mean of a few readings at one end of many; of few, the reading itself. */
function meanAt(values: readonly number[], at: number): number {
  const count = Math.max(1, Math.min(25, Math.floor(values.length / 20)));
  const from = at === 0 ? 0 : values.length - count;
  return meanOf(Float64Array.from(values), from, from + count).mean;
}
