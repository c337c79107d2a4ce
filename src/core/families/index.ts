import type { AnyFamily } from './family';
import type { StepDefinition } from './step-definition';
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

/** A family by id; undefined when nobody here knows it. */
export function findFamily(id: string): AnyFamily | undefined {
  return families.find((family) => family.id === id);
}

/** A step of a family by id; undefined when the family has none of that name. */
export function findStep(family: AnyFamily, id: string): StepDefinition<unknown> | undefined {
  return family.steps.find((step) => step.id === id);
}
