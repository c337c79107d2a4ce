/** The brakes of a vehicle as far as a stop is worked out from them, SI; torques are of one wheel. */
export interface VehicleBrakes {
  /** kg */
  readonly mass: number;
  /** m */
  readonly tyreRadius: number;
  /** N·m to each pascal at a wheel of the axle. */
  readonly frontTorque: number;
  readonly rearTorque: number;
  /** Where the rear falls behind the front: Pa gauge, and slope beyond it; null where nothing proportions. */
  readonly proportioning: { readonly split: number; readonly slope: number } | null;
}

/** Torque of a disc brake to each pascal, N·m/Pa: 2·mu·A·r_e, A the pistons of one side of one caliper (m2). */
export function discTorque(friction: number, pistonArea: number, effectiveRadius: number): number {
  return 2 * friction * pistonArea * effectiveRadius;
}

/** Rear pressure at a front pressure, Pa gauge. */
export function rearPressure({ proportioning }: VehicleBrakes, front: number): number {
  if (!proportioning || front <= proportioning.split) return front;
  return proportioning.split + proportioning.slope * (front - proportioning.split);
}

/** Brake force of all wheels (N) at a front pressure (Pa gauge). */
export function brakeForce(vehicle: VehicleBrakes, front: number): number {
  const torques = vehicle.frontTorque * front + vehicle.rearTorque * rearPressure(vehicle, front);
  return (2 * torques) / vehicle.tyreRadius;
}

/** Deceleration that must be reached with the assist gone, m/s2, and the largest pedal force for it, N: rules for light vehicles. */
export const lightRule = { deceleration: 2.44, pedalForce: 500 } as const;

/** Front pressure (Pa gauge) that a deceleration (m/s2) takes. */
export function pressureFor(vehicle: VehicleBrakes, deceleration: number): number {
  const force = vehicle.mass * deceleration;
  const { proportioning: valve } = vehicle;
  const perPascal = brakeForce({ ...vehicle, proportioning: null }, 1);
  const plain = force / perPascal;
  if (!valve || plain <= valve.split) return plain;
  const beyond = (2 * (vehicle.frontTorque + vehicle.rearTorque * valve.slope)) / vehicle.tyreRadius;
  return valve.split + (force - perPascal * valve.split) / beyond;
}
