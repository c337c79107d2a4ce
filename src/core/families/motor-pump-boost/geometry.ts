import { servoFromSpec } from '../../toolboxes/servo/servo-from-spec';
import { servoForce, masterPressure, kneeForce, type Branch, type ServoUnit } from '../../toolboxes/servo/servo-law';
import { storeFromSpec } from '../../toolboxes/store/model/store-fields';
import type { StoreUnit } from '../../toolboxes/store/model/store-unit';
import type { MotorPumpSpec } from './sheet';

/** A motor-pump unit with its master cylinder, in SI. Forces are at the push rod. */
export interface MotorPumpUnit extends ServoUnit {
  readonly spec: MotorPumpSpec;
  readonly store: StoreUnit;
  /** A_b, m2. */
  readonly boostArea: number;
  /** F_s, N. */
  readonly springForce: number;
  readonly efficiency: number;
  readonly pedalRatio: number;
  /** Rod force of a test stroke, N. */
  readonly strokeForce: number;
  /** V and A. */
  readonly ratedVoltage: number;
  readonly ratedCurrent: number;
}

/** SI form of a validated sheet. */
export function prepareMotorPump(spec: MotorPumpSpec): MotorPumpUnit {
  return {
    spec,
    store: storeFromSpec(spec),
    boostArea: spec.boostPistonAreaMm2 * 1e-6,
    springForce: spec.returnSpringForceN,
    efficiency: spec.efficiency,
    ...servoFromSpec(spec),
    pedalRatio: spec.pedalRatio,
    strokeForce: spec.reserveForceN * spec.pedalRatio,
    ratedVoltage: spec.ratedVoltageV,
    ratedCurrent: spec.ratedCurrentA,
  };
}

/** F_a = eta·p·A_b − F_s, N, at a store pressure (Pa gauge). */
export function assistForce(unit: MotorPumpUnit, pressure: number): number {
  return unit.efficiency * unit.boostArea * pressure - unit.springForce;
}

/** Output (Pa gauge) at a rod force (N) and a store pressure (Pa gauge). */
export function outputAt(unit: MotorPumpUnit, rodForce: number, pressure: number, branch: Branch = 'apply'): number {
  return masterPressure(unit, servoForce(unit, rodForce, assistForce(unit, pressure), branch));
}

/** Rod force at run-out (N) at a store pressure (Pa gauge); null where assist never reaches cut-in. */
export function runOutForce(unit: MotorPumpUnit, pressure: number): number | null {
  return kneeForce(unit, assistForce(unit, pressure));
}

/** Rod force that the assist curve is pushed to: clear beyond run-out, N. */
export function pushForce(unit: MotorPumpUnit): number {
  const knee = runOutForce(unit, unit.store.cutOut) ?? unit.cutInForce * 2;
  return Math.max(knee * 1.35, knee + 250);
}

/** A motor and its supply are read under load, by definition: from this share of cut-out to where the pump stops. */
export const loadedFrom = 0.85;

/** Motor current is this share of the rated at no pressure. */
const idleCurrent = 0.35;

/** Current (A) that a motor draws once its surge is over, `times` that of a sound one, at a share of the cut-out pressure. */
export function motorLoad(unit: MotorPumpUnit, times: number, share: number): number {
  return unit.ratedCurrent * times * (idleCurrent + (1 - idleCurrent) * share);
}
