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

/** A pedal on its master cylinder, SI. */
export interface MasterCylinder {
  /** i_p, and the share of the foot's force that the linkage passes on. */
  readonly pedalRatio: number;
  readonly linkageEfficiency: number;
  /** m2 */
  readonly masterArea: number;
  readonly masterEfficiency: number;
  /** Force at the piston that its own spring takes, N. */
  readonly masterSpring: number;
}

/** Pressure (Pa gauge) that a pedal force (N) makes by itself: (F·i_p·eta_l·eta_m − F_ms)/A_m, never below none. */
export function pressureOfFoot(master: MasterCylinder, pedalForce: number): number {
  const { pedalRatio, linkageEfficiency, masterEfficiency, masterSpring, masterArea } = master;
  return Math.max(0, pedalForce * pedalRatio * linkageEfficiency * masterEfficiency - masterSpring) / masterArea;
}

/** Pedal force (N) that makes a pressure (Pa gauge) by itself. */
export function footForPressure(master: MasterCylinder, pressure: number): number {
  const { pedalRatio, linkageEfficiency, masterEfficiency, masterSpring, masterArea } = master;
  return (pressure * masterArea + masterSpring) / (pedalRatio * linkageEfficiency * masterEfficiency);
}
