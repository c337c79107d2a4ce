import type { Truth } from '../../contract/model';
import type { BlendedCondition } from './faults';
import type { BlendedUnit } from './geometry';

/** What a perfect measurement would say of a drive, whatever drive it was; what hangs on its stops is left out. */
export function blendedTruth(_unit: BlendedUnit, condition: BlendedCondition): Truth {
  const { frictionGain, switchLate, speedLost } = condition;
  return {
    'friction-gain': frictionGain,
    'switch-difference': switchLate,
    ...(speedLost === 0 ? { 'speed-dropouts': 0 } : {}),
  };
}
