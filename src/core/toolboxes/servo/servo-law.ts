const { max, min } = Math;

/*
 * Servo of a pedal-operated unit, whatever feeds it; F_r rod force, F_a assist force (not clipped, spring taken off):
 *   F_out = 0 below F_0, else max(0, min(F_j + i_b·(F_r − F_0), F_r + F_a))
 *   F_out = max(0, F_r + F_a)                     where F_a ≤ 0: no assist to wait for
 *   p     = max(0, F_out·eta_m − F_ms)/A_m
 * On the way back the rod force counts H more.
 */

export type Branch = 'apply' | 'way-back';

/** A servo with its master cylinder, SI, forces at the rod. */
export interface ServoUnit {
  /** i_b */
  readonly servoRatio: number;
  /** F_0 and F_j, N. */
  readonly cutInForce: number;
  readonly jumpInForce: number;
  /** H, N. */
  readonly hysteresis: number;
  /** A_m, m2. */
  readonly masterArea: number;
  readonly masterEfficiency: number;
  /** F_ms, N. */
  readonly masterSpring: number;
}

/** Output force (N) at a rod force (N) and an assist force (N). */
export function servoForce(unit: ServoUnit, rodForce: number, assist: number, branch: Branch = 'apply'): number {
  const force = branch === 'apply' ? rodForce : rodForce + unit.hysteresis;
  if (assist <= 0) return max(0, force + assist);
  if (force < unit.cutInForce) return 0;
  const modulated = unit.jumpInForce + unit.servoRatio * (force - unit.cutInForce);
  return max(0, min(modulated, force + assist));
}

/** Master cylinder pressure (Pa gauge) of an output force (N). */
export function masterPressure(unit: ServoUnit, force: number): number {
  return max(0, force * unit.masterEfficiency - unit.masterSpring) / unit.masterArea;
}

/** Pressure gained per rod force by a line of `slope` force for force, Pa/N. */
export function pressureSlope(unit: ServoUnit, slope: number): number {
  return (slope * unit.masterEfficiency) / unit.masterArea;
}

/** Knee F_k = (F_a − F_j + i_b·F_0)/(i_b − 1), N at the rod; null where assist never reaches cut-in. */
export function kneeForce(unit: ServoUnit, assist: number): number | null {
  const knee = (assist - unit.jumpInForce + unit.servoRatio * unit.cutInForce) / (unit.servoRatio - 1);
  return knee > unit.cutInForce ? knee : null;
}
