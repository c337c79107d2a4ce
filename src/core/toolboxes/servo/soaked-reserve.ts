import { evidence, noEvidence, type Evidence, type Judged } from '../../procedure/evidence';
import type { Question } from '../../procedure/question';
import type { StepAnalysis } from '../../procedure/step-analysis';
import type { CharacteristicId } from '../../quantities/characteristics';
import { columnOf, indexAtTime, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';
import {
  findReserve,
  reserveEvidence,
  type ReserveOptions,
  type ShownReserve,
  type StrokesDrawn,
} from './reserve-analysis';

/** A soak may be so much shorter than asked. */
const nearly = 0.9;
/** A source that stopped less than this before a stroke may as well have been on, s. */
const atOnce = 3;
/** A store counts as filled from this share of its highest. */
const filled = 0.97;

/** Whether the source was still on when the stroke that begins at sample `stroke` was made, by `engine_on`. */
function stillOn(trace: Trace, stroke: number): boolean {
  const engine = columnOf(trace, 'engine_on');
  const from = indexAtTime(trace, trace.time[stroke] - atOnce);
  return engine !== undefined && engine.subarray(from, stroke + 1).some((each) => each > 0.5);
}

/**
 * Whether a reserve stood for `needed` seconds before the stroke that begins at sample `stroke`: from where `engine_on` fell, or, where
 * nobody recorded that, at most from where the store was full. Empty where it did.
 */
function soakDoubts(trace: Trace, stroke: number, store: string, needed: number): AnalysisProblem[] {
  const engine = columnOf(trace, 'engine_on');
  const level = columnOf(trace, store);
  let from = 0;
  if (engine) for (let i = 0; i < stroke; i++) if (engine[i] > 0.5) from = i;
  if (!engine && level) {
    const highest = level.subarray(0, stroke).reduce((most, each) => (each > most ? each : most), -Infinity);
    from = Math.max(
      0,
      level.findIndex((each) => each >= filled * highest),
    );
  }
  const seconds = trace.time[stroke] - trace.time[from];
  return seconds < nearly * needed ? [{ code: 'soaked-too-briefly', seconds, needed }] : [];
}

/** What happened in a soak: the strokes after it, whether the source was still on, and what is not known of its length. */
export interface Soaked extends StrokesDrawn {
  readonly stillOn: boolean;
  readonly doubts: readonly AnalysisProblem[];
}

/** What is asked of a soak and the strokes after it, whatever they have to come to. */
export function soakQuestion<Context>(
  characteristics: readonly CharacteristicId[],
  options: ReserveOptions & { readonly soakSeconds: number },
  asks: {
    /** Whether the strokes are evidence; those of a reserve where left out. */
    readonly shows?: (found: Soaked) => Judged<ShownReserve>;
    readonly comesTo: (shown: Evidence<ShownReserve>, context: Context) => StepAnalysis;
  },
): Question<Context, Soaked, ShownReserve> {
  const shows = asks.shows ?? ((found) => reserveEvidence(found, options));
  return {
    characteristics,
    happened: (trace) => {
      const found = findReserve(trace, options);
      if (!('held' in found)) return found;
      const stroke = found.held[0].from;
      return {
        ...found,
        stillOn: stillOn(trace, stroke),
        doubts: soakDoubts(trace, stroke, options.store.channel, options.soakSeconds),
      };
    },
    shows: (found) => {
      if (found.stillOn) return noEvidence({ code: 'source-still-on' });
      const judged = shows(found);
      return judged.kind === 'none'
        ? judged
        : evidence(judged.found, judged.notes, [...judged.doubts, ...found.doubts]);
    },
    comesTo: asks.comesTo,
  };
}
