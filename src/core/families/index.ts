import { type Family, kindOf } from '../contract/family';
import type { AnyKind } from '../contract/kind';
import { joinControls } from '../physics/bench-controls';
import type { StepDefinition } from '../procedure/step-definition';
import { joinWorkshopLimits } from '../procedure/workshop-limits';
import { joinChannels } from '../quantities/channels';
import { joinCharacteristics } from '../quantities/characteristics';
import { vacuumInline } from './vacuum-inline';
import { hydraulicBoost } from './hydraulic-boost';
import { motorPumpBoost } from './motor-pump-boost';
import { pedalValve } from './pedal-valve';
import { storedPressure } from './stored-pressure';
import { vacuumSupply } from './vacuum-supply';
import { vacuumRemote } from './vacuum-remote';

const known: Family[] = [];
const kinds: AnyKind[] = [];

export const families: readonly Family[] = known;

/** Every kind of every family, in the registry's order. */
export const everyKind: readonly AnyKind[] = kinds;

/** Takes a family in, with its words; throws where there is one of its name, or of a word's, already (a programmer's error). */
export function register(family: Family): void {
  if (findFamily(family.id)) throw new Error(`there is a family "${family.id}" already`);
  const { channels = {}, characteristics = {}, controls = [], limits = {} } = family.rows ?? {};
  joinChannels(channels);
  joinCharacteristics(characteristics);
  joinControls(controls);
  joinWorkshopLimits(limits);
  known.push(family);
  kinds.push(...family.kinds);
}

// The registry: the one place that lists the families.
register(vacuumRemote);
register(vacuumInline);
register(vacuumSupply);
register(hydraulicBoost);
register(motorPumpBoost);
register(storedPressure);
register(pedalValve);

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
