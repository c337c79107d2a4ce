import type { AnyFamily } from '@/core/contract/family';
import type { ActiveFault } from '@/core/physics/plant';
import { contextAt } from '@/core/formats/site-file';
import { checkSpec } from '@/core/formats/unit-sheet';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import { simulateStep } from '@/core/rig/run-step';

/** The example of a family on the stand-in bench at 1,420 m: every measured step of its first plan, judged. */
export function faultBench(family: AnyFamily) {
  const checked = checkSpec(family, 'study', family.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23');
  return function evaluateWith(faults: readonly ActiveFault[]): Readonly<Record<string, StepEvaluation>> {
    const evidence = family.steps.flatMap((step): StepEvidence[] =>
      step.kind === 'measured'
        ? [
            {
              kind: 'traces',
              step: step.id,
              traces: [simulateStep(family, step, context, { faults, benchSeed: 5, runSeed: 5 })],
            },
          ]
        : [],
    );
    const evaluation = evaluateUnit(family, family.plans[0].steps, evidence, { context, policy: 'guarded' });
    return Object.fromEntries(evaluation.steps.map((step) => [step.step, step]));
  };
}

/** Value of a characteristic that a step measured; NaN where it did not. */
export function measuredValue(step: StepEvaluation, id: string): number {
  const found = step.characteristics.find((each) => each.id === id);
  return found?.kind === 'measured' ? found.estimate.value : Number.NaN;
}

/** Steps that must fail for a fault, and steps that must not. */
export interface Signature {
  readonly id: string;
  readonly severity: number;
  readonly fails: readonly string[];
  readonly holds: readonly string[];
}

/** Checks that a family's faults show as its signatures say, and that none is left out. */
export function itShowsAsTold(family: AnyFamily, signatures: readonly Signature[]): void {
  const evaluateWith = faultBench(family);

  it('a sound unit passes every measured step', () => {
    const steps = evaluateWith([]);
    for (const step of family.steps)
      if (step.kind === 'measured')
        expect({ step: step.id, verdict: steps[step.id].verdict }).toEqual({ step: step.id, verdict: 'pass' });
  });

  it('covers every fault', () => {
    expect(signatures.map((each) => each.id).sort()).toEqual(family.faults.map((fault) => fault.id).sort());
  });

  it.each(signatures)('$id', ({ id, severity, fails, holds }) => {
    const steps = evaluateWith([{ id, severity }]);
    for (const step of fails) expect({ step, verdict: steps[step].verdict }).toEqual({ step, verdict: 'fail' });
    for (const step of holds) expect({ step, verdict: steps[step].verdict }).toEqual({ step, verdict: 'pass' });
  });
}
