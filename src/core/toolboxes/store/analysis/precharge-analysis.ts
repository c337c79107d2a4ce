import { stuckProblem } from '../../../procedure/stuck-problem';
import {
  readingComponents,
  random,
  scaleComponents,
  systematic,
  expandedUncertainty,
} from '../../../instruments/uncertainty';
import { ownSamples } from '../../../traces/own-samples';
import { movingMean, noiseOf } from '../../../traces/smoothing';
import { findStuck, type Stuck } from '../../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { Characteristic, Found, StepAnalysis, TraceEvent } from '../../../procedure/step-analysis';
import { shellTemperature } from '../../../procedure/shell-temperature';
import type { StepContext } from '../../../procedure/step-context';
import { absent, beyond, measured } from '../../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../../procedure/evidence';
import { answer, joinAnswers, type Answered, type Question } from '../../../procedure/question';
import { prechargeTemperature, restatePrecharge } from '../../../physics/gas-law';
import { emptyShare, findKnee, type Knee } from './knee';
import { pumpRuns, signalEdges, stepAt, type PumpRun } from '../../../traces/pump-runs';
import type { StoreCircuit } from '../model/store-unit';

function kneeOf<Unit>(
  trace: Trace,
  span: { readonly from: number; readonly to: number },
  direction: 'charge' | 'bleed',
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Knee | AnalysisProblem {
  const store = circuit.storeOf(context.unit);
  const ambient = context.ambient.pressure;
  return findKnee({
    time: trace.time.subarray(span.from, span.to),
    pressure: trace.columns[circuit.pressure].subarray(span.from, span.to).map((value) => value + ambient),
    direction,
    ambient,
    environment: shellTemperature(context).value,
    timeConstant: store.timeConstant,
    pumped: pumpRuns(columnOf(trace, circuit.pump) ?? new Float64Array(0)),
    volume: store.volume,
    flow: store.pumpFlow,
  });
}

/** Precharge (Pa gauge at 20 °C) with its budget, from a knee. */
function prechargeOf<Unit>(knee: Knee, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Characteristic {
  const ambient = context.ambient.pressure;
  const gauge = knee.pressure - ambient;
  const value = restatePrecharge(gauge, knee.temperature, prechargeTemperature, ambient);
  const scale = prechargeTemperature / knee.temperature;
  const instrument = context.instruments.get(circuit.pressure);
  return measured(`precharge${circuit.place}`, value, [
    random('fit', knee.fitStandard * scale),
    random('timing', knee.timingStandard * scale),
    systematic('temperature', ((value + ambient) * shellTemperature(context).standard) / knee.temperature),
    systematic('gas-heat', (value + ambient) * knee.gasHeatShare),
    ...(instrument ? scaleComponents(readingComponents(instrument, gauge, context.date), scale) : []),
  ]);
}

/** A trace without any knee says that there is no gas: whatever precharge is wanted, this is below it. */
function withoutKnee(id: Characteristic['id'], problem: AnalysisProblem): StepAnalysis {
  const none = { value: 0, components: [] };
  const characteristic = problem.code === 'no-knee' ? beyond(id, 'below', none, problem) : absent(id, problem);
  return { characteristics: [characteristic], events: [], notes: [] };
}

const foundOf = (characteristic: Characteristic): Found | undefined =>
  characteristic.kind === 'measured'
    ? { value: characteristic.estimate.value, standard: expandedUncertainty(characteristic.estimate) / 2 }
    : undefined;

/** A charge as the trace shows it; indices of samples. */
interface ChargeFound {
  readonly trace: Trace;
  /** The pump's first run; undefined where nobody recorded it, or it never ran. */
  readonly run: PumpRun | undefined;
  readonly from: number;
  readonly to: number;
  readonly peak: number;
  readonly stuck: Stuck | null;
  /** What stood in the store before, Pa gauge. */
  readonly left: number;
  /** What the ends of a charge without the pump's own signal are not known by, s. */
  readonly doubt: number;
}

function findCharge<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): ChargeFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  const [run] = pumpRuns(columnOf(trace, circuit.pump) ?? new Float64Array(0));
  const rise = riseOf(trace, column);
  const from = run?.start ?? rise.from;
  const to = run?.stop ?? (run ? column.length : rise.to + 1);
  return {
    trace,
    run,
    from,
    to,
    peak: run && run.stop === null ? peakOf(trace, column) : Math.min(to, column.length - 1),
    stuck: findStuck(ownSamples(trace, column), context.instruments.get(circuit.pressure)?.range ?? null),
    left: leftBefore(trace, column, from),
    doubt: run ? 0 : rise.doubt,
  };
}

/** Whether a gauge followed a charge. */
function chargeEvidence(found: ChargeFound, channel: string): Judged<ChargeFound> {
  const { trace, run, stuck, from, to } = found;
  if (stuck && stuck.to > trace.time[from] && (!run || stuck.from < trace.time[Math.min(to, trace.time.length - 1)]))
    return noEvidence(stuckProblem(stuck, channel));
  return evidence(found);
}

/**
 * Precharge and charge time from a charge from empty: pump start to pump stop. Needs the circuit's pressure (Pa gauge);
 * without the pump's own signal the charge is taken from the pressure's rise to its peak.
 */
export function analyseCharge<Unit>(trace: Trace, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Answered {
  const asked = { happened: (read: Trace) => findCharge(read, circuit, context) };
  const precharge: Question<StepContext<Unit>, ChargeFound, ChargeFound> = {
    ...asked,
    characteristics: [`precharge${circuit.place}`],
    shows: (found) => {
      const judged = chargeEvidence(found, circuit.pressure);
      const top = found.trace.columns[circuit.pressure][found.peak];
      return judged.kind === 'evidence' && found.left > emptyShare * top
        ? noEvidence({ code: 'not-from-empty', left: found.left })
        : judged;
    },
    comesTo: ({ trace: read, from, to }) => {
      const knee = kneeOf(read, { from: Math.max(0, from - 2), to }, 'charge', circuit, context);
      if ('code' in knee) return withoutKnee(`precharge${circuit.place}`, knee);
      const characteristic = prechargeOf(knee, circuit, context);
      const found = foundOf(characteristic);
      return {
        characteristics: [characteristic],
        events: [
          { id: 'knee', time: knee.time, y: knee.pressure - context.ambient.pressure },
          { id: 'pump-stops', time: read.time[Math.min(to, read.time.length - 1)] },
        ],
        notes: shellTemperature(context).notes,
        ...(found ? { corrections: { precharge: { [circuit.suffix]: found } } } : {}),
      };
    },
  };
  const time: Question<StepContext<Unit>, ChargeFound, ChargeFound> = {
    ...asked,
    characteristics: [`charge-time${circuit.place}`],
    shows: (found) => chargeEvidence(found, circuit.pressure),
    comesTo: (shown) => ({
      characteristics: [chargeTime(shown, `charge-time${circuit.place}`)],
      events: [],
      notes: [],
    }),
  };
  return joinAnswers([answer(precharge, trace, context), answer(time, trace, context)]);
}

/** What stood in a store just before its charge began, Pa gauge; lines fill within a sample or two. */
function leftBefore(trace: Trace, column: Float64Array, from: number): number {
  const { mean, count } = meanOf(column, indexAtTime(trace, trace.time[from] - 1), from);
  return count > 0 ? mean : column[from];
}

function chargeTime({ trace, run, from, to, doubt }: Evidence<ChargeFound>, id: Characteristic['id']): Characteristic {
  const seconds = trace.time[Math.min(to, trace.time.length - 1)] - trace.time[from];
  if (run && run.stop === null)
    return beyond(id, 'above', { value: seconds, components: [] }, { code: 'pump-never-stopped-charging', seconds });
  return measured(id, seconds, [
    random('timing', sampleInterval(trace) / Math.sqrt(6)),
    systematic('timing', doubt > 0 ? doubt : signalEdges),
  ]);
}

/** A pressure that leaves its rest, or falls from its highest, does so by this share of the highest. */
const leaves = 0.01;

/** The first rise of a pressure from its rest to where it no longer rises, with what the noise leaves unknown of its ends (s). */
function riseOf(trace: Trace, column: Float64Array): { from: number; to: number; doubt: number } {
  const half = Math.max(1, Math.round(0.05 / sampleInterval(trace)));
  const smooth = movingMean(column, half);
  const least = Math.max(leaves * smooth[peakOf(trace, column)], (6 * noiseOf(column)) / Math.sqrt(2 * half + 1));
  let from = 0;
  while (from < smooth.length - 1 && !(smooth[from + 1] > smooth[0] + least)) from++;
  let to = from;
  for (let i = from; i < smooth.length && !(smooth[i] < smooth[to] - least); i++) if (smooth[i] > smooth[to]) to = i;
  const slope = (smooth[to] - smooth[from]) / Math.max(trace.time[to] - trace.time[from], Number.EPSILON);
  return { from, to, doubt: slope > 0 ? Math.hypot(0.1, (2 * least) / slope) : 0 };
}

function peakOf(trace: Trace, column: Float64Array): number {
  const smooth = movingMean(column, Math.max(1, Math.round(0.05 / sampleInterval(trace))));
  let peak = 0;
  for (let i = 1; i < smooth.length; i++) if (smooth[i] > smooth[peak]) peak = i;
  return peak;
}

/** Two precharges of one store differ by more than their uncertainties allow. */
function disagreement(found: Found | undefined, before: Found | undefined): AnalysisProblem[] {
  if (!found || !before) return [];
  const apart = found.value - before.value;
  return Math.abs(apart) > 2 * Math.hypot(found.standard, before.standard)
    ? [{ code: 'precharges-disagree', charging: before.value, bleeding: found.value }]
    : [];
}

/** A bleed as the trace shows it: the pump's runs on the way, null where nobody recorded them. */
interface BleedFound {
  readonly trace: Trace;
  readonly column: Float64Array;
  readonly runs: readonly PumpRun[] | null;
}

function findBleed<Unit>(trace: Trace, circuit: StoreCircuit<Unit>): BleedFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  const pump = columnOf(trace, circuit.pump);
  return { trace, column, runs: pump ? pumpRuns(pump) : null };
}

/**
 * Precharge and cut-in from a slow bleed from settled at cut-out: the pump's start on the way, then down to the knee. The
 * gas is colder than the air there, which the model driven by the trace itself takes into account. What bleeding finds is
 * compared with the charge; the charge, whose gas is at the air's temperature, stands.
 */
export function analyseBleedDown<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Answered {
  const happened = (read: Trace) => findBleed(read, circuit);
  const precharge: Question<StepContext<Unit>, BleedFound, BleedFound> = {
    characteristics: [`precharge${circuit.place}`],
    happened,
    shows: (found) => evidence(found),
    comesTo: ({ trace: read, column, runs }) => {
      const knee = kneeOf(read, { from: 0, to: column.length }, 'bleed', circuit, context);
      if ('code' in knee) return withoutKnee(`precharge${circuit.place}`, knee);
      const characteristic = prechargeOf(knee, circuit, context);
      const sheet = circuit.storeOf(context.unit).timeConstant;
      const events: TraceEvent[] = [{ id: 'knee', time: knee.time, y: knee.pressure - context.ambient.pressure }];
      if (runs?.[0]) events.push({ id: 'pump-starts', time: read.time[runs[0].start] });
      return {
        characteristics: [characteristic],
        events,
        notes: [
          ...shellTemperature(context).notes,
          ...(knee.otherThanSheet ? [{ code: 'gas-heat-from-trace', seconds: knee.timeConstant, sheet } as const] : []),
          ...disagreement(foundOf(characteristic), context.corrections.precharge[circuit.suffix]),
        ],
      };
    },
  };
  const cutIn: Question<StepContext<Unit>, BleedFound, BleedFound & { readonly start: number }> = {
    characteristics: [`store-cut-in${circuit.place}`],
    happened,
    shows: (found) => {
      if (!found.runs) return noEvidence({ code: 'no-pump-signal' });
      const [run] = found.runs;
      return run
        ? evidence({ ...found, start: run.start })
        : noEvidence(withoutRun(found.trace, found.trace.columns[circuit.pump]));
    },
    comesTo: ({ trace: read, column, start }) => {
      const half = Math.max(1, Math.round(0.05 / sampleInterval(read)));
      const level = meanOf(column, Math.max(0, start - half), start).mean;
      const instrument = context.instruments.get(circuit.pressure);
      return {
        characteristics: [
          levelAt(`store-cut-in${circuit.place}`, level, instrument, context, stepAt(column, start) / Math.sqrt(3)),
        ],
        events: [],
        notes: [],
      };
    },
  };
  return joinAnswers([answer(precharge, trace, context), answer(cutIn, trace, context)]);
}

/** A level read off a gauge as something switches, Pa gauge. */
export function levelAt(
  id: Characteristic['id'],
  value: number,
  instrument: Parameters<typeof readingComponents>[0] | undefined,
  context: StepContext<unknown>,
  spread = 0,
): Characteristic {
  return measured(id, value, [
    random('noise', Math.max(spread, 4e3)),
    ...(instrument ? readingComponents(instrument, value, context.date) : []),
  ]);
}

/** Why a pump's signal shows no start: it never ran, or ran from the first sample on. */
export function withoutRun(trace: Trace, pump: Float64Array): AnalysisProblem {
  return pump[0] > 0.5
    ? { code: 'pump-never-stopped-charging', seconds: trace.time[trace.time.length - 1] - trace.time[0] }
    : { code: 'pump-never-started' };
}
