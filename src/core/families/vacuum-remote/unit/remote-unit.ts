import { circleArea } from '../../../quantities/circle-area';
import type { RemoteSpec } from './sheet';

/** What both layouts of a remote vacuum unit are, SI: a power piston under vacuum, and the valve that feeds it air. */
export interface RemoteUnit {
  readonly spec: RemoteSpec;
  /** Power piston area, both pistons of a tandem, m2. */
  readonly powerArea: number;
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
  /** Evacuated at rest, and when applied, m3; null where the sheet does not say. */
  readonly shellVolume: number | null;
  readonly appliedVolume: number | null;
}

export const cubicMetres = (cm3: number | undefined) => (cm3 === undefined ? null : cm3 * 1e-6);

/** SI form of what both layouts' sheets say. */
export function prepareRemote<Spec extends RemoteSpec>(spec: Spec): Omit<RemoteUnit, 'spec'> & { readonly spec: Spec } {
  return {
    spec,
    powerArea: circleArea(spec.powerPistonDiameterMm) * spec.powerPistons,
    valveOpening: spec.cutInPressureKpa * 1e3,
    controlRatio: spec.controlAreaRatio,
    springForce: spec.returnSpringForceN,
    efficiency: spec.efficiency,
    hysteresis: spec.hysteresisKpa * 1e3,
    ratedVacuum: spec.ratedVacuumKpa * 1e3,
    referenceInput: spec.referenceInputKpa * 1e3,
    shellVolume: cubicMetres(spec.shellVolumeCm3),
    appliedVolume: cubicMetres(spec.appliedVolumeCm3),
  };
}
