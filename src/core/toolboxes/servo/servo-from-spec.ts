import type { ServoUnit } from './servo-law';
import { circleArea } from '../../quantities/circle-area';

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
