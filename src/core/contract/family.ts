import type { PlanId, StepContext } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import type { z } from 'zod';
import type { Here, ExpectedCurve } from '../procedure/expected';
import type { Plan } from './plan';
import type { FaultDescription } from './fault';
import type { SheetField } from './sheet-field';

/** Layouts of one family: they share its name and its file format, and have sheets, steps, curve and stand of their own. */
export interface Layouts {
  /** Sheet field that says which. */
  readonly field: string;
  /** By what the field says; the first is meant where nothing is said. */
  readonly families: readonly { readonly value: string; readonly family: AnyFamily }[];
}

/** Everything the product knows about one kind of unit. `Spec` is the sheet as written, `Unit` its SI form. */
export interface Family<Spec, Unit> {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly schema: z.ZodType<Spec>;
  readonly fields: readonly SheetField[];
  readonly example: { readonly name: string; readonly spec: Spec };
  readonly prepare: (spec: Spec) => Unit;
  /** The first is the plan that a unit is judged on unless another is chosen. */
  readonly plans: readonly Plan<Unit>[];
  readonly steps: readonly StepDefinition<Unit>[];
  readonly faults: readonly FaultDescription[];
  /** What the decisive step's curve is drawn over and against. */
  readonly curve: { readonly input: string; readonly output: string };
  readonly expectedCurve: (unit: Unit, supply: number, here: Here) => ExpectedCurve;
  /** Lowest and highest output (SI) of a sound unit at an input (SI) and a supply (Pa), on the apply branch. */
  readonly expectedBand: (unit: Unit, input: number, supply: number, here: Here) => readonly [number, number];
  /** What feeds the unit: a supply is a vacuum below the atmosphere, or a pressure above it. */
  readonly fedBy: 'vacuum' | 'pressure';
  /** Left out where every unit of the family is built alike. */
  readonly layouts?: Layouts;
}

// The registry holds families of different sheets; inside one family the types stay exact.
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- existential type of the registry
export type AnyFamily = Family<any, any>;

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
