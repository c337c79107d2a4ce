import type { Lock } from '../procedure/interlock';

/** Why a step is shut, and what opens it. */
export function lockText(lock: Lock, titleOf: (step: string) => string): string {
  const title = titleOf(lock.step).toLowerCase();
  switch (lock.code) {
    case 'not-proved-dead':
      return `Shut: the system has not been proved dead. Do “${title}” first, and read it off.`;
    case 'charged-since':
      return `Shut: the system has been charged since it was proved dead. Do “${title}” again, and read it off.`;
    case 'not-clear':
      return `Shut until “${title}” is done and nothing in it is unfit.`;
  }
}
