import {
  brakeForce,
  footForPressure,
  pressureFor,
  pressureOfFoot,
  rearPressure,
  type MasterCylinder,
  type VehicleBrakes,
} from './brake-force';
import { distanceAllowed, type StopRule } from './stop-rule';

/** A dry road gives no more deceleration than this, m/s2. */
const roadGrip = 0.8;
const gravity = 9.8;
export const roadLimit = roadGrip * gravity;

/** A stop with the assist gone as it is worked out of a sheet; a calculation and never an approval. SI. */
export interface FailedAssistStop {
  readonly rule: StopRule;
  /** With the largest pedal force that the rule allows, Pa gauge. */
  readonly frontPressure: number;
  readonly rearPressure: number;
  /** N, of all wheels. */
  readonly brakeForce: number;
  /** m/s2, and what keeps it from being more. */
  readonly deceleration: number;
  readonly limitedBy: 'brakes' | 'road';
  /** From the rule's speed, m; null where it would not stop at all. */
  readonly stoppingDistance: number | null;
  readonly distanceAllowed: number;
  /** Pedal force (N) and front pressure (Pa gauge) that the rule's deceleration takes. */
  readonly pedalForceNeeded: number;
  readonly pressureNeeded: number;
  /** Whether it is slow enough nowhere: deceleration, way and pedal force all within the rule. */
  readonly holds: boolean;
}

/**
 * Works a stop with the assist gone out of pedal, master cylinder and brakes: d = v·t + v²/(2a), t the time that the rule gives for the
 * brakes to build up. The rear follows the proportioning of the vehicle; without one it has the front's pressure.
 */
export function failedAssistStop(vehicle: VehicleBrakes, master: MasterCylinder, rule: StopRule): FailedAssistStop {
  const front = pressureOfFoot(master, rule.pedalForceMost);
  const force = brakeForce(vehicle, front);
  const byBrakes = force / vehicle.mass;
  const deceleration = Math.min(byBrakes, roadLimit);
  const distance = deceleration > 0 ? rule.speed * rule.buildUp + rule.speed ** 2 / (2 * deceleration) : null;
  const pressureNeeded = pressureFor(vehicle, rule.decelerationLeast);
  const pedalForceNeeded = footForPressure(master, pressureNeeded);
  const allowed = distanceAllowed(rule);
  return {
    rule,
    frontPressure: front,
    rearPressure: rearPressure(vehicle, front),
    brakeForce: force,
    deceleration,
    limitedBy: byBrakes > roadLimit ? 'road' : 'brakes',
    stoppingDistance: distance,
    distanceAllowed: allowed,
    pedalForceNeeded,
    pressureNeeded,
    holds:
      deceleration >= rule.decelerationLeast &&
      distance !== null &&
      distance <= allowed &&
      pedalForceNeeded <= rule.pedalForceMost,
  };
}
