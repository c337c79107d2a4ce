import { storeFromSpec } from '../../toolboxes/store/model/store-fields';
import type { StoreUnit } from '../../toolboxes/store/model/store-unit';
import type { PedalValveSpec } from './sheet';

/** A dual pedal valve with its two stores, in SI; angles in degrees. */
export interface PedalValveUnit {
  readonly spec: PedalValveSpec;
  readonly front: StoreUnit;
  readonly rear: StoreUnit;
  /** g, Pa/°. */
  readonly modulation: number;
  /** x_0, °. */
  readonly cutIn: number;
  /** Pa gauge. */
  readonly regulatedMaximum: number;
  /** ° */
  readonly hysteresis: number;
  readonly travel: number;
  /** m3/s */
  readonly neutralLeak: number;
  /** Pa gauge. */
  readonly parkingRelease: number;
}

/** SI form of a validated sheet. */
export function preparePedalValve(spec: PedalValveSpec): PedalValveUnit {
  const front = storeFromSpec(spec);
  return {
    spec,
    front,
    rear: storeFromSpec({
      ...spec,
      accumulatorVolumeCm3: spec.rearAccumulatorVolumeCm3 ?? spec.accumulatorVolumeCm3,
      prechargeKpa: spec.rearPrechargeKpa ?? spec.prechargeKpa,
    }),
    modulation: spec.modulationKpaPerDegree * 1e3,
    cutIn: spec.cutInTravelDegrees,
    regulatedMaximum: spec.regulatedMaximumKpa * 1e3,
    hysteresis: spec.hysteresisDegrees,
    travel: spec.travelMaxDegrees,
    neutralLeak: (spec.neutralLeakCm3PerMin * 1e-6) / 60,
    parkingRelease: spec.parkingReleaseKpa * 1e3,
  };
}

/** Brake pressure (Pa gauge) at an angle (°): p_b = g·(x − x_0) up to the regulated maximum. */
export function brakePressure(unit: PedalValveUnit, angle: number, branch: 'apply' | 'way-back' = 'apply'): number {
  const felt = branch === 'apply' ? angle : angle + unit.hysteresis;
  return Math.max(0, Math.min(unit.modulation * (felt - unit.cutIn), unit.regulatedMaximum));
}

/** Angle at which the regulated maximum is reached, °. */
export function fullAngle(unit: PedalValveUnit): number {
  return unit.cutIn + unit.regulatedMaximum / unit.modulation;
}

/** Angle that the curve is pressed to: clear beyond the maximum, but inside the pedal's travel, °. */
export function pressAngle(unit: PedalValveUnit): number {
  return Math.min(unit.travel, fullAngle(unit) + Math.max(1.5, 0.15 * fullAngle(unit)));
}
