import type { Truth } from '../../contract/model';
import type { StepContext } from '../../procedure/step-context';
import { aroundStores, soakTruth, storeTruth } from '../../toolboxes/store/model/store-truth';
import type { StoredPressureCondition } from './faults';
import type { StoredPressureUnit } from './geometry';
import { soakSeconds } from './soak-steps';
import { bumpPeriod, portLag } from './vehicle-stand';

/** What a perfect measurement would say of a central system. */
export function storedPressureTruth(
  unit: StoredPressureUnit,
  condition: StoredPressureCondition,
  context: StepContext<StoredPressureUnit>,
): Truth {
  const around = aroundStores(context);
  const first = { store: unit.first, condition: condition.first, place: '', around } as const;
  // The levelling takes its oil from circuit 2 where it is open.
  const levelling = unit.levellingLeak * condition.levelling;
  const own = { ...unit.second, internalLeak: unit.second.internalLeak - unit.levellingLeak };
  const shut = { store: own, condition: condition.second, place: '@2', around } as const;
  const open = { ...shut, condition: { ...condition.second, extraLeak: condition.second.extraLeak + levelling } };
  return {
    ...storeTruth(first),
    ...storeTruth(open),
    ...soakTruth(first, 'soak', soakSeconds),
    ...soakTruth(open, 'soak', soakSeconds),
    ...soakTruth(first, 'soak-isolated', soakSeconds),
    ...soakTruth(shut, 'soak-isolated', soakSeconds),
    'levelling-leak-flow': levelling,
    'lamp-pressure': unit.first.lamp + condition.first.lampShift,
    'lamp-pressure@2': unit.second.lamp + condition.second.lampShift,
    'height-loss': condition.heightLoss,
    // A line follows a bump a little late, and so not quite as far.
    'bump-pressure': condition.bump / Math.hypot(1, (2 * Math.PI * portLag) / bumpPeriod),
    'cut-in-force': unit.cutInForce + condition.cutInShift,
    // Furthest apart where the pedal asks for most.
    'circuit-difference': unit.regulatedMaximum * Math.abs(1 - condition.balance),
    'metering-slope': unit.meteringSlope * condition.slope,
  };
}
