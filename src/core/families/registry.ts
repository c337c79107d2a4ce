import { type Family, kindOf } from '../contract/family';
import type { AnyKind } from '../contract/kind';
import { readingSamples } from '../procedure/sampled-log';
import type { StepDefinition } from '../procedure/step-definition';
import { join } from './words';

export { defaultWorkshopLimits } from '../procedure/workshop-limits';

const known: Family[] = [];
const kinds: AnyKind[] = [];

export const families: readonly Family[] = known;

/** Every kind of every family, in the registry's order. */
export const everyKind: readonly AnyKind[] = kinds;

/** Takes a family in, with its words; throws where there is one of its name, or of a word's, already (a programmer's error). */
export function register(family: Family): void {
  if (findFamily(family.id)) throw new Error(`there is a family "${family.id}" already`);
  if (family.rows) join(family.rows);
  const [first, ...others] = family.kinds.map((kind) => ({ ...kind, steps: kind.steps.map(readingSamples) }));
  known.push({ ...family, kinds: [first, ...others] });
  kinds.push(first, ...others);
}

/** A family by id; undefined when nobody here knows it. */
export function findFamily(id: string): Family | undefined {
  return families.find((family) => family.id === id);
}

/** The first kind of a family, or the one of a value; throws where there is none such (a programmer's error). */
export function kindNamed(id: string, value?: string): AnyKind {
  const family = findFamily(id);
  if (!family) throw new Error(`no family ${id}`);
  const kind = value === undefined ? family.kinds[0] : family.kinds.find((each) => each.value === value);
  if (!kind) throw new Error(`no kind ${value} of ${id}`);
  return kind;
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
