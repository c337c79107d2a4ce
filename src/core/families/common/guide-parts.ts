import type { GuidePhase } from '../guide-phase';

/** The lever at home. */
export const home = { to: 0, seconds: 0 } as const;

/** A phase that lasts its time with the lever where `to` says (SI of its channel), at home unless told otherwise. */
export function wait(
  instruction: GuidePhase['instruction'],
  controls: GuidePhase['controls'],
  seconds: number,
  to = 0,
): GuidePhase {
  return { instruction, controls, lever: { to, seconds: 0 }, end: { kind: 'seconds', seconds } };
}
