import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  type UncertaintyComponent,
} from '../../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import type { Characteristic, MeasuredCycle, StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { absent, beyond, measured } from '../../../procedure/analysis-result';
import { meanAndSpread, pumpRuns, type PumpRun } from '../../../traces/pump-runs';
import { cycleMap, readCycle } from '../model/cycle-map';
import { gasTemperatureAlong, prechargeTemperature } from '../../../physics/gas-law';
import { joinCircuits, withoutRun, type CircuitAnalysis } from './precharge-analysis';
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

/**
 * Run and rest of a pump that is left alone, as means over whole settled cycles with their spread (s), and the oil that
 * leaks inside (m3/s): the gas volume N·T/p at both ends of a settled rest, T by the thermal model along the trace from its
 * settled start. Needs the circuit's pressure and its pump's signal.
 */
export function analyseCycles<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): CircuitAnalysis & { readonly cycle?: MeasuredCycle } {
  const { suffix } = circuit;
  const ids = [`run-time${suffix}`, `rest-time${suffix}`, `internal-leak-flow${suffix}`] as const;
  const none = (problem: AnalysisProblem): CircuitAnalysis => ({
    characteristics: ids.map((id) => absent(id, problem)),
    events: [],
    notes: [],
  });
  const column = columnOf(trace, circuit.pressure);
  const pump = columnOf(trace, circuit.pump);
  if (!column) return none({ code: 'channel-missing', channel: circuit.pressure });
  if (!pump) return none({ code: 'no-pump-signal' });
  const half = max(1, round(edge / sampleInterval(trace)));
  const before = (i: number) => meanOf(column, max(0, i - half), max(1, i)).mean;
  const runs = pumpRuns(pump);
  // A charge from empty is no run from cut-in.
  const cycling = runs.filter((run) => run.stop !== null && before(run.start) > 0.5 * before(run.stop));
  const everyRest = restsAfter(runs, pump.length, !(pump[0] > 0.5));
  const steps = everyRest.map((rest) => stepIn(trace, column, rest, circuit.storeOf(context.unit)));
  // Somebody drew on the store: such a rest is no leak's.
  const rests = everyRest.filter((_, at) => steps[at] === null);
  const stepped = steps.filter((step) => step !== null);
  const seconds = (rest: Rest) => trace.time[min(rest.to, trace.time.length - 1)] - trace.time[rest.from];
  const steady = settled(rests, seconds);
  const timing = sampleInterval(trace) / sqrt(6);
  const timeOf = (id: (typeof ids)[0 | 1], times: readonly number[]) => {
    const { mean, standard } = meanAndSpread(times);
    return measured(id, mean, [random('timing', hypot(standard, timing))]);
  };
  const runTimes = cycling.map((run) => trace.time[run.stop ?? 0] - trace.time[run.start]);
  const characteristics: Characteristic[] = [
    runTimes.length > 0
      ? timeOf(ids[0], runTimes)
      : absent(
          ids[0],
          runs.length > 0
            ? {
                code: 'pump-never-stopped-charging',
                seconds: seconds({ ...runs[0], from: runs[0].start, to: pump.length, ended: false }),
              }
            : withoutRun(trace, pump),
        ),
  ];
  const open = rests.at(-1);
  const restTime = restOf();
  characteristics.push(restTime);
  const watched =
    steady.length > 0
      ? steady
      : open && !open.ended && seconds(open) > (cooled + 2) * circuit.storeOf(context.unit).timeConstant
        ? [open]
        : [];
  characteristics.push(
    watched.length > 0
      ? leakOf(ids[2], trace, column, watched, circuit, context)
      : absent(ids[2], { code: 'cycles-not-settled', rests: rests.filter((rest) => rest.ended).length }),
  );
  const rest =
    restTime.kind === 'measured' ? restTime.estimate.value : restTime.kind === 'beyond' ? restTime.bound.value : null;
  const run = runTimes.length > 0 ? meanAndSpread(runTimes) : null;
  const cycle: MeasuredCycle | undefined =
    run && rest !== null
      ? {
          circuit: suffix,
          run: run.mean,
          runStandard: hypot(run.standard, timing),
          rest,
          restStandard:
            restTime.kind === 'measured'
              ? sqrt(restTime.estimate.components.reduce((sum, part) => sum + part.standard ** 2, 0))
              : 0,
          restOpen: restTime.kind === 'beyond',
          cutIn: meanAndSpread(cycling.map((each) => before(each.start))).mean,
          cutOut: meanAndSpread(cycling.map((each) => before(each.stop ?? 0))).mean,
        }
      : undefined;
  const told: AnalysisProblem[] = stepped.map((by) => ({ code: 'stepped-in-rest', channel: circuit.pressure, by }));
  return { characteristics, events: [], notes: [...told, ...(cycle ? spokenFor(cycle) : [])], cycle };

  function restOf(): Characteristic {
    if (steady.length > 0) return timeOf(ids[1], steady.map(seconds));
    const ended = rests.filter((each) => each.ended);
    if (open && !open.ended && seconds(open) > 1.5 * max(0, ...ended.map(seconds)))
      return beyond(
        ids[1],
        'above',
        { value: seconds(open), components: [] },
        { code: 'rest-outlasts', seconds: seconds(open) },
      );
    return absent(ids[1], { code: 'cycles-not-settled', rests: ended.length });
  }

  function spokenFor(cycleNow: MeasuredCycle): AnalysisProblem[] {
    const map = cycleMap(
      circuit.storeOf(context.unit),
      { ambient: context.ambient.pressure, environment: context.airTemperature },
      { circuit: suffix, title: circuit.title },
    );
    if (!map) return [];
    const reading = readCycle(cycleNow, map);
    return reading.kind === 'sound'
      ? []
      : [{ code: 'cycles-speak-for', fault: reading.fault, next: reading.next, apart: reading.apart }];
  }
}

function leakOf<Unit>(
  id: Characteristic['id'],
  trace: Trace,
  column: Float64Array,
  rests: readonly Rest[],
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
): StepAnalysis {
  const cycles: MeasuredCycle[] = [];
  const joined = joinCircuits(circuits, (circuit) => {
    const { cycle, ...analysis } = analyseCycles(trace, circuit, context);
    if (cycle) cycles.push(cycle);
    return analysis;
  });
  return { ...joined, cycles };
}
