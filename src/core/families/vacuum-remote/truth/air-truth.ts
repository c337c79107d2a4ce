import type { Truth } from '../../../contract/model';
import type { StepContext } from '../../../procedure/step-context';
import { leakDown, steadyLoss } from '../../../toolboxes/vacuum/leak-down';
import { vacuumLossSeconds } from '../../../toolboxes/vacuum/vacuum-unit-steps';
import { acrossLeakOf } from '../unit/air-side';
import { benchVacuum } from '../unit/bench-vacuum';
import type { PlantCondition } from '../unit/faults';
import type { RemoteUnit } from '../unit/remote-unit';

/** What the vacuum steps of both layouts would read of a unit in a condition. */
export function airTruth(unit: RemoteUnit, condition: PlantCondition, context: StepContext<RemoteUnit>): Truth {
  const { shellVolume, appliedVolume } = unit;
  const { ambient, airTemperature: temperature, benchVolume } = context;
  // A leak into the control chamber holds it off the supply.
  const atRestTogether: Truth = condition.atmosphereValveLeak > 0 ? {} : { 'rest-difference': 0 };
  if (shellVolume === null || appliedVolume === null || benchVolume === null) return atRestTogether;
  const space = { vacuum: benchVacuum(unit, ambient), ambient: ambient.pressure, temperature };
  const seconds = vacuumLossSeconds(context);
  const atRest = leakDown(
    { ...space, volume: shellVolume + benchVolume, leak: condition.atmosphereValveLeak + condition.reservoirLeak },
    seconds,
  );
  const applied = leakDown(
    {
      ...space,
      volume: appliedVolume + benchVolume,
      leak: acrossLeakOf(condition, shellVolume) + condition.reservoirLeak,
    },
    seconds,
  );
  // Behind a blocked breather there is no air to come across.
  return {
    ...atRestTogether,
    ...(steadyLoss(atRest, space.vacuum)
      ? { 'vacuum-hold-rest: vacuum-loss': atRest.loss, 'vacuum-hold-rest: leak-flow': atRest.flow }
      : {}),
    ...(steadyLoss(applied, space.vacuum) && condition.breather === 1
      ? { 'vacuum-hold-applied: vacuum-loss': applied.loss, 'vacuum-hold-applied: leak-flow': applied.flow }
      : {}),
  };
}
