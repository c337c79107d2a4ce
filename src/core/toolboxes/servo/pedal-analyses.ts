import { differenceComponents, differenceResolution, random, systematic } from '../../instruments/uncertainty';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from '../../procedure/step-analysis';
import type { StepContext } from '../../procedure/step-context';
import { absent, measured, nothingMeasured } from '../../procedure/analysis-result';
import { exhaustion, strokesOf } from './reserve-analysis';
import { findStrokes } from '../../traces/strokes';

/** Means are taken over this long, s. */
const meanSeconds = 0.8;
/** A foot that changed by more than this share was not still. */
const steady = 0.15;

/**
 * How far the pedal sinks (m) under a held foot when the engine starts, after the reserve was pumped away. The hold is
 * the last stroke; the engine's start is read from `engine_on`, else the first and last part of the hold are
 * compared. Channels `pedal_force`, `pedal_travel`.
 */
export function analysePedalDrop(trace: Trace, context: StepContext<unknown>): StepAnalysis {
  const ids = ['pedal-sink'] as const;
  const force = columnOf(trace, 'pedal_force');
  const travel = columnOf(trace, 'pedal_travel');
  if (!force || !travel) return nothingMeasured(ids, { code: 'no-pull', channel: 'pedal_travel' });
  const hold = findStrokes(trace, force).at(-1);
  if (!hold || trace.time[hold.to - 1] - trace.time[hold.from] < 2.5 * meanSeconds)
    return nothingMeasured(ids, { code: 'no-hold', channel: 'pedal_force', seconds: 3 });
  const engine = columnOf(trace, 'engine_on');
  let start = hold.from;
  if (engine) {
    while (start < hold.to && !(engine[start] > 0.5)) start++;
    if (start >= hold.to || start === hold.from) return nothingMeasured(ids, { code: 'engine-not-started' });
  } else start = indexAtTime(trace, trace.time[hold.from] + meanSeconds);
  const mean = (column: Float64Array, from: number, to: number) => meanOf(column, Math.max(hold.from, from), to);
  const beforeFrom = indexAtTime(trace, trace.time[start] - meanSeconds);
  const afterFrom = indexAtTime(trace, trace.time[hold.to - 1] - meanSeconds);
  const before = mean(travel, beforeFrom, start);
  const after = mean(travel, afterFrom, hold.to);
  const forceBefore = mean(force, beforeFrom, start).mean;
  const moved = Math.abs(mean(force, afterFrom, hold.to).mean - forceBefore) / forceBefore;
  const notes: AnalysisProblem[] = moved > steady ? [{ code: 'foot-not-still', share: moved }] : [];
  const { strokes } = strokesOf(trace, 'pedal_force');
  notes.push(...exhaustion(strokes.slice(0, -1), context));
  const instrument = context.instruments.get('pedal_travel');
  return {
    characteristics: [
      measured('pedal-sink', after.mean - before.mean, [
        random(
          'noise',
          Math.hypot(before.deviation / Math.sqrt(before.count), after.deviation / Math.sqrt(after.count)),
        ),
        ...(instrument
          ? [
              differenceResolution(instrument),
              ...differenceComponents(instrument, before.mean, after.mean, context.date),
            ]
          : []),
      ]),
    ],
    events: [{ id: 'engine-starts', time: trace.time[start] }],
    notes,
  };
}

/**
 * Output pressure with vacuum over output without at one pedal force: the first stroke is without, the last with.
 * Forces that differ are counted as doubt, in proportion. Channels `pedal_force`, `output_pressure`.
 */
export function analyseSameForcePair(trace: Trace): StepAnalysis {
  const ids = ['vehicle-ratio'] as const;
  const force = columnOf(trace, 'pedal_force');
  if (!force || !columnOf(trace, 'output_pressure'))
    return nothingMeasured(ids, { code: 'no-pull', channel: 'pedal_force' });
  const { strokes, held } = strokesOf(trace, 'pedal_force');
  if (strokes.length < 2) return nothingMeasured(ids, { code: 'no-strokes', channel: 'pedal_force' });
  const without = strokes[0];
  const withVacuum = strokes[strokes.length - 1];
  const apart = Math.abs(held[held.length - 1].level - held[0].level) / held[0].level;
  if (apart > steady) return nothingMeasured(ids, { code: 'foot-not-still', share: apart });
  return { characteristics: [ratio(without.output, withVacuum.output, apart)], events: [], notes: [], strokes };
}

function ratio(without: number, withVacuum: number, apart: number): Characteristic {
  // Below this the unassisted push gives nothing that a quotient could be formed with.
  if (without < 50e3) return absent('vehicle-ratio', { code: 'unassisted-too-small', pressure: without });
  const value = withVacuum / without;
  return measured('vehicle-ratio', value, [
    systematic('force-match', value * apart),
    // One gauge reads both: what remains is its linearity and a second or two of noise.
    systematic('gauge-linearity', value * 0.01),
    random('noise', (value * 4e3) / without),
  ]);
}
