import type { Family } from '../contract/family';
import { findFamily, register } from './registry';

/** Where each family is, by its id: a line a family. */
const doors: Readonly<Record<string, () => Promise<Family>>> = {
  'vacuum-remote': async () => (await import('./vacuum-remote')).vacuumRemote,
  'vacuum-inline': async () => (await import('./vacuum-inline')).vacuumInline,
  'vacuum-supply': async () => (await import('./vacuum-supply')).vacuumSupply,
  'hydraulic-boost': async () => (await import('./hydraulic-boost')).hydraulicBoost,
  'motor-pump-boost': async () => (await import('./motor-pump-boost')).motorPumpBoost,
  'motor-boost': async () => (await import('./motor-boost')).motorBoost,
  'brake-by-wire': async () => (await import('./brake-by-wire')).brakeByWire,
  'blended-braking': async () => (await import('./blended-braking')).blendedBraking,
  'stored-pressure': async () => (await import('./stored-pressure')).storedPressure,
  'pedal-valve': async () => (await import('./pedal-valve')).pedalValve,
  foundation: async () => (await import('./foundation')).foundation,
};

/** Ids of all families, whether they are here or not. */
export const familyIds: readonly string[] = Object.keys(doors);

const coming = new Map<string, Promise<void>>();

async function fetched(id: string): Promise<void> {
  try {
    const family = await doors[id]();
    if (!findFamily(id)) register(family);
  } catch (error) {
    // What did not come is asked for again.
    coming.delete(id);
    throw error;
  }
}

/**
 * Fetches a family and takes it into the registry, for a browser, which does not carry all of them.
 * Null where it is here, or nobody knows it: nothing to wait for. The same promise for who asks meanwhile.
 */
export function familyComing(id: string): Promise<void> | null {
  if (findFamily(id) || !(id in doors)) return null;
  const known = coming.get(id) ?? fetched(id);
  coming.set(id, known);
  return known;
}
