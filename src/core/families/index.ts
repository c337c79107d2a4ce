import type { AnyFamily } from '../contract/family';
import type { StepDefinition } from '../procedure/step-definition';
import { vacuumInline } from './vacuum-inline';
import { hydraulicBoost } from './hydraulic-boost';
import { motorPumpBoost } from './motor-pump-boost';
import { pedalValve } from './pedal-valve';
import { storedPressure } from './stored-pressure';
import { vacuumSupply } from './vacuum-supply';
import { vacuumRemote } from './vacuum-remote';

/** The registry: the one place that lists the families. */
export const families: readonly AnyFamily[] = [
  vacuumRemote,
  vacuumInline,
  vacuumSupply,
  hydraulicBoost,
  motorPumpBoost,
  storedPressure,
  pedalValve,
];

/** The family as a unit of this sheet needs it: its layout's, where it has layouts. `spec` may be half typed. */
export function layoutOf(family: AnyFamily, spec: unknown): AnyFamily {
  const { layouts } = family;
  if (!layouts) return family;
  const said = (spec as Readonly<Record<string, unknown>> | null)?.[layouts.field];
  return (layouts.families.find((each) => each.value === said) ?? layouts.families[0]).family;
}

/** A family and its layouts, each as units of it need it. */
export function layoutsOf(family: AnyFamily): readonly AnyFamily[] {
  return family.layouts?.families.map((each) => each.family) ?? [family];
}

/** A family by id; undefined when nobody here knows it. */
export function findFamily(id: string): AnyFamily | undefined {
  return families.find((family) => family.id === id);
}

/** The family of a sheet, as its layout needs it; undefined when nobody here knows it. */
export function familyOfSheet(sheet: { readonly family: string; readonly spec: unknown }): AnyFamily | undefined {
  const family = findFamily(sheet.family);
  return family && layoutOf(family, sheet.spec);
}

/** A step of a family by id; undefined when the family has none of that name. */
export function findStep(family: AnyFamily, id: string): StepDefinition<unknown> | undefined {
  return family.steps.find((step) => step.id === id);
}
