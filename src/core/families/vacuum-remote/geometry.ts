import type { VacuumRemoteSpec } from './sheet';

/** A remote vacuum unit in SI, with the three numbers of its assisted line. */
export interface VacuumRemoteUnit {
  readonly spec: VacuumRemoteSpec;
  /** Power piston area, both pistons of a tandem, m2. */
  readonly powerArea: number;
  /** Slave piston area A_h, m2. */
  readonly slaveArea: number;
  /** Push rod area A_r, m2. */
  readonly rodArea: number;
  /** Input at which the control valve opens (p_1), Pa gauge. */
  readonly valveOpening: number;
  /** Chamber difference gained per input pressure while modulating (k). */
  readonly controlRatio: number;
  /** N */
  readonly springForce: number;
  readonly efficiency: number;
  /** Friction of the control valve (H), Pa at the input. */
  readonly hysteresis: number;
  /** Pa, vacuum. */
  readonly ratedVacuum: number;
  /** Pa gauge. */
  readonly referenceInput: number;
  /** Ratio the sheet states at rated vacuum, or null: then the geometry's. */
  readonly statedRatio: number | null;
  /** m3, or null where the sheet does not say. */
  readonly shellVolume: number | null;
  readonly appliedVolume: number | null;
  /** a = (A_h − A_r)/A_h: slope beyond run-out. */
  readonly a: number;
  /** b = eta·k·A_p/A_h. */
  readonly b: number;
  /** f = F_s/A_h, Pa. */
  readonly f: number;
}

const circle = (diameterMm: number) => (Math.PI / 4) * (diameterMm * 1e-3) ** 2;

/** SI form of a validated sheet. */
export function prepareVacuumRemote(spec: VacuumRemoteSpec): VacuumRemoteUnit {
  const powerArea = circle(spec.powerPistonDiameterMm) * spec.powerPistons;
  const slaveArea = circle(spec.slaveBoreMm);
  const rodArea = circle(spec.pushRodDiameterMm);
  return {
    spec,
    powerArea,
    slaveArea,
    rodArea,
    valveOpening: spec.cutInPressureKpa * 1e3,
    controlRatio: spec.controlAreaRatio,
    springForce: spec.returnSpringForceN,
    efficiency: spec.efficiency,
    hysteresis: spec.hysteresisKpa * 1e3,
    ratedVacuum: spec.ratedVacuumKpa * 1e3,
    referenceInput: spec.referenceInputKpa * 1e3,
    statedRatio: spec.boostRatio ?? null,
    shellVolume: spec.shellVolumeCm3 === undefined ? null : spec.shellVolumeCm3 * 1e-6,
    appliedVolume: spec.appliedVolumeCm3 === undefined ? null : spec.appliedVolumeCm3 * 1e-6,
    a: (slaveArea - rodArea) / slaveArea,
    b: (spec.efficiency * spec.controlAreaRatio * powerArea) / slaveArea,
    f: spec.returnSpringForceN / slaveArea,
  };
}
