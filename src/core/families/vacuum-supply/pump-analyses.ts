import { stuckProblem } from '../../procedure/stuck-problem';
import { differenceComponents, differenceResolution, random, systematic } from '../../instruments/uncertainty';
import { ownSamples } from '../../traces/own-samples';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { findStuck } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, sliceTrace, type Trace } from '../../traces/trace';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { meanAndSpread, pumpRuns, type PumpRun } from '../../traces/pump-runs';
import { analyseVacuumHold } from '../../toolboxes/vacuum/hold-analysis';
import { strokesOf } from '../../toolboxes/servo/reserve-analysis';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import { settledVacuum, thresholds } from './geometry';
import { gaugeAt, sensorNotes, type Context } from './supply-context';

/** Half a second's worth of samples around an edge is too much when the vacuum moves: this long, s. */
const edgeSeconds = 0.05;

/**
 * Where the pump starts and stops (Pa vacuum, on the tee's gauge) and how long it runs (s): means over whole settled
 * runs with their spread. Channels `supply_vacuum`, `pump_on`.
 */
export function analysePumpSwitch(trace: Trace, context: Context): StepAnalysis {
  const ids = ['pump-cut-in', 'pump-cut-out', 'run-time'] as const;
  const supply = columnOf(trace, 'supply_vacuum');
  const pump = columnOf(trace, 'pump_on');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  if (!pump) return nothingMeasured(ids, { code: 'no-pump-signal' });
  const runs = pumpRuns(pump);
  if (runs.length === 0) return nothingMeasured(ids, { code: 'pump-never-started' });
  const half = Math.max(1, Math.round(edgeSeconds / sampleInterval(trace)));
  const at = (i: number) => meanOf(supply, Math.max(0, i - half), Math.min(supply.length, i + half)).mean;
  const notes = sensorNotes(trace);
  const starts = runs.map((run) => at(run.start));
  const whole = runs.flatMap(({ start, stop }) => (stop === null ? [] : [{ start, stop }]));
  const characteristics: Characteristic[] = [
    levelOf('pump-cut-in', starts, context, Math.max(...runs.map((run) => readLate(trace, supply, run.start)))),
  ];
  if (whole.length === 0) {
    const last = supply.length - 1;
    const problem = { code: 'pump-never-stopped', vacuum: at(last) } as const;
    const bound = { value: at(last), components: gaugeAt(at(last), context) };
    const ran = trace.time[last] - trace.time[runs[0].start];
    const timing = [random('timing', sampleInterval(trace) / Math.sqrt(6))];
    characteristics.push(
      beyond('pump-cut-out', 'above', bound, problem),
      beyond('run-time', 'above', { value: ran, components: timing }, problem),
    );
    // Running without building is another matter than running on.
    if (at(last) - at(runs[0].start) < 1_000) notes.push({ code: 'nothing-builds', vacuum: at(last) });
  } else {
    characteristics.push(
      levelOf(
        'pump-cut-out',
        whole.map((run) => at(run.stop)),
        context,
        Math.max(...whole.map((run) => readLate(trace, supply, run.stop))),
      ),
    );
    const times = whole.map((run) => trace.time[run.stop] - trace.time[run.start]);
    characteristics.push(timeOf('run-time', times, trace));
  }
  return { characteristics, events: [], notes };
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
  return measured(id, mean, [random('timing', Math.hypot(standard, sampleInterval(trace) / Math.sqrt(6)))]);
}

/** Left off after a run of the pump while the air in the reservoir settles, s. */
const settling = 1;
const leastRest = 5;
/** Without the pump's own signal a hold is looked for that lasts so long, s; a foot of more than this is no rest, N. */
const watchedFor = 20;
/** What of a rest stays for the hold once it has settled, as a share. */
const fullRest = 0.85;
const footOn = 250;

/**
 * Rest between runs without the pedal (s) and the leak as standard volume flow (m3/s at 101.325 kPa, 20 °C) from the
 * slope of the longest rest. A rest that outlasts the trace is a lower bound. Channels `supply_vacuum`, `pump_on`.
 */
export function analyseRestLeak(trace: Trace, context: Context): StepAnalysis {
  const ids = ['rest-time', 'leak-flow'] as const;
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const pump = columnOf(trace, 'pump_on') ?? new Float64Array(supply.length);
  const runs = pumpRuns(pump);
  const rests = restsBetween(runs, pump);
  const longest = rests.reduce<Rest | null>(
    (best, rest) => (best === null || rest.to - rest.from > best.to - best.from ? rest : best),
    null,
  );
  const from = longest ? indexAtTime(trace, trace.time[longest.from] + settling) : 0;
  if (!longest || longest.to - from < 8 || trace.time[longest.to - 1] - trace.time[from] < leastRest)
    return nothingMeasured(ids, { code: 'no-hold', channel: 'supply_vacuum', seconds: leastRest });
  const stuck = findStuck(ownSamples(trace, supply), context.instruments.get('supply_vacuum')?.range ?? null);
  if (stuck && stuck.to > trace.time[from] && stuck.from < trace.time[longest.to - 1])
    return nothingMeasured(ids, stuckProblem(stuck, 'supply_vacuum'));
  const whole = rests.filter((rest) => rest.ended);
  const resting = trace.time[longest.to - 1] - trace.time[longest.from];
  const characteristics: Characteristic[] = [
    whole.length > 0
      ? timeOf(
          'rest-time',
          whole.map((rest) => trace.time[rest.to - 1] - trace.time[rest.from]),
          trace,
        )
      : beyond('rest-time', 'above', { value: resting, components: [] }, { code: 'rest-outlasts', seconds: resting }),
  ];
  // A rest is a hold like any other: what was shut off, and what of it can be told, is asked as there.
  const seen = columnOf(trace, 'pump_on') !== undefined;
  const held = analyseVacuumHold(
    seen ? sliceTrace(trace, from, longest.to) : trace,
    { ...context, benchVolume: context.benchVolume ?? 0 },
    {
      seconds: seen ? fullRest * (trace.time[longest.to - 1] - trace.time[from]) : watchedFor,
      volume: context.unit.volume,
      supplyVacuum: thresholds(context.unit, context.ambient)?.cutIn ?? settledVacuum(context.unit, context.ambient),
      leverChannel: 'pedal_force',
      appliedLevel: null,
      appliesAt: footOn,
    },
  );
  const loss = held.characteristics.find((each) => each.id === 'vacuum-loss');
  const flow = held.characteristics.find((each) => each.id === 'leak-flow');
  characteristics.push(
    loss?.kind !== 'measured' || flow === undefined
      ? absent('leak-flow', loss && loss.kind !== 'measured' ? loss.problem : { code: 'not-read' })
      : flow,
  );
  return {
    characteristics:
      loss?.kind === 'absent' ? characteristics.map((each) => absent(each.id, loss.problem)) : characteristics,
    events: [{ id: 'hold', time: trace.time[from] }],
    // The pump's own signal says when the rest began.
    notes: held.notes.filter((note) => !(seen && note.code === 'begins-in-hold')),
    doubts: held.doubts,
  };
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

/** A level is read over twice so long, and what the source makes up over so long after, s; air comes in within so long. */
const aroundLowest = 0.25;
const madeUpOver = 2;
const breathesWithin = 0.4;

/** Vacuum (Pa) that one stroke of the pedal costs, before the source has made it up. */
export function analyseDemand(trace: Trace, context: Context): StepAnalysis {
  const ids = ['vacuum-per-application'] as const;
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const { held } = strokesOf({ ...trace, columns: { ...trace.columns, output_pressure: supply } }, 'pedal_force');
  const [first, second] = held;
  if (!first) return nothingMeasured(ids, { code: 'no-strokes', channel: 'pedal_force' });
  const before = meanOf(supply, indexAtTime(trace, trace.time[first.from] - 0.8), first.from).mean;
  if (before < leastForDemand)
    return nothingMeasured(ids, { code: 'source-never-opened', vacuum: Math.max(0, before) });
  const half = Math.max(1, Math.round(0.1 / sampleInterval(trace)));
  const smooth = movingMean(supply, half);
  let at = first.to;
  for (let i = first.to; i < (second?.from ?? smooth.length); i++) if (!(smooth[i] >= smooth[at])) at = i;
  if (!Number.isFinite(smooth[at])) return nothingMeasured(ids, { code: 'no-release' });
  // A lowest reading is the lowest of many: the level that follows it tells what was there.
  const around = meanOf(supply, at, indexAtTime(trace, trace.time[at] + aroundLowest) + 1);
  const later = meanOf(
    supply,
    indexAtTime(trace, trace.time[at] + madeUpOver),
    indexAtTime(trace, trace.time[at] + madeUpOver + 2 * aroundLowest),
  ).mean;
  const madeUp = Number.isFinite(later) ? Math.max(0, later - around.mean) * (breathesWithin / madeUpOver) : 0;
  const instrument = context.instruments.get('supply_vacuum');
  const lowest = around.mean;
  return {
    characteristics: [
      measured('vacuum-per-application', before - lowest, [
        random('noise', noiseOf(supply) / Math.sqrt(Math.max(1, around.count))),
        // What the source made up while the air was still coming in.
        systematic('timing', madeUp),
        ...(instrument
          ? [differenceResolution(instrument), ...differenceComponents(instrument, lowest, before, context.date)]
          : []),
      ]),
    ],
    events: [],
    notes: [],
    strokes: [],
  };
}
