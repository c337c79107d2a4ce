import { servoFromSpec } from '../../../toolboxes/servo/servo-from-spec';
import { circleArea } from '../../../quantities/circle-area';
import type { VacuumInlineSpec } from './sheet';

/** A pedal-operated vacuum unit with its master cylinder, in SI. Forces are at the push rod. */
export interface VacuumInlineUnit {
  readonly spec: VacuumInlineSpec;
  /** Effective diaphragm area A: all diaphragms, hub taken off each, m2. */
  readonly area: number;
  /** i_b */
  readonly servoRatio: number;
  /** F_0 and F_j, N. */
  readonly cutInForce: number;
  readonly jumpInForce: number;
  /** F_s, N. */
  readonly springForce: number;
  readonly efficiency: number;
  /** H, N. */
  readonly hysteresis: number;
  /** Pa, vacuum. */
  readonly ratedVacuum: number;
  /** V_f and V_r at rest, m3. */
  readonly frontVolume: number;
  readonly rearVolume: number;
  /** m */
  readonly stroke: number;
  /** Travel that the brakes take at the reserve force with assist, m. */
  readonly appliedTravel: number;
  /** A_m, m2. */
  readonly masterArea: number;
  readonly masterEfficiency: number;
  /** F_ms, N. */
  readonly masterSpring: number;
  readonly pedalRatio: number;
  /** Rod force per pedal force. */
  readonly leverage: number;
  /** Pedal force of the reserve test, N. */
  readonly reserveForce: number;
  /** Evacuated volume at rest, and the vacuum side when applied, m3. */
  readonly shellVolume: number;
  readonly appliedVolume: number;
}

/** SI form of a validated sheet. */
export function prepareVacuumInline(spec: VacuumInlineSpec): VacuumInlineUnit {
  const area = spec.diaphragms * (circleArea(spec.diaphragmDiameterMm) - circleArea(spec.hubDiameterMm));
  const frontVolume = spec.frontVolumeCm3 * 1e-6;
  const rearVolume = spec.rearVolumeCm3 * 1e-6;
  const appliedTravel = (spec.appliedTravelMm ?? spec.strokeMm) * 1e-3;
  return {
    spec,
    area,
    springForce: spec.returnSpringForceN,
    efficiency: spec.efficiency,
    ratedVacuum: spec.ratedVacuumKpa * 1e3,
    frontVolume,
    rearVolume,
    stroke: spec.strokeMm * 1e-3,
    appliedTravel,
    ...servoFromSpec(spec),
    pedalRatio: spec.pedalRatio,
    leverage: spec.pedalRatio * spec.linkageEfficiency,
    reserveForce: spec.reserveForceN,
    shellVolume: frontVolume + rearVolume,
    appliedVolume: frontVolume - area * appliedTravel,
  };
}
