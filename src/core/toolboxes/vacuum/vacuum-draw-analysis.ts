import { fitLine } from '../../fitting/line';
import { random, readingComponents, systematic, type UncertaintyComponent } from '../../instruments/uncertainty';
import { ownSamples } from '../../traces/own-samples';
import { movingMean } from '../../traces/smoothing';
import { neverMoved } from '../../traces/stuck';
import { columnOf, indexAtTime, meanOf, sampleInterval, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';

/** Part of the end that is taken as settled, s, and the drift that still counts as settled, Pa/s. */
const settledSeconds = 3;
const settledRate = 60;
/** A vacuum below this share of what the source gives proves little. */
const leastShare = 0.8;
/** Vacuum that counts as having left zero, as a share of the settled vacuum. */
const leavesZero = 0.02;

/**
 * Time to 95 % of the settled vacuum from the moment it leaves zero (s), and of a unit with a control port
 * |control − supply| at rest (Pa), corrected by the vacuum pair where that was compared. Channels `supply_vacuum`, `control_vacuum`.
 */
export function analyseVacuumDraw(
  trace: Trace,
  context: StepContext<unknown>,
  options: { readonly withControlPort: boolean; readonly supplyVacuum: number },
): StepAnalysis {
  const ids = options.withControlPort ? (['draw-time', 'rest-difference'] as const) : (['draw-time'] as const);
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return nothingMeasured(ids, { code: 'supply-missing' });
  const end = trace.time[trace.time.length - 1];
  const from = indexAtTime(trace, end - settledSeconds);
  const settled = meanOf(supply, from);
  const drift = fitLine(trace.time, supply, { from });
  const notes: AnalysisProblem[] = [];
  if (drift.termination !== 'converged' || settled.mean < 2_000) return nothingMeasured(ids, { code: 'no-draw' });
  if (Math.abs(drift.slope) > settledRate + 2 * Math.sqrt(drift.slopeVariance))
    return nothingMeasured(ids, { code: 'not-settled', rate: drift.slope });

  const interval = sampleInterval(trace);
  const smooth = movingMean(supply, Math.max(1, Math.round(0.02 / interval)));
  const leaves = smooth.findIndex((value) => value > leavesZero * settled.mean);
  const reaches = smooth.findIndex((value) => value >= 0.95 * settled.mean);
  const characteristics: Characteristic[] = [];
  if (leaves <= 0) characteristics.push(absent('draw-time', { code: 'no-draw' }));
  else {
    const rate = Math.max(
      Math.abs(smooth[Math.min(smooth.length - 1, reaches + 2)] - smooth[Math.max(0, reaches - 2)]) / (4 * interval),
      1,
    );
    characteristics.push(
      measured('draw-time', trace.time[reaches] - trace.time[leaves], [
        random('timing', interval / Math.sqrt(6)),
        random('noise', settled.deviation / 3 / rate),
      ]),
    );
  }
  if (options.withControlPort) characteristics.push(restDifference(trace, from, settled.mean, context));
  if (options.withControlPort && !context.corrections.vacuumPair) notes.push({ code: 'vacuum-pair-not-measured' });
  // With less vacuum than the source should give both ports agree more easily than they should.
  const needed = leastShare * options.supplyVacuum;
  const doubts: AnalysisProblem[] =
    settled.mean < needed ? [{ code: 'too-little-vacuum', vacuum: settled.mean, needed }] : [];
  return { characteristics, events: [], notes, doubts, vacuum: settled.mean };
}

function restDifference(trace: Trace, from: number, level: number, context: StepContext<unknown>): Characteristic {
  const control = columnOf(trace, 'control_vacuum');
  if (!control) return absent('rest-difference', { code: 'control-port-missing' });
  const samples = ownSamples(trace, control);
  if (neverMoved(samples))
    return absent('rest-difference', {
      code: 'gauge-frozen',
      channel: 'control_vacuum',
      seconds: samples.time[samples.time.length - 1] - samples.time[0],
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
