import { heightAt, meetingOf, type Line } from '../../../fitting/point-lines';

/** Both gauges at one moment: Pa gauge, and Pa gauge or N. */
export interface MarkedPoint {
  readonly input: number;
  readonly output: number;
}

/** What a boost curve read at a few points tells; NaN where it does not. Pa gauge, N. */
export type PointFigures = Readonly<
  Record<'cutIn' | 'slope' | 'runOut' | 'runOutOutput' | 'ratio' | 'atReference' | 'hysteresis', number>
>;

/**
 * The figures of a boost curve by its lines: of a unit that passes `passes` for each unit of input without help, pulled to `peak`, with
 * a point of the way back where there is one, at a reference input. Null where nothing is boosted.
 */
export function pointFigures(
  { modulating, beyond }: { readonly modulating: Line; readonly beyond: Line | null },
  of: { readonly passes: number; readonly peak: number; readonly back: MarkedPoint | null; readonly reference: number },
): PointFigures | null {
  const { passes, peak, back, reference } = of;
  const excess = modulating.slope - passes;
  if (!(excess > 0)) return null;
  const cutIn = -modulating.intercept / excess;
  const runOut = beyond ? meetingOf(modulating, beyond) : Number.NaN;
  const line = beyond && reference > runOut ? beyond : modulating;
  const atReference =
    reference > peak ? Number.NaN : reference < cutIn ? passes * reference : heightAt(line, reference);
  const onApply = back ? (back.output - modulating.intercept) / modulating.slope : Number.NaN;
  const comparable = back !== null && onApply > cutIn && !(onApply > runOut);
  return {
    cutIn,
    slope: modulating.slope,
    runOut,
    runOutOutput: Number.isNaN(runOut) ? Number.NaN : heightAt(modulating, runOut),
    ratio: atReference / reference,
    atReference,
    hysteresis: comparable ? onApply - back.input : Number.NaN,
  };
}
