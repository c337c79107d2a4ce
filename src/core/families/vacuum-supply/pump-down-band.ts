import type { WorkshopLimits } from '../../procedure/workshop-limits';
import { pumpDownVacuum, type VacuumSupplyUnit } from './geometry';

/** Vacuum of a sound source at a time of its pump-down, lowest and highest, Pa. */
export function pumpDownBand(
  unit: VacuumSupplyUnit,
  time: number,
  settled: number,
  limits: WorkshopLimits,
): readonly [number, number] {
  const slower = { ...unit, speed: unit.speed * (1 - limits.pumpSpeedTolerance) };
  const faster = { ...unit, speed: unit.speed * (1 + limits.pumpSpeedTolerance) };
  return [pumpDownVacuum(slower, time, settled * 0.97), pumpDownVacuum(faster, time, settled * 1.02)];
}
