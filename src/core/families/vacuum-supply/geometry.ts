import { seaLevelPressure, type Ambient } from '../../quantities/standard-atmosphere';
import { restatedSource } from '../../toolboxes/vacuum/source-vacuum';
import type { VacuumSupplySpec } from './sheet';

/** A vacuum source in SI. */
export interface VacuumSupplyUnit {
  readonly spec: VacuumSupplySpec;
  /** Volume that is pumped down, m3. */
  readonly volume: number;
  /** Vacuum it reaches with time at the sea, Pa. */
  readonly seaLevelVacuum: number;
  /** S, m3/s. */
  readonly speed: number;
  /** Air at the local atmosphere that one stroke lets in, m3. */
  readonly applicationVolume: number;
  readonly electric: boolean;
}

/** SI form of a validated sheet. */
export function prepareVacuumSupply(spec: VacuumSupplySpec): VacuumSupplyUnit {
  return {
    spec,
    volume: spec.reservoirVolumeCm3 * 1e-6,
    seaLevelVacuum: spec.seaLevelVacuumKpa * 1e3,
    speed: (spec.pumpSpeedLPerMin * 1e-3) / 60,
    applicationVolume: spec.applicationVolumeCm3 * 1e-6,
    electric: spec.drive === 'electric',
  };
}

/** Vacuum (Pa) the source reaches with time in today's air. */
export function settledVacuum(unit: VacuumSupplyUnit, ambient: Ambient): number {
  return restatedSource(unit.seaLevelVacuum, unit.spec.sourceKind ?? 'pump', ambient);
}

/** A switch's threshold (Pa vacuum) in today's air: a differential sensor keeps it, an absolute one its pressure. */
export function thresholdHere(unit: VacuumSupplyUnit, seaLevelKpa: number, ambient: Ambient): number {
  const written = seaLevelKpa * 1e3;
  return unit.spec.sensorReference === 'absolute' ? ambient.pressure - (seaLevelPressure - written) : written;
}

/** Where the pump starts and stops (Pa vacuum) in today's air; null for a source without a switch. */
export function thresholds(unit: VacuumSupplyUnit, ambient: Ambient): { cutIn: number; cutOut: number } | null {
  const { cutInVacuumKpa, cutOutVacuumKpa } = unit.spec;
  if (cutInVacuumKpa === undefined || cutOutVacuumKpa === undefined) return null;
  return {
    cutIn: thresholdHere(unit, cutInVacuumKpa, ambient),
    cutOut: thresholdHere(unit, cutOutVacuumKpa, ambient),
  };
}

/** Vacuum (Pa) at `time` s of a pump-down from the atmosphere: p = p_u + (p_0 − p_u)·exp(−S·t/Vol). */
export function pumpDownVacuum(unit: VacuumSupplyUnit, time: number, settled: number): number {
  return settled * (1 - Math.exp((-unit.speed * time) / unit.volume));
}
