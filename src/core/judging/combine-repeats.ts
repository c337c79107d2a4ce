import type { Characteristic } from '../procedure/step-analysis';
import type { UncertaintyComponent } from '../instruments/uncertainty';

/**
 * Judged value of repeats of a step: the mean of those that were measured. Random parts shrink with the
 * number of repeats (root sum of squares over n), systematic parts are shared and taken at their mean.
 * When no repeat was measured, the last result stands.
 */
export function combineRepeats(repeats: readonly (readonly Characteristic[])[]): readonly Characteristic[] {
  const last = repeats[repeats.length - 1];
  if (repeats.length === 1) return last;
  return last.map((characteristic) => {
    const measured = repeats
      .map((each) => each.find((other) => other.id === characteristic.id))
      .filter((each) => each?.kind === 'measured');
    // A repeat that only found a bound contradicts a mean of the others: it stands until struck out.
    if (measured.length !== repeats.length) return characteristic;
    const estimates = measured.map((each) => each.estimate);
    const n = estimates.length;
    const value = estimates.reduce((sum, each) => sum + each.value, 0) / n;
    const components = estimates[n - 1].components.map((part, at): UncertaintyComponent => {
      const same = estimates.map((each) => each.components[at]?.standard ?? part.standard);
      const squares = same.reduce((sum, standard) => sum + standard ** 2, 0);
      return { ...part, standard: part.random ? Math.sqrt(squares) / n : Math.sqrt(squares / n) };
    });
    return { kind: 'measured', id: characteristic.id, estimate: { value, components } };
  });
}
