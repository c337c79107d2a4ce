import { vacuumUnitSteps } from '../../../toolboxes/vacuum/vacuum-unit-steps';
import type { CautionId } from '../../../vocabulary/caution-id';
import type { RemoteUnit } from '../unit/remote-unit';
import { appliedInput, pullAndShut, supplyOn, vacuumNow } from './step-parts';

/** Vacuum draw and both vacuum holds of a remote unit. */
export function remoteVacuumSteps<Unit extends RemoteUnit>(appliedCautions: readonly CautionId[]) {
  return vacuumUnitSteps<Unit>({
    supplyVacuum: vacuumNow,
    leverChannel: 'input_pressure',
    appliedLevel: appliedInput,
    apply: (level) => pullAndShut(level, 4, supplyOn),
    withControlPort: true,
    holdWhy: {
      rest: 'With the source shut the whole shell must keep its vacuum: finds the atmosphere valve and the shell.',
      applied: 'With the atmosphere valve open and the vacuum valve shut: finds the diaphragm and the vacuum valve.',
    },
    appliedCautions,
  });
}
