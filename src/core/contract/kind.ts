import type { z } from 'zod';
import type { CurvePicture } from '../procedure/picture';
import type { PlanId, StepContext } from '../procedure/step-context';
import type { StepDefinition } from '../procedure/step-definition';
import type { Model } from './model';
import type { Part, PartsDiagram } from './part';
import type { Plan } from './plan';
import type { Prevalences } from './prevalence';
import type { SheetField } from './sheet-field';
import type { Symptom } from './symptom';

/** The sheet of one kind: its format, its form, and the SI unit that it describes. */
export interface Sheet<Spec, Unit> {
  readonly schema: z.ZodType<Spec>;
  readonly fields: readonly SheetField[];
  readonly example: { readonly name: string; readonly spec: Spec };
  readonly prepare: (spec: Spec) => Unit;
}

/** A build inside a family: one sheet, one model, the steps that it is tested by. `Spec` is the sheet as written, `Unit` its SI form. */
export interface Kind<Spec, Unit, Condition> {
  /** Id of the family that it is a kind of. */
  readonly family: string;
  /** What the family's telling field says of it. */
  readonly value: string;
  readonly title: string;
  readonly description: string;
  readonly sheet: Sheet<Spec, Unit>;
  readonly model: Model<Unit, Condition>;
  /** What of it can be worked on, and what its drivers complain of. */
  readonly parts: readonly Part[];
  readonly diagram: PartsDiagram;
  readonly symptoms: readonly Symptom[];
  /** How common its faults are, to begin with: a workshop may know better. */
  readonly prevalence: Prevalences;
  /** The first is the plan that a unit is judged on unless another is chosen. */
  readonly plans: readonly Plan<Unit>[];
  readonly steps: readonly StepDefinition<Unit, Condition>[];
  /** What a sound unit of a sheet does: drawn on its sheet and its card, and what `hp predict` writes. */
  readonly curve: CurvePicture<Unit>;
}

// The registry holds kinds of different sheets; inside one kind the types stay exact.
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- existential type of the registry
export type AnyKind = Kind<any, any, any>;

/** A plan of a kind by id; throws when it has none of that name (a programmer's error). */
export function planOf(kind: AnyKind, id: PlanId): Plan<unknown> {
  const plan = kind.plans.find((each) => each.id === id);
  if (!plan) throw new Error(`${kind.family} has no ${id} plan`);
  return plan;
}

/** What the plan's source gives the unit in the context's air, SI of its kind of supply; 0 where nothing feeds it. */
export function supplyOf(kind: AnyKind, context: StepContext<unknown>): number {
  return planOf(kind, context.plan).supply?.at(context.unit, context.ambient) ?? 0;
}
