import type { GuidePhase } from '../../procedure/guide-phase';
import { wait } from '../../procedure/guide-phase';
import { supplyCheckStep } from '../../toolboxes/electrical/supply-check-step';
import { forceForShare, type ByWireUnit } from './geometry';
import { keyOn, letGo, lever, provedSafe, restAwake, stampAndHold, wake, type Context } from './step-parts';

/** The supply is read while the source draws most: a plunger holding its hardest, a pump at the end of its charge. */
export function supplyCheck<Unit extends ByWireUnit>(load: (context: Context) => readonly GuidePhase[]) {
  return supplyCheckStep<Unit>({
    lever,
    top: ({ unit }) => forceForShare(unit, 1),
    guide: (context) => [wake(3), ...load(context), letGo, restAwake(2)],
    guards: provedSafe,
    cautions: ['wakes-by-itself', 'fluid-jet'],
  });
}

/** A plunger holds its hardest. */
export const holdHardest = (context: Context): readonly GuidePhase[] => [
  ...stampAndHold(context, 1, 4),
  wait({ code: 'hold-there', seconds: 1 }, keyOn, 1, forceForShare(context.unit, 1)),
];
