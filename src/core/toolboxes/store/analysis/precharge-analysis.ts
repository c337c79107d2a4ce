import { stuckProblem } from '../../../procedure/stuck-problem';
import { readingComponents, random, scaleComponents, systematic } from '../../../instruments/uncertainty';
import { expandedUncertainty } from '../../../instruments/uncertainty';
import { ownSamples } from '../../../traces/own-samples';
import { movingMean, noiseOf } from '../../../traces/smoothing';
import { findStuck } from '../../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { Characteristic, Found, StepAnalysis, TraceEvent } from '../../../procedure/step-analysis';
import { shellTemperature } from '../../../procedure/shell-temperature';
import type { StepContext } from '../../../procedure/step-context';
import { absent, measured } from '../../../procedure/analysis-result';
import { prechargeTemperature, restatePrecharge } from '../../../physics/gas-law';
import { emptyShare, findKnee, type Knee } from './knee';
import { pumpRuns } from '../../../traces/pump-runs';
import type { StoreCircuit } from '../model/store-unit';

/** What one circuit of a step came to. */
export interface CircuitAnalysis {
  readonly characteristics: readonly Characteristic[];
  readonly events: readonly TraceEvent[];
  readonly notes: readonly AnalysisProblem[];
  readonly precharge?: Found;
}

/** Joins the circuits of a step into its analysis. */
export function joinCircuits<Unit>(
  circuits: readonly StoreCircuit<Unit>[],
  analyse: (circuit: StoreCircuit<Unit>) => CircuitAnalysis,
): StepAnalysis {
  const parts = circuits.map((circuit) => ({ circuit, ...analyse(circuit) }));
  const found = parts.flatMap(({ circuit, precharge }) => (precharge ? [[circuit.suffix, precharge] as const] : []));
  return {
    characteristics: parts.flatMap((part) => part.characteristics),
    events: parts.flatMap((part) => part.events),
    notes: parts.flatMap((part) => part.notes),
    ...(found.length > 0 ? { corrections: { precharge: Object.fromEntries(found) } } : {}),
  };
}

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
  return measured(`precharge${circuit.suffix}`, value, [
    random('fit', knee.fitStandard * scale),
    random('timing', knee.timingStandard * scale),
    systematic('temperature', ((value + ambient) * shellTemperature(context).standard) / knee.temperature),
    systematic('gas-heat', (value + ambient) * knee.gasHeatShare),
    ...(instrument ? scaleComponents(readingComponents(instrument, gauge, context.date), scale) : []),
  ]);
}

/** A trace without any knee says that there is no gas: whatever precharge is wanted, this is below it. */
function withoutKnee(id: Characteristic['id'], problem: AnalysisProblem): Characteristic {
  return problem.code === 'no-knee'
    ? { kind: 'beyond', id, side: 'below', bound: { value: 0, components: [] }, problem }
    : absent(id, problem);
}

const foundOf = (characteristic: Characteristic): Found | undefined =>
  characteristic.kind === 'measured'
    ? { value: characteristic.estimate.value, standard: expandedUncertainty(characteristic.estimate) / 2 }
    : undefined;

/**
 * Precharge and charge time from a charge from empty: pump start to pump stop. Needs the circuit's pressure (Pa gauge);
 * without the pump's own signal the charge is taken from the pressure's rise to its peak.
 */
export function analyseCharge<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): CircuitAnalysis {
  const ids = [`precharge${circuit.suffix}`, `charge-time${circuit.suffix}`] as const;
  const column = columnOf(trace, circuit.pressure);
  if (!column) return nothing(ids, { code: 'channel-missing', channel: circuit.pressure });
  const [run] = pumpRuns(columnOf(trace, circuit.pump) ?? new Float64Array(0));
  const rise = riseOf(trace, column);
  const from = run?.start ?? rise.from;
  const to = run?.stop ?? (run ? column.length : rise.to + 1);
  const peak = run && run.stop === null ? peakOf(trace, column) : Math.min(to, column.length - 1);
  const stuck = findStuck(ownSamples(trace, column), context.instruments.get(circuit.pressure)?.range ?? null);
  if (stuck && stuck.to > trace.time[from] && (!run || stuck.from < trace.time[Math.min(to, trace.time.length - 1)]))
    return nothing(ids, stuckProblem(stuck, circuit.pressure));
  const left = leftBefore(trace, column, from);
  const knee: Knee | AnalysisProblem =
    left > emptyShare * column[peak]
      ? { code: 'not-from-empty', left }
      : kneeOf(trace, { from: Math.max(0, from - 2), to }, 'charge', circuit, context);
  const time = chargeTime(trace, { ids, run, from, to, doubt: run ? 0 : rise.doubt });
  if ('code' in knee) return { characteristics: [withoutKnee(ids[0], knee), time], events: [], notes: [] };
  const precharge = prechargeOf(knee, circuit, context);
  return {
    characteristics: [precharge, time],
    events: [
      { id: 'knee', time: knee.time, y: knee.pressure - context.ambient.pressure },
      { id: 'pump-stops', time: trace.time[Math.min(to, trace.time.length - 1)] },
    ],
    notes: shellTemperature(context).notes,
    precharge: foundOf(precharge),
  };
}

/** What stood in a store just before its charge began, Pa gauge; lines fill within a sample or two. */
function leftBefore(trace: Trace, column: Float64Array, from: number): number {
  const { mean, count } = meanOf(column, indexAtTime(trace, trace.time[from] - 1), from);
  return count > 0 ? mean : column[from];
}

function chargeTime(
  trace: Trace,
  how: {
    readonly ids: readonly [`precharge${'' | '-2'}`, `charge-time${'' | '-2'}`];
    readonly run: { readonly stop: number | null } | undefined;
    readonly from: number;
    readonly to: number;
    /** What the ends of a charge without the pump's own signal are not known by, s. */
    readonly doubt: number;
  },
): Characteristic {
  const seconds = trace.time[Math.min(how.to, trace.time.length - 1)] - trace.time[how.from];
  if (how.run && how.run.stop === null) {
    const problem = { code: 'pump-never-stopped-charging', seconds } as const;
    return {
      kind: 'beyond',
      id: how.ids[1],
      side: 'above',
      bound: { value: seconds, components: [] },
      problem,
    };
  }
  return measured(how.ids[1], seconds, [
    random('timing', sampleInterval(trace) / Math.sqrt(6)),
    ...(how.doubt > 0 ? [systematic('timing', how.doubt)] : []),
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

/**
 * Precharge and cut-in from a slow bleed from settled at cut-out: the pump's start on the way, then down to the knee. The
 * gas is colder than the air there, which the model driven by the trace itself takes into account.
 */
export function analyseBleedDown<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): CircuitAnalysis {
  const ids = [`precharge${circuit.suffix}`, `store-cut-in${circuit.suffix}`] as const;
  const column = columnOf(trace, circuit.pressure);
  if (!column) return nothing(ids, { code: 'channel-missing', channel: circuit.pressure });
  const pump = columnOf(trace, circuit.pump);
  const starts = pump ? pumpRuns(pump) : [];
  const half = Math.max(1, Math.round(0.05 / sampleInterval(trace)));
  const instrument = context.instruments.get(circuit.pressure);
  const cutIn: Characteristic = starts[0]
    ? levelAt(ids[1], meanOf(column, Math.max(0, starts[0].start - half), starts[0].start).mean, instrument, context)
    : absent(ids[1], pump ? withoutRun(trace, pump) : { code: 'no-pump-signal' });
  const knee = kneeOf(trace, { from: 0, to: column.length }, 'bleed', circuit, context);
  if ('code' in knee) return { characteristics: [withoutKnee(ids[0], knee), cutIn], events: [], notes: [] };
  const precharge = prechargeOf(knee, circuit, context);
  const events: TraceEvent[] = [{ id: 'knee', time: knee.time, y: knee.pressure - context.ambient.pressure }];
  if (starts[0]) events.push({ id: 'pump-starts', time: trace.time[starts[0].start] });
  return {
    characteristics: [precharge, cutIn],
    events,
    notes: [
      ...shellTemperature(context).notes,
      ...disagreement(foundOf(precharge), context.corrections.precharge[circuit.suffix]),
    ],
  };
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

function nothing(ids: readonly Characteristic['id'][], problem: AnalysisProblem): CircuitAnalysis {
  return { characteristics: ids.map((id) => absent(id, problem)), events: [], notes: [] };
}
