import type { AnyFamily, Plan } from './family';
import type { PlanId, StepContext } from '../procedure/step-context';

/** A plan of a family by id; throws when the family has none of that name (a programmer's error). */
export function planOf(family: AnyFamily, id: PlanId): Plan<unknown> {
  const plan = family.plans.find((each) => each.id === id);
  if (!plan) throw new Error(`${family.id} has no ${id} plan`);
  return plan;
}

/** What the plan's source gives the unit in the context's air: vacuum, or pressure of its store, Pa. */
export function supplyOf(family: AnyFamily, context: StepContext<unknown>): number {
  return planOf(family, context.plan).stand.supply(context.unit, context.ambient);
}
