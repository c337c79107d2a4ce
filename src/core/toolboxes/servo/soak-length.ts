import { columnOf, indexAtTime, type Trace } from '../../traces/trace';
import type { AnalysisProblem } from '../../vocabulary/analysis-problem';

/** A soak may be so much shorter than asked. */
const nearly = 0.9;
/** A source that stopped less than this before a stroke may as well have been on, s. */
const atOnce = 3;
/** A store counts as filled from this share of its highest. */
const filled = 0.97;

/** Whether the source was still on when the stroke that begins at sample `stroke` was made, by `engine_on`. */
export function stillOn(trace: Trace, stroke: number): boolean {
  const engine = columnOf(trace, 'engine_on');
  const from = indexAtTime(trace, trace.time[stroke] - atOnce);
  return engine !== undefined && engine.subarray(from, stroke + 1).some((each) => each > 0.5);
}

/**
 * Whether a reserve stood for `needed` seconds before the stroke that begins at sample `stroke`: from where `engine_on` fell, or, where
 * nobody recorded that, at most from where the store was full. Empty where it did.
 */
export function soakDoubts(trace: Trace, stroke: number, store: string, needed: number): AnalysisProblem[] {
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
