import { conditionWith, truthOf } from '../contract/model';
import { toldAt } from '../contract/fault';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';
import { expandedUncertainty } from '../instruments/uncertainty';
import { correctionsOf } from '../procedure/corrections';
import type { StepContext } from '../procedure/step-context';
import { readStandIn, simulateStep } from '../rig/run-step';
import type { AnyKind } from '../contract/kind';
import { everyKind } from '.';

/*
 * Of every kind, plan and fault: what the steps find lies within what they say of themselves of what the model knows. The model's truth
 * is worked out of unit and condition, never out of a trace.
 */

const everyFault = everyKind.flatMap((kind) =>
  kind.plans.flatMap((plan) =>
    [null, ...kind.model.faults].map(
      (fault) => [`${kind.sheet.example.name}, ${plan.id}: ${fault?.id ?? 'sound'}`, kind, plan.id, fault?.id] as const,
    ),
  ),
);

interface Compared {
  readonly what: string;
  readonly found: number;
  readonly truth: number;
  readonly expanded: number;
}

function compare(kind: AnyKind, plan: StepContext<unknown>['plan'], fault: string | undefined): Compared[] {
  const checked = checkKind(kind, 'study', kind.sheet.example.spec, 'study');
  if (!checked.ok) throw new Error('the example sheet is not valid');
  const site = { altitudeM: 1420, airTemperatureC: 11, benchVolumeCm3: 600 };
  const context = contextAt(checked.value, site, '2026-11-23', plan);
  const faults = fault === undefined ? [] : [{ id: fault, severity: toldAt }];
  const { unit } = context;
  const truth = kind.model.truth(unit, conditionWith(kind.model, unit, faults), context);
  // What one step finds out corrects those after it, as it does in a job.
  let { corrections } = context;
  return kind.plans
    .find((each) => each.id === plan)!
    .steps.flatMap((id) => kind.steps.find((step) => step.id === id)!)
    .flatMap((step): Compared[] => {
      const here = { ...context, corrections };
      if (step.kind === 'look' || !step.characteristics.some((id) => truthOf(truth, step.id, id) !== undefined))
        return [];
      const analysis =
        step.kind === 'typed'
          ? step.feeds.dials.analyse(readStandIn(kind, step, here, { faults, seed: 6 }), here)
          : step.analyse(simulateStep(kind, step, here, { faults, benchSeed: 6, runSeed: 6 }), here);
      corrections = correctionsOf([analysis], corrections);
      return analysis.characteristics.flatMap((found) => {
        const known = truthOf(truth, step.id, found.id);
        if (found.kind !== 'measured' || known === undefined) return [];
        const expanded = expandedUncertainty(found.estimate);
        return [{ what: `${step.id} ${found.id}`, found: found.estimate.value, truth: known, expanded }];
      });
    });
}

const within = new Map<string, { held: number; of: number }>();

describe('what a step finds is what is true', () => {
  it.each(everyFault)('%s', (_name, kind, plan, fault) => {
    for (const { what, found, truth, expanded } of compare(kind, plan, fault)) {
      const key = what.split(' ')[1];
      const count = within.get(key) ?? { held: 0, of: 0 };
      const held = Math.abs(found - truth) <= expanded;
      within.set(key, { held: count.held + (held ? 1 : 0), of: count.of + 1 });
      const far = Math.abs(found - truth) > 2 * expanded ? { what, found, truth, expanded } : null;
      expect(far).toBeNull();
    }
  });

  it('and U covers it as often as it says', () => {
    const all = [...within.values()];
    const held = all.reduce((sum, each) => sum + each.held, 0);
    const of = all.reduce((sum, each) => sum + each.of, 0);
    expect(of).toBeGreaterThan(500);
    expect(held / of).toBeGreaterThan(0.93);
  });
});
