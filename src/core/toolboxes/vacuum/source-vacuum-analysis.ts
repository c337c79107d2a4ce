import { random, readingComponents } from '../../instruments/uncertainty';
import { ambientStandard, seaLevelPressure } from '../../quantities/standard-atmosphere';
import { columnOf, indexAtTime, meanOf, type Trace } from '../../traces/trace';
import { fitLine } from '../../fitting/line';
import { ownSamples, type Samples } from '../../traces/own-samples';
import { neverMoved } from '../../traces/stuck';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import type { Limit } from '../../procedure/limit';
import { evidence, noEvidence, type Judged, type NoEvidence } from '../../procedure/evidence';
import { answer, type Answered, type Question } from '../../procedure/question';
import type { Characteristic } from '../../procedure/step-analysis';
import type { Span } from '../../traces/pull';
import type { StepContext } from '../../procedure/step-context';
import { absent, measured } from '../../procedure/analysis-result';
import { restatedSource, type SourceKind } from './source-vacuum';
import { findStrokes } from '../../traces/strokes';

/** Idle vacuum is the mean of this long before the pedal moves, held vacuum that of the end of the hold, s. */
const idleSeconds = 3;
const heldSeconds = 1;
/** The pedal counts as moving when it leaves this share of its held level. */
const pedalMoves = 0.05;

function reading(id: 'idle-vacuum' | 'held-vacuum', part: ReturnType<typeof meanOf>, context: StepContext<unknown>) {
  const instrument = context.instruments.get('supply_vacuum');
  return measured(id, part.mean, [
    random('noise', part.deviation / Math.sqrt(Math.max(1, part.count))),
    ...(instrument ? readingComponents(instrument, part.mean, context.date) : []),
  ]);
}

/** What a source gave: before the pedal moved, and while it was held last. */
interface SourceSeen {
  readonly trace: Trace;
  readonly samples: Samples;
  /** Samples of the idle, before the pedal moved. */
  readonly idle: Span;
  readonly stroke: Span | undefined;
}

function findSource(trace: Trace, lever: string): SourceSeen | NoEvidence {
  const supply = columnOf(trace, 'supply_vacuum');
  if (!supply) return noEvidence({ code: 'supply-missing' });
  const column = columnOf(trace, lever);
  const strokes = column ? findStrokes(trace, column) : [];
  const [first] = strokes;
  let moves = trace.time.length;
  if (column && first) {
    moves = first.from;
    while (moves > 0 && column[moves] > pedalMoves * first.level) moves--;
  }
  const from = indexAtTime(trace, trace.time[Math.max(0, moves - 1)] - idleSeconds);
  return { trace, samples: ownSamples(trace, supply), idle: { from, to: moves }, stroke: strokes.at(-1) };
}

function sourceEvidence(found: SourceSeen): Judged<SourceSeen> {
  const { trace, samples, idle, stroke } = found;
  const stood = samples.value.length > fewestSeen && neverMoved(samples);
  // At an even idle a coarse gauge may stand; under a foot none does.
  if (stroke && stood) return noEvidence({ code: 'gauge-never-moved', channel: 'supply_vacuum' });
  if (samples.value.every((value) => value < leastSeen)) {
    const { mean } = meanOf(trace.columns.supply_vacuum, idle.from, idle.to);
    return noEvidence({ code: 'source-never-opened', vacuum: Math.max(0, mean) });
  }
  return evidence(found, stood ? [{ code: 'taken-as-quiet', channel: 'supply_vacuum' }] : []);
}

/**
 * Source vacuum at the unit (Pa): at idle before the pedal moves, and at the end of the last hold of it.
 * Channels `supply_vacuum`, and the lever's for the hold.
 */
export function analyseSourceVacuum(trace: Trace, context: StepContext<unknown>, lever: string): Answered {
  return answer(sourceVacuum(lever), trace, context);
}

const sourceVacuum = (lever: string): Question<StepContext<unknown>, SourceSeen, SourceSeen> => ({
  characteristics: ['idle-vacuum', 'held-vacuum'],
  happened: (trace) => findSource(trace, lever),
  shows: sourceEvidence,
  comesTo: ({ trace, idle, stroke }, context) => {
    const supply = trace.columns.supply_vacuum;
    const heldFrom = (to: number) => indexAtTime(trace, trace.time[to - 1] - heldSeconds);
    const held = stroke
      ? reading('held-vacuum', meanOf(supply, Math.max(stroke.from, heldFrom(stroke.to)), stroke.to), context)
      : absent('held-vacuum', { code: 'no-pull', channel: lever });
    return {
      characteristics: [idleOf(trace, supply, idle, context), held],
      events: [],
      notes: [],
      vacuum: meanOf(supply, idle.from, idle.to).mean,
    };
  },
});

/** With fewer samples nobody can tell that a channel stood still; below this vacuum nobody opened a source, Pa. */
const fewestSeen = 10;
const leastSeen = 2_000;
/** Vacuum that changes by more than this over what is read is not yet, or no longer, that of the idle, Pa. */
const stillChanging = 1_500;

/** Idle vacuum over a span, where it stood. */
function idleOf(
  trace: Trace,
  supply: Float64Array,
  span: { readonly from: number; readonly to: number },
  context: StepContext<unknown>,
): Characteristic {
  const idle = meanOf(supply, span.from, span.to);
  if (idle.count === 0) return absent('idle-vacuum', { code: 'no-rest-before' });
  const line = fitLine(trace.time, supply, span);
  const changed = line.slope * (trace.time[span.to - 1] - trace.time[span.from]);
  // Still rising after the start it is too low, still falling after a stop too high.
  return line.termination === 'converged' &&
    Math.abs(changed) > stillChanging &&
    line.slope ** 2 > 9 * line.slopeVariance
    ? absent('idle-vacuum', { code: 'still-changing', channel: 'supply_vacuum', by: Math.abs(changed) })
    : reading('idle-vacuum', idle, context);
}

/** Altitude makes no difference to a source closer to the sea than this, Pa. */
const asAtSea = 500;

/**
 * Least source vacuum in today's air by the workshop's school: an idling engine keeps its absolute pressure, a pump
 * its ratio. Without a `sourceKind` nobody can say how to restate it, and the check is undecided (except at the sea).
 */
export function leastVacuumLimits(
  ids: readonly ('idle-vacuum' | 'held-vacuum')[],
  kind: SourceKind | undefined,
  context: StepContext<unknown>,
): Limit[] {
  const { workshopLimits: shop, schools, ambient } = context;
  const at = (seaLevel: number) => restatedSource(seaLevel, kind ?? 'pump', ambient);
  const strict = schools.leastVacuum === 'eighteen';
  const seaLevel = strict ? shop.leastVacuumStrict : shop.leastVacuum;
  const spread = Math.abs(restatedSource(seaLevel, 'pump', ambient) - restatedSource(seaLevel, 'manifold', ambient));
  const unknown: AnalysisProblem | undefined =
    kind === undefined && spread > asAtSea ? { code: 'source-kind-missing' } : undefined;
  return ids.map((characteristic) => ({
    characteristic,
    low: at(seaLevel),
    high: null,
    expected: null,
    // What is restated for today's air is no surer than the air.
    standard: ambientStandard(ambient) * (kind === 'manifold' ? 1 : seaLevel / seaLevelPressure),
    source: { kind: 'workshop', key: strict ? 'leastVacuumStrict' : 'leastVacuum' },
    restatedFrom: seaLevel,
    ...(schools.leastVacuum === 'both' ? { stricterLow: at(shop.leastVacuumStrict) } : {}),
    ...(unknown ? { withheld: unknown } : {}),
  }));
}
