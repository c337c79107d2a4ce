import { random, readingComponents, systematic } from '../../../instruments/uncertainty';
import { beyond, measured } from '../../../procedure/analysis-result';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../../procedure/evidence';
import { answer, type Answered, type Question } from '../../../procedure/question';
import type { Characteristic, StepAnalysis } from '../../../procedure/step-analysis';
import type { StepContext } from '../../../procedure/step-context';
import { stuckProblem } from '../../../procedure/stuck-problem';
import { ownSamples } from '../../../traces/own-samples';
import { meanAndSpread, pumpRuns, stepAt, type PumpRun } from '../../../traces/pump-runs';
import { findStuck, type Stuck } from '../../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../../traces/trace';
import type { StoreCircuit } from '../model/store-unit';
import { withoutRun } from './precharge-analysis';

const { hypot, max, min, round, sqrt } = Math;

/** Stretch before a switching over which a level is read, and over which its slope is, s. */
const levelSeconds = 0.08;
const slopeSeconds = 0.5;
/** A gauge without a record of its lag reads so late, one sigma, s; a record is good to this share. */
const unknownLag = 0.05;
const recordShare = 0.2;
/** A pump that ran must have moved its store by more than this share of the band between the switchings. */
const leastMoved = 0.1;

interface Level {
  readonly value: number;
  /** By how much lag and sampling may be wrong, one sigma, Pa. */
  readonly late: number;
}

/** Pressure (Pa gauge) at a switching: the level before it, carried on to it along its own slope and by the gauge's lag. */
function levelAtSwitch(
  trace: Trace,
  column: Float64Array,
  at: number,
  earliest: number,
  lag: number | undefined,
): Level {
  const interval = sampleInterval(trace);
  const half = max(1, round(levelSeconds / interval));
  const from = max(earliest, at - half);
  const far = max(earliest, min(from, indexAtTime(trace, trace.time[at] - slopeSeconds)));
  const near = meanOf(column, from, at).mean;
  const before = meanOf(column, far, min(at, far + half)).mean;
  const middle = (first: number, last: number) => (trace.time[first] + trace.time[max(first, last - 1)]) / 2;
  const seconds = middle(from, at) - middle(far, min(at, far + half));
  const slope = seconds > 0 ? (near - before) / seconds : 0;
  const carried = trace.time[at] - interval / 2 - middle(from, at) + (lag ?? 0);
  const doubt = hypot(interval / sqrt(12), lag === undefined ? unknownLag : recordShare * lag);
  return { value: near + slope * carried, late: hypot(slope * doubt, stepAt(column, at) / sqrt(3)) };
}

/** A pump's runs and what its store did in them. */
interface SwitchingsFound {
  readonly trace: Trace;
  readonly column: Float64Array;
  readonly runs: readonly PumpRun[];
  readonly stuck: Stuck | null;
  /** The most that the store moved while the pump ran, Pa. */
  readonly moved: number;
}

function findSwitchings<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): SwitchingsFound | NoEvidence {
  const column = columnOf(trace, circuit.pressure);
  const pump = columnOf(trace, circuit.pump);
  if (!column) return noEvidence({ code: 'channel-missing', channel: circuit.pressure });
  if (!pump) return noEvidence({ code: 'no-pump-signal' });
  const runs = pumpRuns(pump);
  return {
    trace,
    column,
    runs,
    stuck: findStuck(ownSamples(trace, column), context.instruments.get(circuit.pressure)?.range ?? null),
    moved: max(0, ...runs.map((run) => movedBy(column, run))),
  };
}

/** Whether a pump was seen to switch, on a gauge that follows it. */
function switchingsEvidence<Unit>(
  found: SwitchingsFound,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Judged<SwitchingsFound> {
  const { trace, runs, stuck, moved } = found;
  if (runs.length === 0) return noEvidence(withoutRun(trace, trace.columns[circuit.pump]));
  if (stuck) return noEvidence(stuckProblem(stuck, circuit.pressure));
  const { cutIn, cutOut } = circuit.storeOf(context.unit);
  return moved > leastMoved * (cutOut - cutIn)
    ? evidence(found)
    : noEvidence({ code: 'does-not-follow', channel: circuit.pressure });
}

/**
 * Pressures (Pa gauge) at which a pump starts and stops, means over its runs. Channels: the circuit's pressure and pump signal. No figure
 * from a gauge that stood still while the pump ran.
 */
export function analyseStoreSwitch<Unit>(
  trace: Trace,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): Answered {
  const question: Question<StepContext<Unit>, SwitchingsFound, SwitchingsFound> = {
    characteristics: [`store-cut-in${circuit.place}`, `store-cut-out${circuit.place}`],
    happened: (read) => findSwitchings(read, circuit, context),
    shows: (found) => switchingsEvidence(found, circuit, context),
    comesTo: (shown) => switchingsOf(shown, circuit, context),
  };
  return answer(question, trace, context);
}

function switchingsOf<Unit>(
  { trace, column, runs }: Evidence<SwitchingsFound>,
  circuit: StoreCircuit<Unit>,
  context: StepContext<Unit>,
): StepAnalysis {
  const ids = [`store-cut-in${circuit.place}`, `store-cut-out${circuit.place}`] as const;
  const instrument = context.instruments.get(circuit.pressure);
  const lag = instrument?.lagSeconds;
  const stops = runs.flatMap((run) => (run.stop === null ? [] : [{ at: run.stop, since: run.start }]));
  const starts = runs.map((run, n) => ({ at: run.start, since: n > 0 ? (runs[n - 1].stop ?? 0) : 0 }));
  const characteristic = (id: (typeof ids)[number], switchings: typeof starts): Characteristic => {
    const levels = switchings.map(({ at, since }) => levelAtSwitch(trace, column, at, since, lag));
    const { mean, standard } = meanAndSpread(levels.map((level) => level.value));
    return measured(id, mean, [
      random('noise', max(standard, 4e3)),
      systematic('timing', max(...levels.map((level) => level.late))),
      ...(instrument ? readingComponents(instrument, mean, context.date) : []),
    ]);
  };
  const last = column.length - 1;
  const end = meanOf(column, max(0, last - round(levelSeconds / sampleInterval(trace))), last).mean;
  const seconds = trace.time[last] - trace.time[runs[0].start];
  const endParts = instrument ? readingComponents(instrument, end, context.date) : [];
  return {
    characteristics: [
      characteristic(ids[0], starts),
      stops.length > 0
        ? characteristic(ids[1], stops)
        : beyond(
            ids[1],
            'above',
            { value: end, components: endParts },
            { code: 'pump-never-stopped-charging', seconds },
          ),
    ],
    events: runs.map((run) => ({ id: 'pump-starts', time: trace.time[run.start] })),
    notes: [],
  };
}

/** Range of a column's readings while a pump ran. */
function movedBy(column: Float64Array, { start, stop }: PumpRun): number {
  let [low, high] = [Infinity, -Infinity];
  for (const value of column.subarray(start, stop ?? column.length)) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return high - low;
}
