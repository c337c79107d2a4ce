import type { ServoUnit } from './servo-law';

/** Area (m2) of a bore or diaphragm of this diameter (mm). */
export const circleArea = (diameterMm: number) => (Math.PI / 4) * (diameterMm * 1e-3) ** 2;

/** What every sheet with a servo and a master cylinder says. */
export interface ServoSpec {
  readonly servoRatio: number;
  readonly cutInForceN: number;
  readonly jumpInForceN: number;
  readonly hysteresisN: number;
  readonly masterBoreMm: number;
  readonly masterEfficiency: number;
  readonly masterSpringForceN: number;
}

/** SI form of a sheet's servo and master cylinder. */
export function servoFromSpec(spec: ServoSpec): ServoUnit {
  return {
    servoRatio: spec.servoRatio,
    cutInForce: spec.cutInForceN,
    jumpInForce: spec.jumpInForceN,
    hysteresis: spec.hysteresisN,
    masterArea: circleArea(spec.masterBoreMm),
    masterEfficiency: spec.masterEfficiency,
    masterSpring: spec.masterSpringForceN,
  };
}
