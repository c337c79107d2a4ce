import type { RemoteUnit } from './remote-unit';

const { max, min } = Math;

export type Branch = 'apply' | 'way-back';

/**
 * Chamber difference D (Pa) at an input (Pa gauge) and a supply vacuum V (Pa): D = clamp(k·(p_in − p_1), 0, V) on the
 * apply branch; on the way back the valve's friction H has to be used up first: D = clamp(k·(p_in + H − p_1), 0, V).
 */
export function chamberDifference(unit: RemoteUnit, input: number, vacuum: number, branch: Branch = 'apply'): number {
  const effective = branch === 'apply' ? input : input + unit.hysteresis;
  return min(max(0, vacuum), max(0, unit.controlRatio * (effective - unit.valveOpening)));
}

/** Run-out: full activation at p_k = p_1 + V/k, Pa gauge. */
export function runOutInput(unit: RemoteUnit, vacuum: number): number {
  return unit.valveOpening + vacuum / unit.controlRatio;
}

/** Input that the boost curve is pulled to: clear beyond run-out and the reference, Pa gauge. */
export function pullInput(unit: RemoteUnit, vacuum: number): number {
  const runOut = runOutInput(unit, vacuum);
  return max(runOut * 1.3, runOut + 400_000, unit.referenceInput * 1.1);
}
