import { toldAt, type Fault } from '@/core/contract/fault';
import type { AnyKind } from '@/core/contract/kind';
import { conditionWith, truthOf } from '@/core/contract/model';
import { everyKind } from '@/core/families';
import { contextAt } from '@/core/formats/site-file';
import { checkKind } from '@/core/formats/unit-sheet';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { mergeCorrections } from '@/core/procedure/corrections';
import type { PlanId } from '@/core/procedure/step-context';
import { readStandIn, simulateStep } from '@/core/rig/run-step';

/** One figure that a step found, beside what is true; SI. */
export interface Compared {
  readonly what: string;
  readonly found: number;
  readonly truth: number;
  readonly expanded: number;
}

type AnyFault = Fault<unknown, unknown>;

/** Every kind, plan and fault (null: sound), named. */
export const everyCase = everyKind.flatMap((kind) =>
  kind.plans.flatMap((plan) =>
    [null, ...kind.model.faults].map(
      (fault) =>
        [
          `${kind.sheet.example.name}, ${plan.id}: ${fault?.id ?? 'sound'}`,
          kind,
          plan.id,
          fault as AnyFault | null,
        ] as const,
    ),
  ),
);

/** Runs the steps of a plan, in their order and correcting each other, and holds what they find against what the model knows. */
export function compareWithTruth(
  kind: AnyKind,
  plan: PlanId,
  fault: AnyFault | null,
  {
    steps,
    bench = 6,
    severity = toldAt,
  }: { readonly steps: 'all' | 'that-tell' | 'others'; readonly bench?: number; readonly severity?: number },
): Compared[] {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', plan);
  const faults = fault === null ? [] : [{ id: fault.id, severity }];
  const { unit } = context;
  const truth = kind.model.truth(unit, conditionWith(kind.model, unit, faults), context);
  let { corrections } = context;
  return kind.plans
    .find((each) => each.id === plan)!
    .steps.flatMap((id) => kind.steps.find((step) => step.id === id)!)
    .flatMap((step): Compared[] => {
      if (step.kind === 'look') return [];
      if (!step.characteristics.some((id) => truthOf(truth, step.id, id) !== undefined)) return [];
      const tells = fault === null || fault.tells.includes(step.id);
      if (steps === (tells ? 'others' : 'that-tell')) return [];
      const here = { ...context, corrections };
      const analysis =
        step.kind === 'typed'
          ? step.feeds.dials.analyse(readStandIn(kind, step, here, { faults, seed: bench }), here)
          : step.analyse(simulateStep(kind, step, here, { faults, benchSeed: bench, runSeed: bench }), here);
      corrections = mergeCorrections(corrections, analysis.corrections ?? {});
      return analysis.characteristics.flatMap((found) => {
        const known = truthOf(truth, step.id, found.id);
        if (found.kind !== 'measured' || known === undefined) return [];
        const expanded = expandedUncertainty(found.estimate);
        return [{ what: `${step.id} ${found.id}`, found: found.estimate.value, truth: known, expanded }];
      });
    });
}

/** What lies further from the truth than twice its U, and how many of all lie within U. */
export function held(compared: readonly Compared[]) {
  const off = ({ found, truth }: Compared) => Math.abs(found - truth);
  return {
    far: compared.filter((each) => off(each) > 2 * each.expanded),
    within: compared.filter((each) => off(each) <= each.expanded).length,
  };
}
