import type { Estimate, UncertaintyComponent } from '../instruments/uncertainty';
import type { CharacteristicId } from '../quantities/characteristics';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import type { Characteristic, StepAnalysis } from './step-analysis';

function isFinite(estimate: Estimate): boolean {
  return Number.isFinite(estimate.value) && estimate.components.every((part) => Number.isFinite(part.standard));
}

/** A measured characteristic, SI; absent when value or uncertainty did not come out as a number. */
export function measured(
  id: CharacteristicId,
  value: number,
  components: readonly UncertaintyComponent[],
): Characteristic {
  const estimate = { value, components };
  return isFinite(estimate)
    ? { kind: 'measured', id, estimate }
    : { kind: 'absent', id, problem: { code: 'fit-failed', termination: 'non-finite' } };
}

/** A characteristic that the trace could not carry. */
export function absent(id: CharacteristicId, problem: AnalysisProblem): Characteristic {
  return { kind: 'absent', id, problem };
}

/** A characteristic known only to lie beyond a bound. */
export function beyond(
  id: CharacteristicId,
  side: 'above' | 'below',
  bound: Estimate,
  problem: AnalysisProblem,
): Characteristic {
  return isFinite(bound) ? { kind: 'beyond', id, side, bound, problem } : { kind: 'absent', id, problem };
}

/** An analysis in which nothing could be measured, for one reason. */
export function nothingMeasured(ids: readonly CharacteristicId[], problem: AnalysisProblem): StepAnalysis {
  return { characteristics: ids.map((id) => absent(id, problem)), events: [], notes: [] };
}

/** The estimate of a measured characteristic; undefined when it was not measured. */
export function estimateOf(analysis: StepAnalysis, id: CharacteristicId): Estimate | undefined {
  const found = analysis.characteristics.find((each) => each.id === id);
  return found?.kind === 'measured' ? found.estimate : undefined;
}
