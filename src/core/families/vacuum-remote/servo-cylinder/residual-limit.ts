import { limitFrom } from '../../../procedure/limit';
import type { StepContext } from '../../../procedure/step-context';
import { fullForce, type ServoUnit } from './servo';

/** Force that may stay after release, N, with where the figure comes from. */
export function residualLimit({ unit, workshopLimits: shop }: StepContext<ServoUnit>) {
  return limitFrom(
    { field: 'residualForceMaxN', value: unit.spec.residualForceMaxN },
    { key: 'residualForceShare', value: shop.residualForceShare * fullForce(unit, unit.ratedVacuum) },
  );
}
