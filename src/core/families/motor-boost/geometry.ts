import { servoFromSpec } from '../../toolboxes/servo/servo-from-spec';
import { kneeForce, masterPressure, servoForce, type Branch, type ServoUnit } from '../../toolboxes/servo/servo-law';
import type { SleepingUnit, SuppliedUnit } from '../../toolboxes/electrical/supplied-unit';
import type { MotorBoostSpec } from './sheet';

/** A motor booster with its master cylinder, in SI; forces at the push rod. */
export interface MotorBoostUnit extends ServoUnit, SuppliedUnit, SleepingUnit {
  readonly spec: MotorBoostSpec;
  /** Largest force of the motor at the rated voltage, N. */
  readonly motorForce: number;
  /** F_s, N. */
  readonly springForce: number;
  /** m */
  readonly stroke: number;
  readonly pedalRatio: number;
  readonly sensor: TwoTracks;
}

/** A travel sensor of two tracks, both in proportion to their supply: A rises, B is the supply less A. */
export interface TwoTracks {
  /** Supply by the sheet, V. */
  readonly supply: number;
  /** Travel over which they run, m. */
  readonly stroke: number;
  /** a_0 and a_1: share of the supply on track A at its start and its end. */
  readonly start: number;
  readonly end: number;
}

/** SI form of a validated sheet. */
export function prepareMotorBoost(spec: MotorBoostSpec): MotorBoostUnit {
  return {
    spec,
    ...servoFromSpec(spec),
    motorForce: spec.motorForceMaxN,
    springForce: spec.returnSpringForceN,
    stroke: spec.strokeMm * 1e-3,
    pedalRatio: spec.pedalRatio,
    ratedVoltage: spec.ratedVoltageV,
    ratedCurrent: spec.ratedCurrentA,
    supplyDropMax: spec.supplyDropMaxV,
    groundDropMax: spec.groundDropMaxV,
    sensor: {
      supply: spec.sensorSupplyV,
      stroke: spec.sensorStrokeMm * 1e-3,
      start: spec.sensorTrackStartV / spec.sensorSupplyV,
      end: spec.sensorTrackEndV / spec.sensorSupplyV,
    },
    sleepAfter: spec.sleepAfterS,
    quiescentMax: spec.quiescentCurrentMaxMa * 1e-3,
  };
}

/** F_a = F_motor·min(1, U/U_rated) − F_s, N, at a voltage across the unit's terminals (V). */
export function assistForce(unit: MotorBoostUnit, voltage: number): number {
  return unit.motorForce * Math.min(1, Math.max(0, voltage) / unit.ratedVoltage) - unit.springForce;
}

/** Output (Pa gauge) at a rod force (N) and a voltage (V). */
export function outputAt(unit: MotorBoostUnit, rodForce: number, voltage: number, branch: Branch = 'apply'): number {
  return masterPressure(unit, servoForce(unit, rodForce, assistForce(unit, voltage), branch));
}

/** Rod force that the unit is pushed to: clear beyond run-out, N. */
export function pushForce(unit: MotorBoostUnit, voltage: number): number {
  const knee = kneeForce(unit, assistForce(unit, voltage)) ?? unit.cutInForce * 2;
  return Math.max(knee * 1.35, knee + 250);
}

/** Travel (m) at an output (Pa gauge): the brakes take fluid in proportion, the whole stroke beyond run-out. */
export function travelAt(unit: MotorBoostUnit, output: number): number {
  const full = outputAt(unit, pushForce(unit, unit.ratedVoltage), unit.ratedVoltage);
  return Math.min(unit.stroke, (unit.stroke * output) / full);
}

/** Track A as a share of its supply at a travel (m): a_0 + (a_1 − a_0)·x/x_s. */
export function trackShare({ start, end, stroke }: TwoTracks, travel: number): number {
  return start + ((end - start) * travel) / stroke;
}
