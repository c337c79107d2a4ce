import { fitLine, type LineFit } from '../../fitting/line';
import { random, readingComponents, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { ownSamples } from '../../traces/own-samples';
import { movingMean } from '../../traces/smoothing';
import { neverMoved } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import { evidence, noEvidence, type Evidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, measured } from '../../procedure/analysis-result';

/** Part of the end that is taken as settled, s, and the drift that still counts as settled, Pa/s. */
const settledSeconds = 3;
const settledRate = 60;
/** A vacuum below this share of what the source gives proves little. */
const leastShare = 0.8;
/** Vacuum that counts as having left zero, as a share of the settled vacuum. */
const leavesZero = 0.02;

export interface DrawOptions {
  readonly withControlPort: boolean;
  /** Vacuum that the source should give here, Pa. */
  readonly supplyVacuum: number;
}

/** A vacuum that was drawn, and where it came to stand. */
interface Drawn {
  readonly trace: Trace;
  /** First sample of the part that should have settled. */
  readonly from: number;
  readonly settled: ReturnType<typeof meanOf>;
  readonly drift: LineFit;
}

function findDraw(trace: Trace): Drawn | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const from = indexAtTime(trace, trace.time[trace.time.length - 1] - settledSeconds);
  return { trace, from, settled: meanOf(supply, from), drift: fitLine(trace.time, supply, { from }) };
}

function drawEvidence(found: Drawn, { supplyVacuum }: DrawOptions): Judged<Drawn> {
  const { settled, drift } = found;
  if (drift.termination !== 'converged' || settled.mean < 2_000) return noEvidence({ code: 'no-draw' });
  if (Math.abs(drift.slope) > settledRate + 2 * Math.sqrt(drift.slopeVariance))
    return noEvidence({ code: 'not-settled', rate: drift.slope });
  // With less vacuum than the source should give both ports agree more easily than they should.
  const needed = leastShare * supplyVacuum;
  return evidence(
    found,
    [],
    settled.mean < needed ? [{ code: 'too-little-vacuum', vacuum: settled.mean, needed }] : [],
  );
}

/**
 * Time to 95 % of the settled vacuum from the moment it leaves zero (s), and of a unit with a control port
 * |control − supply| at rest (Pa), corrected by the vacuum pair where that was compared. Channels `supply_vacuum`, `control_vacuum`.
 */
export function analyseVacuumDraw(trace: Trace, context: StepContext<unknown>, options: DrawOptions): Answered {
  return answer(vacuumDraw(options), trace, context);
}

const vacuumDraw = (options: DrawOptions): Question<StepContext<unknown>, Drawn, Drawn> => ({
  characteristics: options.withControlPort ? ['draw-time', 'rest-difference'] : ['draw-time'],
  happened: findDraw,
  shows: (found) => drawEvidence(found, options),
  comesTo: (shown, context) => {
    const { trace, from, settled } = shown;
    const port = options.withControlPort;
    return {
      characteristics: [drawTime(shown), ...(port ? [restDifference(trace, from, settled.mean, context)] : [])],
      events: [],
      notes: port && !context.corrections.vacuumPair ? [{ code: 'vacuum-pair-not-measured' }] : [],
      vacuum: settled.mean,
    };
  },
});

function drawTime({ trace, settled }: Evidence<Drawn>): Characteristic {
  const interval = sampleInterval(trace);
  const smooth = movingMean(trace.columns.supply_vacuum, Math.max(1, Math.round(0.02 / interval)));
  const leaves = smooth.findIndex((value) => value > leavesZero * settled.mean);
  const reaches = smooth.findIndex((value) => value >= 0.95 * settled.mean);
  if (leaves <= 0) return absent('draw-time', { code: 'no-draw' });
  const rate = Math.max(
    Math.abs(smooth[Math.min(smooth.length - 1, reaches + 2)] - smooth[Math.max(0, reaches - 2)]) / (4 * interval),
    1,
  );
  return measured('draw-time', trace.time[reaches] - trace.time[leaves], [
    random('timing', interval / Math.sqrt(6)),
    random('noise', settled.deviation / 3 / rate),
  ]);
}

function restDifference(trace: Trace, from: number, level: number, context: StepContext<unknown>): Characteristic {
  const control = columnOf(trace, 'control_vacuum');
  if (!control) return absent('rest-difference', { code: 'control-port-missing' });
  const samples = ownSamples(trace, control);
  if (neverMoved(samples))
    return absent('rest-difference', {
      code: 'gauge-never-moved',
      channel: 'control_vacuum',
    });
  const supply = trace.columns.supply_vacuum;
  const difference = new Float64Array(control.length - from);
  for (let i = from; i < control.length; i++) difference[i - from] = control[i] - supply[i];
  const { mean, deviation, count } = meanOf(difference);
  const components: UncertaintyComponent[] = [random('noise', deviation / Math.sqrt(count))];
  const pair = context.corrections.vacuumPair;
  if (pair) components.push(systematic('pair-offset', pair.standard));
  for (const channel of ['supply_vacuum', 'control_vacuum']) {
    const instrument = context.instruments.get(channel);
    if (!instrument) continue;
    const parts = readingComponents(instrument, level, context.date);
    components.push(...(pair ? parts.filter((part) => part.source === 'resolution') : parts));
  }
  return measured('rest-difference', Math.abs(mean - (pair?.difference ?? 0)), components);
}
