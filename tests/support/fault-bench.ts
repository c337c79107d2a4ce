import { conditionWith } from '@/core/contract/model';
import { toldAt } from '@/core/contract/fault';
import type { AnyKind } from '@/core/contract/kind';
import type { ActiveFault } from '@/core/physics/plant';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { evaluateUnit, type StepEvaluation, type StepEvidence } from '@/core/judging/evaluate-unit';
import { randomSource } from '@/core/physics/random';
import type { StepContext } from '@/core/procedure/step-context';
import { simulateStep } from '@/core/rig/run-step';

type Steps = Readonly<Record<string, StepEvaluation>>;

/** What a step would be given of a unit with these faults; `look` is how it looks. */
function evidenceOf(
  kind: AnyKind,
  id: string,
  context: StepContext<unknown>,
  how: { readonly faults: readonly ActiveFault[]; readonly look: Readonly<Record<string, string>> },
): StepEvidence | null {
  const step = kind.steps.find((each) => each.id === id);
  const { faults, look } = how;
  switch (step?.kind) {
    case 'measured': {
      const trace = simulateStep(kind, step, context, { faults, benchSeed: 5, runSeed: 5 });
      return { kind: 'traces', step: id, traces: [trace] };
    }
    case 'look': {
      const findings = step.feeds.look.points.map((point) => [
        point.id,
        look[point.id] ?? step.feeds.look.options[0].id,
      ]);
      return { kind: 'findings', step: id, findings: Object.fromEntries(findings) as Record<string, string> };
    }
    case 'typed': {
      const readings =
        step.feeds.standIn?.(context, conditionWith(kind.model, context.unit, faults), randomSource(5)) ?? {};
      return { kind: 'mixed', step: id, given: [{ readings, standIn: true }] };
    }
    default:
      return null;
  }
}

/** The example of a family at 1,420 m on one of its plans: every step of it judged, looks and typed steps too. */
export function faultBench(kind: AnyKind, planId = kind.plans[0].id) {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', planId);
  const plan = kind.plans.find((each) => each.id === planId) ?? kind.plans[0];
  return function evaluateWith(
    faults: readonly ActiveFault[],
    look: Readonly<Record<string, string>> = {},
    only: readonly string[] = plan.steps,
  ): Steps {
    const evidence = only.flatMap((id) => evidenceOf(kind, id, context, { faults, look }) ?? []);
    const evaluation = evaluateUnit(kind, plan.steps, evidence, { context, policy: 'guarded' });
    // One log may answer other steps than those that are asked for.
    return Object.fromEntries(
      evaluation.steps.filter(({ step }) => only.includes(step)).map((step) => [step.step, step]),
    );
  };
}

/** Value of a characteristic that a step measured; NaN where it did not. */
export function measuredValue(step: StepEvaluation, id: string): number {
  const found = step.characteristics.find((each) => each.id === id);
  return found?.kind === 'measured' ? found.estimate.value : Number.NaN;
}

/** Steps that are told of a fault, that fail with it, and that were to pass and did not, over all layouts and plans of a family. */
export interface FaultShown {
  readonly told: readonly string[];
  readonly failed: readonly string[];
  readonly notLeft: readonly string[];
}

/** Holds a fault's words against its model, by the steps that its words name or by all the others of every plan. */
export function showFault(layouts: readonly AnyKind[], id: string, steps: 'told-steps' | 'other-steps'): FaultShown {
  const [told, failed, notLeft] = [new Set<string>(), new Set<string>(), new Set<string>()];
  for (const kind of layouts) {
    const fault = kind.model.faults.find((each) => each.id === id);
    if (!fault) continue;
    fault.tells.forEach((step) => told.add(step));
    for (const plan of kind.plans) {
      const named = [...fault.tells, ...fault.leaves].filter((step) => plan.steps.includes(step));
      const only = steps === 'told-steps' ? named : plan.steps.filter((step) => !named.includes(step));
      const shown = faultBench(kind, plan.id)([{ id, severity: toldAt }], fault.appearance, only);
      for (const { step, verdict } of Object.values(shown)) {
        if (verdict === 'fail') failed.add(step);
        if (fault.leaves.includes(step) && verdict !== 'pass') notLeft.add(`${plan.id}: ${step} ${verdict}`);
      }
    }
  }
  return { told: [...told].sort(), failed: [...failed].sort(), notLeft: [...notLeft] };
}
