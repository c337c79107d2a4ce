import { applicationsStep } from './applications-step';
import { bleedSteps } from './bleed-steps';
import { chargeStep } from './charge-step';
import { makeDeadStep } from './make-dead-step';
import { restCycleStep } from './rest-cycle-step';
import { soakStep } from './soak-step';
import { storeKit, type StoreSetup } from './store-kit';

/** The steps that every family with a charged store shares, and the phases that its own steps are made of. */
export function storeSteps<Unit>(setup: StoreSetup<Unit>) {
  const kit = storeKit(setup);
  return {
    makeDeadBefore: makeDeadStep(kit, 'make-dead-before'),
    makeDeadAfter: makeDeadStep(kit, 'make-dead-after'),
    charge: chargeStep(kit),
    ...bleedSteps(kit),
    restCycle: restCycleStep(kit),
    applications: applicationsStep(kit),
    soak: (id: 'soak' | 'soak-isolated', seconds: number) => soakStep(kit, id, seconds),
    circuits: kit.circuits,
    tolerances: kit.tolerances,
    untilStarted: kit.untilStarted,
    untilCharged: kit.untilCharged,
  };
}
