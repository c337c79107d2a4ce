import { stuckProblem } from '../../procedure/stuck-problem';
import { fitExponentialDecay } from '../../fitting/decay';
import {
  differenceComponents,
  differenceResolution,
  random,
  readingComponents,
  systematic,
  type UncertaintyComponent,
} from '../../instruments/uncertainty';
import { ambientStandard } from '../../quantities/standard-atmosphere';
import { fitLine } from '../../fitting/line';
import { longestGap, ownSamples, samplesBetween, type Samples } from '../../traces/own-samples';
import { movingMean, noiseOf } from '../../traces/smoothing';
import { findStuck } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, sliceTrace, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import { absent, beyond, measured, nothingMeasured } from '../../procedure/analysis-result';
import { meanAndSpread, pumpRuns, type PumpRun } from '../../traces/pump-runs';
import { analyseVacuumHold } from '../../toolboxes/vacuum/hold-analysis';
import { strokesOf } from '../../toolboxes/servo/reserve-analysis';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { settledVacuum, thresholds, type VacuumSupplyUnit } from './geometry';

type Context = StepContext<VacuumSupplyUnit>;

/** A volume measured with rule and calliper is good to about this. */
const volumeShare = 0.05;

function gaugeAt(vacuum: number, context: Context): UncertaintyComponent[] {
  const instrument = context.instruments.get('supply_vacuum');
  return instrument ? readingComponents(instrument, vacuum, context.date) : [];
}

function volumeOf(context: Context): number {
  return context.unit.volume + (context.benchVolume ?? 0);
}

/** Vacuum from which a pump-down counts as begun, as a share of its highest. */
const begun = 0.03;

/**
 * Pump-down: p(t) = p_u + (p_0 − p_u)·exp(−S·t/Vol) fitted from where the vacuum leaves zero. Gives the pump's speed S
 * (m3/s, free air at its inlet), its ultimate pressure p_u (Pa absolute) and the time to 95 % of the settled vacuum (s).
 * Channel `supply_vacuum`; `pump_on` tells whether it was called for.
 */
export function analysePumpDown(trace: Trace, context: Context): StepAnalysis {
  const ids = ['pump-speed', 'ultimate-pressure', 'draw-time'] as const;
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const half = Math.max(1, Math.round(0.05 / sampleInterval(trace)));
  const smooth = movingMean(supply, half);
  let highest = 0;
  for (const value of smooth) highest = Math.max(highest, value);
  if (highest < 2_000) return nothingMeasured(ids, { code: 'nothing-builds', vacuum: highest });
  let from = 0;
  while (from < smooth.length && !(smooth[from] >= begun * highest)) from++;
  if (from === 0) return nothingMeasured(ids, { code: 'no-draw' });
  const samples = ownSamples(trace, supply);
  const stuck = findStuck(samples, context.instruments.get('supply_vacuum')?.range ?? null);
  if (stuck && stuck.from > trace.time[from]) return nothingMeasured(ids, stuckProblem(stuck, 'supply_vacuum'));
  const to = drawnUntil(trace, smooth, from, highest);
  const gap = longestGap(samples, trace.time[from], trace.time[to - 1]);
  if (gap > longestGapShare * (trace.time[to - 1] - trace.time[from]))
    return nothingMeasured(ids, { code: 'gap-in-pull', channel: 'supply_vacuum', seconds: gap });
  const drawn = samplesBetween(samples, trace.time[from], trace.time[to - 1]);
  const fit = fitExponentialDecay(drawn.time, drawn.value);
  if (fit.termination !== 'converged' || fit.kind !== 'exponential' || fit.tau <= 0)
    return nothingMeasured(ids, { code: 'fit-failed', termination: fit.termination });
  const covered = trace.time[to - 1] - trace.time[from];
  if (covered < 1.5 * fit.tau)
    return nothingMeasured(ids, { code: 'not-settled', rate: (fit.settled - highest) / fit.tau });
  const speed = volumeOf(context) / fit.tau;
  const tauShare = Math.sqrt(Math.max(0, fit.tauVariance)) / fit.tau;
  const target = 0.95 * fit.settled;
  // From the atmosphere, where the exponential would have begun, not from the first sample.
  const start = trace.time[from] - fit.tau * Math.log((fit.settled - 0) / (fit.settled - fit.start));
  const reaches = fit.tau * Math.log(fit.settled / (fit.settled - target));
  return {
    characteristics: [
      measured('pump-speed', speed, [
        random('fit', speed * tauShare),
        systematic('volume', speed * volumeShare),
        systematic('gas-heat', speed * heatShare(drawn, fit)),
      ]),
      measured('ultimate-pressure', context.ambient.pressure - fit.settled, [
        random('fit', Math.sqrt(Math.max(0, fit.settledVariance))),
        ...gaugeAt(fit.settled, context),
        // What the gauge shows is a difference: the air itself is no better known.
        systematic('gauge-zero', ambientStandard(context.ambient)),
      ]),
      measured('draw-time', reaches, [
        random('fit', reaches * tauShare),
        random('timing', Math.max(sampleInterval(trace), Math.abs(trace.time[from] - start) * 0.1)),
      ]),
    ],
    events: [],
    notes: sensorNotes(trace),
    vacuum: fit.settled,
  };
}

/** A draw that lost this share of its highest again was vented, or the pump was stopped. */
const ventedShare = 0.04;
const longestGapShare = 0.2;

/** First sample after a draw: where the vacuum goes again, or the trace ends. */
function drawnUntil(trace: Trace, smooth: Float64Array, from: number, highest: number): number {
  let peak = 0;
  for (let i = from; i < smooth.length; i++) {
    peak = Math.max(peak, smooth[i] || 0);
    if (peak > 0.5 * highest && smooth[i] < peak - ventedShare * highest) {
      // Back to where it began to go.
      let at = i;
      while (at > from && smooth[at - 1] >= smooth[at]) at--;
      return Math.max(from + 1, at);
    }
  }
  return trace.time.length;
}

/** Ratio of the specific heats of air; the shell takes on the gas's temperature within about this, s. */
const heatRatio = 1.4;
const exchangesWithin = 3;

/**
 * What heat makes of a speed, one sigma as a share: gas that is drawn off quickly cools and seems to be drawn 1.4 times as fast
 * (adiabatic), slowly it keeps its shell's temperature (isothermal); between the two by how long the draw is. Never more than
 * the draw itself can hide: gas that cools at first warms later, and the first of the draw is then quicker than the rest.
 */
function heatShare({ time, value }: Samples, fit: { readonly tau: number; readonly settled: number }): number {
  const most = ((heatRatio - 1) * exchangesWithin) / (exchangesWithin + fit.tau) / Math.sqrt(3);
  const left = value.map((each) => Math.log(Math.max(1e-3, 1 - each / fit.settled)));
  const piece = (from: number, to: number) =>
    fitLine(time, left, { keep: (i) => time[i] - time[0] >= from * fit.tau && time[i] - time[0] < to * fit.tau });
  const [early, late] = [piece(0, 0.8), piece(0.8, 2)];
  if (early.termination !== 'converged' || late.termination !== 'converged') return most;
  const apart = early.slope / late.slope - 1;
  const standard = Math.hypot(Math.sqrt(early.slopeVariance) / early.slope, Math.sqrt(late.slopeVariance) / late.slope);
  return Math.min(most, Math.hypot(apart, 2 * standard));
}

/** The vehicle's own sensor and the gauge on the tee may differ by this, Pa. */
const sensorMayDiffer = 3_000;

/** The sensor over the scan tool against the gauge on the tee. */
function sensorNotes(trace: Trace): AnalysisProblem[] {
  const supply = columnOf(trace, 'supply_vacuum');
  const sensor = columnOf(trace, 'reservoir_vacuum');
  if (!supply || !sensor) return [];
  const from = Math.floor(supply.length / 2);
  const difference = meanOf(sensor, from).mean - meanOf(supply, from).mean;
  return Math.abs(difference) > sensorMayDiffer ? [{ code: 'sensor-differs', difference }] : [];
}

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
  const late = Math.hypot(sampleInterval(trace) / Math.sqrt(12), gaugeLag);
  const moved = (i: number) => late * slopeAt(trace, supply, i);
  const whole = runs.flatMap(({ start, stop }) => (stop === null ? [] : [{ start, stop }]));
  const characteristics: Characteristic[] = [
    levelOf('pump-cut-in', starts, context, Math.max(...runs.map((run) => moved(run.start)))),
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
        Math.max(...whole.map((run) => moved(run.stop))),
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

/** Steepest change of a column (SI a second) just before or after a sample. */
function slopeAt(trace: Trace, column: Float64Array, at: number): number {
  const slopes = [
    { from: indexAtTime(trace, trace.time[at] - slopeOver), to: at + 1 },
    { from: at, to: Math.min(column.length, indexAtTime(trace, trace.time[at] + slopeOver) + 1) },
  ].map((span) => {
    const [first, last] = [column[span.from], column[span.to - 1]];
    const seconds = trace.time[span.to - 1] - trace.time[span.from];
    return seconds > 0 ? Math.abs(last - first) / seconds : 0;
  });
  return Math.max(...slopes.filter((slope) => Number.isFinite(slope)), 0);
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
  let lowest = Infinity;
  for (let i = first.to; i < (second?.from ?? smooth.length); i++) lowest = Math.min(lowest, smooth[i]);
  if (!Number.isFinite(lowest)) return nothingMeasured(ids, { code: 'no-release' });
  const instrument = context.instruments.get('supply_vacuum');
  return {
    characteristics: [
      measured('vacuum-per-application', before - lowest, [
        random('noise', noiseOf(supply) / Math.sqrt(half)),
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
