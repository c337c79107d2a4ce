import { expandedUncertainty } from '../instruments/uncertainty';
import type { CharacteristicId } from '../quantities/characteristics';
import type { Characteristic } from '../procedure/step-analysis';
import type { StepEvaluation } from './evaluate-unit';

/** What became of a characteristic from one round of testing to another. */
export interface Change {
  readonly step: string;
  readonly id: CharacteristicId;
  readonly before: Characteristic;
  readonly after: Characteristic;
  /** After minus before with its U, SI; null where one of them is no number. */
  readonly difference: { readonly value: number; readonly expanded: number } | null;
  /** Whether it moved by more than its U, or became a number, or none. */
  readonly moved: boolean;
}

function changeOf(step: string, before: Characteristic, after: Characteristic): Change {
  const { id } = after;
  if (before.kind !== 'measured' || after.kind !== 'measured')
    return { step, id, before, after, difference: null, moved: before.kind !== after.kind };
  const value = after.estimate.value - before.estimate.value;
  // What both share (a gauge's own error) would cancel: kept in, the change is never said to be surer than it is.
  const expanded = Math.hypot(expandedUncertainty(before.estimate), expandedUncertainty(after.estimate));
  return { step, id, before, after, difference: { value, expanded }, moved: Math.abs(value) > expanded };
}

/** Every characteristic that was looked for both before and after, in the order of the steps after. */
export function changesOf(
  before: readonly Pick<StepEvaluation, 'step' | 'characteristics'>[],
  after: readonly Pick<StepEvaluation, 'step' | 'characteristics'>[],
): readonly Change[] {
  return after.flatMap(({ step, characteristics }) => {
    const was = before.find((each) => each.step === step);
    return characteristics.flatMap((found): Change[] => {
      const earlier = was?.characteristics.find((each) => each.id === found.id);
      return earlier && earlier !== found ? [changeOf(step, earlier, found)] : [];
    });
  });
}
