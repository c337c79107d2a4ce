import { storeFromSpec } from '../../toolboxes/store/model/store-fields';
import type { StoreUnit } from '../../toolboxes/store/model/store-unit';
import type { StoredPressureSpec } from './sheet';

const { max, min } = Math;

/** A central system of two circuits in SI; pressures gauge, forces at the pedal. */
export interface StoredPressureUnit {
  readonly spec: StoredPressureSpec;
  readonly first: StoreUnit;
  /** Feeds the levelling as well. */
  readonly second: StoreUnit;
  /** Oil past a sound levelling at cut-out, m3/s. */
  readonly levellingLeak: number;
  /** Pa/N */
  readonly meteringSlope: number;
  /** N */
  readonly cutInForce: number;
  readonly regulatedMaximum: number;
}

/** SI form of a validated sheet. */
export function prepareStoredPressure(spec: StoredPressureSpec): StoredPressureUnit {
  const first = storeFromSpec(spec);
  const second = storeFromSpec({
    ...spec,
    accumulatorVolumeCm3: spec.sphere2VolumeCm3 ?? spec.accumulatorVolumeCm3,
    prechargeKpa: spec.sphere2PrechargeKpa ?? spec.prechargeKpa,
  });
  const levellingLeak = (spec.levellingLeakCm3PerMin * 1e-6) / 60;
  return {
    spec,
    first,
    // With the levelling open its leak is part of what a sound circuit 2 loses.
    second: { ...second, internalLeak: second.internalLeak + levellingLeak },
    levellingLeak,
    meteringSlope: spec.meteringSlopeKpaPerN * 1e3,
    cutInForce: spec.cutInForceN,
    regulatedMaximum: spec.regulatedMaximumKpa * 1e3,
  };
}

/** Brake pressure (Pa gauge) of a sound metering valve at a pedal force (N). */
export function brakePressure(unit: StoredPressureUnit, force: number): number {
  return max(0, min(unit.meteringSlope * (force - unit.cutInForce), unit.regulatedMaximum));
}

/** Force at which the metering valves give all they can, N. */
export function fullForce(unit: StoredPressureUnit): number {
  return unit.cutInForce + (1.05 * unit.regulatedMaximum) / unit.meteringSlope;
}

/** Force that the curve is pressed to, N. */
export function pressForce(unit: StoredPressureUnit): number {
  return unit.cutInForce + (0.92 * unit.regulatedMaximum) / unit.meteringSlope;
}
