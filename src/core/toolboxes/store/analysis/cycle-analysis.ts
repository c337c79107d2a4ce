import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  type UncertaintyComponent,
} from '../../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { evidence, noEvidence, type Evidence, type NoEvidence } from '../../../procedure/evidence';
import { answer, joinAnswers, saying, withCycle, type Answered, type Question } from '../../../procedure/question';
import type { Characteristic, MeasuredCycle } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { beyond, measured } from '../../../procedure/analysis-result';
import { meanAndSpread, pumpRuns, signalEdges, type PumpRun } from '../../../traces/pump-runs';
import { cycleMap, readCycle } from '../model/cycle-map';
import { gasTemperatureAlong, prechargeTemperature } from '../../../physics/gas-law';
import { withoutRun } from './precharge-analysis';
import type { StoreCircuit } from '../model/store-unit';

const { abs, hypot, max, min, round, sqrt } = Math;

/** Two successive rests count as settled when they agree within this share. */
const settledShare = 0.05;
/** Half of the stretch around a switching over which a level is read, s. */
const edge = 0.08;
/** An accumulator's gas volume is on the sheet to about this share. */
const volumeShare = 0.02;
/** Without a measured precharge the sheet's is taken, good to about this share. */
const sheetPrechargeShare = 0.06;
/** The thermal time constant is known no better than to this factor. */
const timeConstantFactor = 1.33;
/** An open rest is read from this many time constants on, s. */
const cooled = 3;

/** A fall of this share of the band within half a second is a stroke, not a leak. */
const strokeShare = 0.08;
const strokeSeconds = 0.5;

/** Largest sudden fall of the pressure within a rest (Pa), once the pump's own pulse is over; null where it only leaks. */
function stepIn(
  trace: Trace,
  column: Float64Array,
  rest: Rest,
  { cutIn, cutOut }: { readonly cutIn: number; readonly cutOut: number },
): number | null {
  const band = cutOut - cutIn;
  const from = indexAtTime(trace, trace.time[rest.from] + 2 * strokeSeconds);
  // A quick leak falls evenly: only what stands out of the rest's own slope is a stroke.
  const seconds = trace.time[rest.to - 1] - trace.time[Math.min(from, rest.to - 1)];
  if (!(seconds > 4 * strokeSeconds)) return null;
  const evenly = ((column[from] - column[rest.to - 1]) / seconds) * strokeSeconds;
  let worst = 0;
  for (let i = from, back = from; i < rest.to; i++) {
    while (trace.time[i] - trace.time[back] > strokeSeconds) back++;
    worst = max(worst, column[back] - column[i]);
  }
  return worst > max(strokeShare * band, 4 * Math.abs(evenly)) ? worst : null;
}

interface Rest {
  readonly from: number;
  readonly to: number;
  readonly ended: boolean;
}

/** Rests after a run that was seen to stop, the last one perhaps still open. */
function restsAfter(runs: readonly PumpRun[], samples: number, startsAtRest: boolean): Rest[] {
  const rests: Rest[] = startsAtRest ? [{ from: 0, to: runs[0]?.start ?? samples, ended: runs.length > 0 }] : [];
  runs.forEach(({ stop }, at) => {
    if (stop === null) return;
    const next = runs[at + 1];
    rests.push({ from: stop, to: next?.start ?? samples, ended: next !== undefined });
  });
  return rests;
}

/** The last rests that agree with their neighbours; empty while none do. */
function settled(rests: readonly Rest[], seconds: (rest: Rest) => number): readonly Rest[] {
  const whole = rests.filter((rest) => rest.ended);
  let from = whole.length;
  for (let i = whole.length - 1; i > 0; i--) {
    const [a, b] = [seconds(whole[i - 1]), seconds(whole[i])];
    if (abs(a - b) > settledShare * max(a, b)) break;
    from = i - 1;
  }
  return whole.slice(from);
}

/** What a pump that was left alone did: its runs, the rests between them and what disturbed those. */
interface CyclesFound {
  readonly trace: Trace;
  readonly column: Float64Array;
  readonly pump: Float64Array;
  readonly runs: readonly PumpRun[];
  /** Runs that were seen to stop and did not begin empty. */
  readonly cycling: readonly PumpRun[];
  /** Rests that nobody disturbed. */
  readonly rests: readonly Rest[];
  /** Sudden falls in the others, Pa: somebody drew on the store. */
  readonly stepped: readonly number[];
  /** The last rests that agree with each other. */
  readonly steady: readonly Rest[];
}

const secondsOf = ({ time }: Trace, rest: Pick<Rest, 'from' | 'to'>) =>
  time[min(rest.to, time.length - 1)] - time[rest.from];

/** Level around a switching, Pa gauge. */
function levelBefore(trace: Trace, column: Float64Array, at: number): number {
  const half = max(1, round(edge / sampleInterval(trace)));
  return meanOf(column, max(0, at - half), max(1, at)).mean;
}

function findCycles<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): CyclesFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  const pump = columnOf(trace, circuit.pump);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  if (!pump) return noEvidence({ code: 'no-pump-signal' });
  const before = (at: number) => levelBefore(trace, column, at);
  const runs = pumpRuns(pump);
  const everyRest = restsAfter(runs, pump.length, !(pump[0] > 0.5));
  const steps = everyRest.map((rest) => stepIn(trace, column, rest, circuit.storeOf(context.unit)));
  const rests = everyRest.filter((_, at) => steps[at] === null);
  return {
    trace,
    column,
    pump,
    runs,
    // A charge from empty is no run from cut-in.
    cycling: runs.filter((run) => run.stop !== null && before(run.start) > 0.5 * before(run.stop)),
    rests,
    stepped: steps.filter((step) => step !== null),
    steady: settled(rests, (rest) => secondsOf(trace, rest)),
  };
}

/** Mean and spread of times (s), a sample's worth of doubt in each. */
function meanTime(id: Characteristic['id'], times: readonly number[], timing: number): Characteristic {
  const { mean, standard } = meanAndSpread(times);
  return measured(id, mean, [random('timing', hypot(standard, timing)), systematic('timing', signalEdges)]);
}

/** What is asked of the runs: some that were seen to stop. */
function runQuestion<Unit>(id: Characteristic['id'], happened: (trace: Trace) => CyclesFound | NoEvidence) {
  const question: Question<StepContext<Unit>, CyclesFound, CyclesFound> = {
    characteristics: [id],
    happened,
    shows: (found) => {
      const { trace, runs, cycling, pump } = found;
      if (cycling.length > 0) return evidence(found);
      if (runs.length === 0) return noEvidence(withoutRun(trace, pump));
      const seconds = secondsOf(trace, { from: runs[0].start, to: pump.length });
      return noEvidence({ code: 'pump-never-stopped-charging', seconds });
    },
    comesTo: ({ trace, cycling }) => ({
      characteristics: [meanTime(id, runTimes(trace, cycling), sampleInterval(trace) / sqrt(6))],
      events: [],
      notes: [],
    }),
  };
  return question;
}

const runTimes = ({ time }: Trace, cycling: readonly PumpRun[]) =>
  cycling.map((run) => time[run.stop ?? 0] - time[run.start]);

/** Rests that agree, or one at the end that outlasts all that ended. */
interface ShownRests extends CyclesFound {
  readonly outlasting: Rest | null;
}

/** What is asked of the rests: that they agree, or that the last outlasts them. */
function restQuestion<Unit>(id: Characteristic['id'], happened: (trace: Trace) => CyclesFound | NoEvidence) {
  const question: Question<StepContext<Unit>, CyclesFound, ShownRests> = {
    characteristics: [id],
    happened,
    shows: (found) => {
      const { trace, rests, steady } = found;
      if (steady.length > 0) return evidence({ ...found, outlasting: null });
      const ended = rests.filter((each) => each.ended);
      const open = rests.at(-1);
      const longest = max(0, ...ended.map((each) => secondsOf(trace, each)));
      return open && !open.ended && secondsOf(trace, open) > 1.5 * longest
        ? evidence({ ...found, outlasting: open })
        : noEvidence({ code: 'cycles-not-settled', rests: ended.length });
    },
    comesTo: ({ trace, steady, outlasting }) => {
      const times = steady.map((rest) => secondsOf(trace, rest));
      const seconds = outlasting ? secondsOf(trace, outlasting) : 0;
      const characteristic = outlasting
        ? beyond(id, 'above', { value: seconds, components: [] }, { code: 'rest-outlasts', seconds })
        : meanTime(id, times, sampleInterval(trace) / sqrt(6));
      return { characteristics: [characteristic], events: [], notes: [] };
    },
  };
  return question;
}

/** Rests from which a leak can be read. */
interface WatchedRests extends CyclesFound {
  readonly watched: readonly Rest[];
}

/** What is asked for a leak: rests that have settled, or an open one that has lasted until the gas has cooled. */
function leakQuestion<Unit>(
  id: Characteristic['id'],
  circuit: StoreCircuit<Unit>,
  happened: (trace: Trace) => CyclesFound | NoEvidence,
) {
  const question: Question<StepContext<Unit>, CyclesFound, WatchedRests> = {
    characteristics: [id],
    happened,
    shows: (found, context) => {
      const { trace, rests, steady } = found;
      const open = rests.at(-1);
      const { timeConstant } = circuit.storeOf(context.unit);
      const lasted = open && !open.ended && secondsOf(trace, open) > (cooled + 2) * timeConstant;
      const watched = steady.length > 0 ? steady : lasted ? [open] : [];
      return watched.length > 0
        ? evidence({ ...found, watched })
        : noEvidence({ code: 'cycles-not-settled', rests: rests.filter((rest) => rest.ended).length });
    },
    comesTo: (shown, context) => ({
      characteristics: [leakOf(id, shown, circuit, context)],
      events: [],
      notes: [{ code: 'leak-read-at', channel: circuit.pressure, pressure: meanOver(shown) }],
    }),
  };
  return question;
}

/**
 * Run and rest of a pump that is left alone, as means over whole settled cycles with their spread (s), and the oil that
 * leaks inside (m3/s): the gas volume N·T/p at both ends of a settled rest, T by the thermal model along the trace from its
 * settled start. Needs the circuit's pressure and its pump's signal.
 */
export function analyseCycles<Unit>(trace: Trace, circuit: StoreCircuit<Unit>, context: StepContext<Unit>): Answered {
  const { suffix, place } = circuit;
  const found = findCycles(trace, circuit, context);
  const happened = () => found;
  const run = answer(runQuestion<Unit>(`run-time${place}`, happened), trace, context);
  const rest = answer(restQuestion<Unit>(`rest-time${place}`, happened), trace, context);
  const leak = answer(leakQuestion(`internal-leak-flow${place}`, circuit, happened), trace, context);
  const joined = joinAnswers([run, rest, leak]);
  if (!('runs' in found)) return joined;
  const told = found.stepped.map((by): AnalysisProblem => ({
    code: 'stepped-in-rest',
    channel: circuit.pressure,
    by,
  }));
  const cycle = cycleOf(found, suffix, [run.characteristics[0], rest.characteristics[0]]);
  return cycle
    ? withCycle(saying(joined, [...told, ...spokenFor(cycle, circuit, context)]), cycle)
    : saying(joined, told);
}

/** Run and rest together, where both were found. */
function cycleOf(
  { trace, column, cycling }: CyclesFound,
  circuit: string,
  [run, rest]: readonly [Characteristic, Characteristic],
): MeasuredCycle | null {
  if (run.kind !== 'measured' || rest.kind === 'absent') return null;
  const standardOf = (found: Characteristic) =>
    found.kind === 'measured' ? sqrt(found.estimate.components.reduce((sum, part) => sum + part.standard ** 2, 0)) : 0;
  const before = (at: number) => levelBefore(trace, column, at);
  return {
    circuit,
    run: run.estimate.value,
    runStandard: standardOf(run),
    rest: rest.kind === 'measured' ? rest.estimate.value : rest.bound.value,
    restStandard: standardOf(rest),
    restOpen: rest.kind === 'beyond',
    cutIn: meanAndSpread(cycling.map((each) => before(each.start))).mean,
    cutOut: meanAndSpread(cycling.map((each) => before(each.stop ?? 0))).mean,
  };
}

function spokenFor<Unit>(
  cycle: MeasuredCycle,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): AnalysisProblem[] {
  const map = cycleMap(
    circuit.storeOf(context.unit),
    { ambient: context.ambient.pressure, environment: context.airTemperature },
    { circuit: circuit.suffix, title: circuit.title },
  );
  if (!map) return [];
  const reading = readCycle(cycle, map);
  return reading.kind === 'sound'
    ? []
    : [{ code: 'cycles-speak-for', fault: reading.fault, next: reading.next, apart: reading.apart }];
}

/** Mean pressure over the rests that are read, Pa gauge. */
function meanOver({ column, watched }: WatchedRests): number {
  const parts = watched.map((rest) => meanOf(column, rest.from, rest.to));
  const samples = parts.reduce((sum, part) => sum + part.count, 0);
  return parts.reduce((sum, part) => sum + part.mean * part.count, 0) / samples;
}

function leakOf<Unit>(
  id: Characteristic['id'],
  { trace, column, watched: rests }: Evidence<WatchedRests>,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Characteristic {
  const store = circuit.storeOf(context.unit);
  const ambient = context.ambient.pressure;
  const found = context.corrections.precharge[circuit.suffix];
  const precharge = (found?.value ?? store.precharge) + ambient;
  const amount = (precharge * store.volume) / prechargeTemperature;
  const absolute = column.map((value) => value + ambient);
  const half = max(1, round(edge / sampleInterval(trace)));
  const flow = (factor: number) => {
    const temperature = gasTemperatureAlong(trace.time, absolute, store.timeConstant * factor, context.airTemperature);
    const flows = rests.map((rest) => {
      const cooling = rest.ended ? 0 : cooled * store.timeConstant;
      let from = min(rest.from + half, rest.to - 2 * half);
      while (from < rest.to - 2 * half && trace.time[from] - trace.time[rest.from] < cooling) from++;
      const at = (i: number) => (amount * temperature[i]) / meanOf(absolute, max(0, i - half), i + half).mean;
      const to = rest.to - half - 1;
      return { flow: (at(to) - at(from)) / (trace.time[to] - trace.time[from]), from, to };
    });
    return { ...meanAndSpread(flows.map((each) => each.flow)), last: flows[flows.length - 1] };
  };
  const now = flow(1);
  const { from, to } = now.last;
  const [high, low] = [column[from], column[to]];
  const perPascal = (amount * context.airTemperature) / absolute[to] ** 2 / (trace.time[to] - trace.time[from]);
  const instrument = context.instruments.get(circuit.pressure);
  const gauge: UncertaintyComponent[] = instrument
    ? [differenceResolution(instrument), ...differenceComponents(instrument, low, high, context.date)]
    : [];
  const prechargeShare = found ? found.standard / precharge : sheetPrechargeShare;
  return measured(id, now.mean, [
    random('noise', max(now.standard, 4e3 * perPascal)),
    systematic('gas-heat', abs(flow(timeConstantFactor).mean - flow(1 / timeConstantFactor).mean) / 2),
    systematic('volume', now.mean * hypot(volumeShare, prechargeShare)),
    ...gauge.map((part) => ({ ...part, standard: part.standard * perPascal })),
  ]);
}

/** The step's analysis over all its circuits. */
export function analyseRestCycles<Unit>(
  trace: Trace,
  circuits: readonly StoreCircuit<Unit>[],
  context: StepContext<Unit>,
): Answered {
  return joinAnswers(circuits.map((circuit) => analyseCycles(trace, circuit, context)));
}
