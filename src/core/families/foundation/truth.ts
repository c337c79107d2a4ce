import { pressureOfFoot } from '../../calculators/brake-force';
import { failedAssistStop } from '../../calculators/failed-assist-stop';
import type { Truth } from '../../contract/model';
import type { FoundationCondition } from './faults';
import { soundRatio, type FoundationUnit } from './geometry';
import { firmFoot } from './step-parts';
import { masterAt, rearAt, switchAt } from './vehicle-stand';

/** What a perfect measurement would say of what sits behind a unit. */
export function foundationTruth(unit: FoundationUnit, condition: FoundationCondition): Truth {
  const { vehicle, master, rule, stopLamp } = unit;
  const stop = failedAssistStop(vehicle, master, rule);
  const closes = switchAt(unit, condition);
  const front = masterAt(unit, condition, firmFoot, 1);
  const valve = vehicle.proportioning;
  const below = condition.rearShare * condition.slopeBelow;
  return {
    'unassisted-pressure': pressureOfFoot(master, firmFoot) * (1 - condition.bypass),
    'assisted-pressure': front,
    'vehicle-ratio': soundRatio(unit),
    'lower-slope': below,
    ...(valve
      ? {
          'split-pressure': valve.split * condition.split,
          'rear-slope': below * Math.max(0, valve.slope + condition.slopeMore),
        }
      : {}),
    'axle-ratio': front / Math.max(1, rearAt(unit, condition, front)),
    ...(closes <= 0 ? {} : { [stopLamp.by === 'master_pressure' ? 'stop-lamp-pressure' : 'stop-lamp-travel']: closes }),
    deceleration: stop.deceleration,
    ...(stop.stoppingDistance === null ? {} : { 'stopping-distance': stop.stoppingDistance }),
    'pedal-force-needed': stop.pedalForceNeeded,
  };
}
