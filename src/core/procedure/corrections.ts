import type { Corrections } from './step-analysis';

/** What two steps, or two circuits of one, found out about the bench: of the same thing the later counts. */
export function mergeCorrections<Both extends Partial<Corrections>>(first: Both, later: Partial<Corrections>): Both {
  return {
    ...first,
    ...later,
    ...(first.precharge || later.precharge ? { precharge: { ...first.precharge, ...later.precharge } } : {}),
    ...(first.soakLeak || later.soakLeak ? { soakLeak: { ...first.soakLeak, ...later.soakLeak } } : {}),
  };
}
