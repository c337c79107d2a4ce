import { stuckProblem } from '../../procedure/stuck-problem';
import {
  differenceComponents,
  differenceResolution,
  random,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { ownSamples } from '../../traces/own-samples';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { findStuck, type Stuck } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, sliceTrace, type Trace } from '../../traces/trace';
import { absent, beyond, measured } from '../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import { meanAndSpread, pumpRuns, signalEdges, type PumpRun } from '../../traces/pump-runs';
import { analyseVacuumHold } from '../../toolboxes/vacuum/hold-analysis';
import { strokesOf } from '../../toolboxes/servo/reserve-analysis';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import { settledVacuum, thresholds } from './geometry';
import { gaugeAt, sensorNotes, type Context } from './supply-context';

/** Half a second's worth of samples around an edge is too much when the vacuum moves: this long, s. */
const edgeSeconds = 0.05;

/** A pump's runs by its own signal. */
interface RunsFound {
  readonly trace: Trace;
  readonly supply: Float64Array;
  readonly runs: readonly PumpRun[];
}

function findRuns(trace: Trace): RunsFound | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  const pump = columnOf(trace, 'pump_on');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  if (!pump) return noEvidence({ code: 'no-pump-signal' });
  return { trace, supply, runs: pumpRuns(pump) };
}

const pumpSwitch: Question<Context, RunsFound, RunsFound> = {
  characteristics: ['pump-cut-in', 'pump-cut-out', 'run-time'],
  happened: findRuns,
  shows: (found) => (found.runs.length === 0 ? noEvidence({ code: 'pump-never-started' }) : evidence(found)),
  comesTo: switchingsOf,
};

function switchingsOf({ trace, supply, runs }: Evidence<RunsFound>, context: Context): StepAnalysis {
  const half = Math.max(1, Math.round(edgeSeconds / sampleInterval(trace)));
  const at = (i: number) => meanOf(supply, Math.max(0, i - half), Math.min(supply.length, i + half)).mean;
  const level = (id: 'pump-cut-in' | 'pump-cut-out', edges: readonly number[]) =>
    levelOf(id, edges.map(at), context, Math.max(...edges.map((edge) => readLate(trace, supply, edge))));
  const notes = sensorNotes(trace);
  const cutIn = level(
    'pump-cut-in',
    runs.map((run) => run.start),
  );
  const whole = runs.flatMap(({ start, stop }) => (stop === null ? [] : [{ start, stop }]));
  if (whole.length > 0) {
    const stops = whole.map((run) => run.stop);
    const times = whole.map((run) => trace.time[run.stop] - trace.time[run.start]);
    const characteristics = [cutIn, level('pump-cut-out', stops), timeOf('run-time', times, trace)];
    return { characteristics, events: [], notes };
  }
  const last = supply.length - 1;
  const problem = { code: 'pump-never-stopped', vacuum: at(last) } as const;
  const ran = trace.time[last] - trace.time[runs[0].start];
  const timing = [random('timing', sampleInterval(trace) / Math.sqrt(6)), systematic('timing', signalEdges)];
  return {
    characteristics: [
      cutIn,
      beyond('pump-cut-out', 'above', { value: at(last), components: gaugeAt(at(last), context) }, problem),
      beyond('run-time', 'above', { value: ran, components: timing }, problem),
    ],
    events: [],
    // Running without building is another matter than running on.
    notes: at(last) - at(runs[0].start) < 1_000 ? [...notes, { code: 'nothing-builds', vacuum: at(last) }] : notes,
  };
}

/**
 * Where the pump starts and stops (Pa vacuum, on the tee's gauge) and how long it runs (s): means over whole settled
 * runs with their spread. Channels `supply_vacuum`, `pump_on`.
 */
export function analysePumpSwitch(trace: Trace, context: Context): Answered {
  return answer(pumpSwitch, trace, context);
}

/** A gauge with its hose may read so much late, one sigma, s. */
const gaugeLag = 0.1;
/** A slope is read over so long to either side, s. */
const slopeOver = 0.5;

/**
 * By how much a column (SI, one sigma) may read wrong at a sample: a gauge that lags shows what was before it, a signal that
 * is sampled may have switched up to a sample earlier or later.
 */
function readLate(trace: Trace, column: Float64Array, at: number): number {
  const slope = (from: number, to: number) => {
    const seconds = trace.time[to] - trace.time[from];
    const each = seconds > 0 ? Math.abs(column[to] - column[from]) / seconds : 0;
    return Number.isFinite(each) ? each : 0;
  };
  const before = slope(indexAtTime(trace, trace.time[at] - slopeOver), at);
  const after = slope(at, Math.min(column.length - 1, indexAtTime(trace, trace.time[at] + slopeOver)));
  return Math.hypot(gaugeLag * before, (sampleInterval(trace) / Math.sqrt(12)) * Math.max(before, after));
}

function levelOf(
  id: 'pump-cut-in' | 'pump-cut-out',
  levels: readonly number[],
  context: Context,
  moved: number,
): Characteristic {
  const { mean, standard } = meanAndSpread(levels);
  return measured(id, mean, [
    random('noise', Math.max(standard, 30)),
    systematic('timing', moved),
    ...gaugeAt(mean, context),
  ]);
}

function timeOf(id: 'run-time' | 'rest-time', times: readonly number[], trace: Trace): Characteristic {
  const { mean, standard } = meanAndSpread(times);
  return measured(id, mean, [
    random('timing', Math.hypot(standard, sampleInterval(trace) / Math.sqrt(6))),
    systematic('timing', signalEdges),
  ]);
}

/** Left off after a run of the pump while the air in the reservoir settles, s. */
const settling = 1;
const leastRest = 5;
/** Without the pump's own signal a hold is looked for that lasts so long, s; a foot of more than this is no rest, N. */
const watchedFor = 20;
/** What of a rest stays for the hold once it has settled, as a share. */
const fullRest = 0.85;
const footOn = 250;

/** Rests of a pump between its runs, and the longest of them from where its air has settled. */
interface RestsFound {
  readonly trace: Trace;
  readonly rests: readonly Rest[];
  readonly longest: Rest | null;
  readonly from: number;
  /** Whether the pump's own signal says so; else all of the trace may be one rest. */
  readonly signal: boolean;
  readonly stuck: Stuck | null;
}

interface ShownRest extends RestsFound {
  readonly longest: Rest;
}

function findRests(trace: Trace, context: Context): RestsFound | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const signal = columnOf(trace, 'pump_on');
  const pump = signal ?? new Float64Array(supply.length);
  const rests = restsBetween(pumpRuns(pump), pump);
  const longest = rests.reduce<Rest | null>(
    (best, rest) => (best === null || rest.to - rest.from > best.to - best.from ? rest : best),
    null,
  );
  return {
    trace,
    rests,
    longest,
    from: longest ? indexAtTime(trace, trace.time[longest.from] + settling) : 0,
    signal: signal !== undefined,
    stuck: findStuck(ownSamples(trace, supply), context.instruments.get('supply_vacuum')?.range ?? null),
  };
}

function restEvidence(found: RestsFound): Judged<ShownRest> {
  const { trace, longest, from, stuck } = found;
  const none = noEvidence({ code: 'no-hold', channel: 'supply_vacuum', seconds: leastRest });
  if (!longest || longest.to - from < 8) return none;
  const ends = trace.time[longest.to - 1];
  if (ends - trace.time[from] < leastRest) return none;
  if (stuck && stuck.to > trace.time[from] && stuck.from < ends)
    return noEvidence(stuckProblem(stuck, 'supply_vacuum'));
  return evidence({ ...found, longest });
}

/** What the hold of a rest came to: it is a hold like any other. */
function heldIn({ trace, longest, from, signal }: ShownRest, context: Context): Answered {
  return analyseVacuumHold(
    signal ? sliceTrace(trace, from, longest.to) : trace,
    { ...context, benchVolume: context.benchVolume ?? 0 },
    {
      seconds: signal ? fullRest * (trace.time[longest.to - 1] - trace.time[from]) : watchedFor,
      volume: context.unit.volume,
      supplyVacuum: thresholds(context.unit, context.ambient)?.cutIn ?? settledVacuum(context.unit, context.ambient),
      leverChannel: 'pedal_force',
      appliedLevel: null,
      appliesAt: footOn,
    },
  );
}

interface ShownLeak extends ShownRest {
  readonly flow: Characteristic;
}

const restLeak: Question<Context, RestsFound, ShownLeak> = {
  characteristics: ['rest-time', 'leak-flow'],
  happened: findRests,
  shows: (found, context) => {
    const judged = restEvidence(found);
    if (judged.kind === 'none') return judged;
    const held = heldIn(judged.found, context);
    const [loss, flow] = held.characteristics;
    // What is no hold is no rest either.
    if (loss.kind === 'absent')
      return noEvidence(loss.problem, { events: [{ id: 'hold', time: found.trace.time[found.from] }] });
    return evidence(
      { ...judged.found, flow: loss.kind === 'measured' ? flow : absent('leak-flow', loss.problem) },
      // The pump's own signal says when the rest began.
      held.notes.filter((note) => !(found.signal && note.code === 'begins-in-hold')),
      held.doubts,
    );
  },
  comesTo: ({ trace, rests, longest, from, flow }) => {
    const lasted = (rest: Rest) => trace.time[rest.to - 1] - trace.time[rest.from];
    const whole = rests.filter((rest) => rest.ended);
    const resting = lasted(longest);
    const rest =
      whole.length > 0
        ? timeOf('rest-time', whole.map(lasted), trace)
        : beyond('rest-time', 'above', { value: resting, components: [] }, { code: 'rest-outlasts', seconds: resting });
    return { characteristics: [rest, flow], events: [{ id: 'hold', time: trace.time[from] }], notes: [] };
  },
};

/**
 * Rest between runs without the pedal (s) and the leak as standard volume flow (m3/s at 101.325 kPa, 20 °C) from the
 * slope of the longest rest. A rest that outlasts the trace is a lower bound. Channels `supply_vacuum`, `pump_on`.
 */
export function analyseRestLeak(trace: Trace, context: Context): Answered {
  return answer(restLeak, trace, context);
}

interface Rest {
  readonly from: number;
  readonly to: number;
  /** Whether the next run ended it, rather than the trace. */
  readonly ended: boolean;
}

function restsBetween(runs: readonly PumpRun[], pump: Float64Array): Rest[] {
  const rests: Rest[] = [];
  if (!(pump[0] > 0.5)) rests.push({ from: 0, to: runs[0]?.start ?? pump.length, ended: false });
  else if (runs.length === 0) {
    const stop = pump.findIndex((value) => value <= 0.5);
    if (stop >= 0) rests.push({ from: stop, to: pump.length, ended: false });
  }
  runs.forEach((run, at) => {
    if (run.stop === null) return;
    const next = runs[at + 1];
    rests.push({ from: run.stop, to: next?.start ?? pump.length, ended: next !== undefined });
  });
  return rests;
}

/** A stroke costs nothing where nothing was, Pa. */
const leastForDemand = 10_000;

/** A level is read over so long, and what comes back over so long after at most, s; air comes in within so long. */
const levelSeconds = 0.25;
const comesBackOver = 5;
const breathesWithin = 0.4;
/** What comes back of a stroke while nothing pumps is read this long after it at the earliest, s. */
const coolsWithin = 0.8;
/** Cooling that has not slowed down to this, second half of the wait against the first, cannot be carried on further. */
const slowest = 0.8;
/** Walls of one shell are not of one temperature: what comes back follows no one exponential better than to this share. */
const notExponential = 0.1;
/** Air let in quickly is compressed by what follows it: it stands at up to 1 − 1/γ more pressure than once it has cooled. */
const compressed = 0.4 / 1.4;

type Level = ReturnType<typeof meanOf>;

/** One stroke of the pedal, and the vacuum before, at its lowest after, and once some of it has come back, Pa. */
interface DemandFound {
  readonly supply: Float64Array;
  readonly before: number;
  /** The level at its lowest; null where the trace ends in the stroke. */
  readonly lowest: Level | null;
  /** The level before the next stroke, and how long after the lowest, s; null where there was too little time. */
  readonly later: (Level & { readonly after: number; readonly halfway: number }) | null;
  /** Whether the pump's own signal says that it stood still meanwhile; null where nobody recorded it. */
  readonly pumped: boolean | null;
}

function findDemand(trace: Trace): DemandFound | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const { held } = strokesOf({ ...trace, columns: { ...trace.columns, output_pressure: supply } }, 'pedal_force');
  const [first, second] = held;
  if (!first) return noEvidence({ code: 'no-strokes', channel: 'pedal_force' });
  const smooth = movingMean(supply, Math.max(1, Math.round(0.1 / sampleInterval(trace))));
  let at = first.to;
  for (let i = first.to; i < (second?.from ?? smooth.length); i++) if (!(smooth[i] >= smooth[at])) at = i;
  if (!Number.isFinite(smooth[at])) return { supply, before: Number.NaN, lowest: null, later: null, pumped: null };
  const { time } = trace;
  const pump = columnOf(trace, 'pump_on');
  // The foot is on its way down for a moment before a stroke counts as held.
  const next = second ? time[second.from] - arrives : time[time.length - 1];
  const until = Math.min(next, time[at] + comesBackOver);
  const later = meanOf(supply, indexAtTime(trace, until - levelSeconds), indexAtTime(trace, until));
  const middle = (time[at] + until) / 2;
  const [from, to] = [middle - levelSeconds / 2, middle + levelSeconds / 2];
  const halfway = meanOf(supply, indexAtTime(trace, from), indexAtTime(trace, to));
  return {
    supply,
    before: meanOf(supply, indexAtTime(trace, time[first.from] - 0.8), first.from).mean,
    // A lowest reading is the lowest of many: the level that follows it tells what was there.
    lowest: meanOf(supply, at, indexAtTime(trace, time[at] + levelSeconds) + 1),
    later: until - time[at] < coolsWithin ? null : { ...later, after: until - time[at], halfway: halfway.mean },
    pumped: pump ? pump.subarray(at, indexAtTime(trace, until)).some((each) => each > 0.5) : null,
  };
}

/** A foot takes about this long to come down, s. */
const arrives = 0.6;

interface ShownDemand extends DemandFound {
  readonly lowest: Level;
}

/** What a stroke cost once the air that it let in has cooled, Pa. */
function costOf({ before, lowest, later, pumped }: ShownDemand): {
  readonly value: number;
  readonly components: readonly UncertaintyComponent[];
} {
  const atOnce = before - lowest.mean;
  const cameBack = later ? Math.max(0, later.mean - lowest.mean) : 0;
  if (later && pumped === false) {
    // While nothing pumps only warmth that leaves the air brings vacuum back, by less in each half of the wait.
    const [first, second] = [later.halfway - lowest.mean, later.mean - later.halfway];
    const slows = first > 0 ? Math.min(slowest, Math.max(0, second / first)) : 0;
    const toCome = (Math.max(0, second) * slows) / (1 - slows);
    return {
      value: before - later.mean - toCome,
      components: [systematic('gas-heat', Math.hypot(toCome, notExponential * cameBack) / Math.sqrt(3))],
    };
  }
  // What came back may be the source's work or the air's cooling: nobody can tell them apart.
  return {
    value: atOnce,
    components: [
      systematic('timing', later ? cameBack * (breathesWithin / later.after) : 0),
      systematic('gas-heat', (compressed * atOnce) / Math.sqrt(3)),
    ],
  };
}

const demand: Question<Context, DemandFound, ShownDemand> = {
  characteristics: ['vacuum-per-application'],
  happened: findDemand,
  shows: (found) => {
    const { before, lowest } = found;
    if (before < leastForDemand) return noEvidence({ code: 'source-never-opened', vacuum: Math.max(0, before) });
    return lowest ? evidence({ ...found, lowest }) : noEvidence({ code: 'no-release' });
  },
  comesTo: (shown, context) => {
    const { supply, before, lowest } = shown;
    const { value, components } = costOf(shown);
    const instrument = context.instruments.get('supply_vacuum');
    const cost = measured('vacuum-per-application', value, [
      random('noise', noiseOf(supply) / Math.sqrt(Math.max(1, lowest.count))),
      ...components,
      ...(instrument
        ? [differenceResolution(instrument), ...differenceComponents(instrument, lowest.mean, before, context.date)]
        : []),
    ]);
    return { characteristics: [cost], events: [], notes: [], strokes: [] };
  },
};

/**
 * Vacuum (Pa) that one stroke of the pedal costs before the source has made it up, its air as warm as the shell. Channels
 * `supply_vacuum`, `pedal_force`; `pump_on` tells cooling from pumping.
 */
export function analyseDemand(trace: Trace, context: Context): Answered {
  return answer(demand, trace, context);
}
