import type { Hazard, Lock } from '../procedure/interlock';

const notProved: Readonly<Record<Hazard, string>> = {
  pressure: 'the system has not been proved dead',
  motion: 'the unit has not been proved asleep',
  charge: 'the capacitor bank has not been proved discharged',
};

const backSince: Readonly<Record<Hazard, string>> = {
  pressure: 'the system has been charged since it was proved dead',
  motion: 'the unit has been awake since it was proved asleep',
  charge: 'the capacitor bank may be charged again since it was proved discharged',
};

/** Why a step is shut, and what opens it. */
export function lockText(lock: Lock, titleOf: (step: string) => string): string {
  const title = titleOf(lock.step).toLowerCase();
  switch (lock.code) {
    case 'not-proved':
      return `Shut: ${notProved[lock.hazard]}. Do “${title}” first, and read it off.`;
    case 'back-since':
      return `Shut: ${backSince[lock.hazard]}. Do “${title}” again, and read it off.`;
    case 'not-clear':
      return `Shut until “${title}” is done and nothing in it is unfit.`;
  }
}
