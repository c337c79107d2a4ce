import { type Family, kindOf } from '../contract/family';
import type { AnyKind } from '../contract/kind';
import type { StepDefinition } from '../procedure/step-definition';
import { vacuumInline } from './vacuum-inline';
import { hydraulicBoost } from './hydraulic-boost';
import { motorPumpBoost } from './motor-pump-boost';
import { pedalValve } from './pedal-valve';
import { storedPressure } from './stored-pressure';
import { vacuumSupply } from './vacuum-supply';
import { vacuumRemote } from './vacuum-remote';

/** The registry: the one place that lists the families. */
export const families: readonly Family[] = [
  vacuumRemote,
  vacuumInline,
  vacuumSupply,
  hydraulicBoost,
  motorPumpBoost,
  storedPressure,
  pedalValve,
];

/** Every kind of every family, in the registry's order. */
export const everyKind: readonly AnyKind[] = families.flatMap((family) => family.kinds);

/** A family by id; undefined when nobody here knows it. */
export function findFamily(id: string): Family | undefined {
  return families.find((family) => family.id === id);
}

/** A family's kind that a sheet saying `value` is of, or its first; throws on an id that nobody here knows (a programmer's error). */
export function kindNamed(id: string, value?: string): AnyKind {
  const family = findFamily(id);
  if (!family) throw new Error(`no family ${id}`);
  return family.kinds.find((kind) => kind.value === value) ?? family.kinds[0];
}

/** The kind of a sheet; undefined when nobody here knows its family. */
export function kindOfSheet(sheet: { readonly family: string; readonly spec: unknown }): AnyKind | undefined {
  const family = findFamily(sheet.family);
  return family && kindOf(family, sheet.spec);
}

/** A step of a kind by id; undefined when it has none of that name. */
export function findStep(kind: AnyKind, id: string): StepDefinition<unknown> | undefined {
  return kind.steps.find((step) => step.id === id);
}
