import type { SleepingUnit, SuppliedUnit } from '../../toolboxes/electrical/supplied-unit';
import { circleArea } from '../../quantities/circle-area';
import { pressureFor, type MasterCylinder, type VehicleBrakes } from '../../calculators/brake-force';
import { lightRule } from '../../calculators/stop-rule';
import { brakesFromSpec } from '../../toolboxes/foundation/brakes-from-spec';
import { storeFromSpec } from '../../toolboxes/store/model/store-fields';
import type { StoreUnit } from '../../toolboxes/store/model/store-unit';
import type { AccumulatorSpec, ByWireSpec, PlungerSpec } from './sheet';

const { max, min } = Math;

/** Fluid that one wheel takes to each pascal, m3/Pa: 3 cm3 to 7 MPa. */
export const wheelCompliance = 3e-6 / 7e6;

export const wheels = ['fl', 'fr', 'rl', 'rr'] as const;
export type Wheel = (typeof wheels)[number];

/** A pedal-feel simulator, SI at the pedal: N, N/m, m. */
export interface PedalSimulator {
  readonly preload: number;
  readonly stiffness1: number;
  readonly stiffness2: number;
  readonly changeTravel: number;
}

/** A pressure sensor in proportion to its supply: shares of it at no pressure and at full scale (Pa gauge). */
export interface RatioSensor {
  readonly supply: number;
  readonly offset: number;
  readonly full: number;
  readonly fullScale: number;
}

/** A bank of capacitors that brakes when the battery is gone: F, V, J. */
export interface BackupBank {
  readonly capacitance: number;
  readonly full: number;
  readonly least: number;
  readonly energyPerStop: number;
  readonly stops: number;
}

/** A decoupled unit in SI; forces and travels at the pedal. */
export interface ByWireUnit extends SuppliedUnit, SleepingUnit, MasterCylinder {
  readonly spec: ByWireSpec;
  readonly simulator: PedalSimulator;
  readonly sensor: RatioSensor;
  /** s */
  readonly timeConstant: number;
  readonly fallbackForce: number;
  /** Pressure that the fallback must give, Pa gauge; null where neither sheet nor vehicle says. */
  readonly fallbackLeast: { readonly value: number; readonly field: string } | null;
  /** Null where its figures are not known, or there is none. */
  readonly bank: BackupBank | null;
  /** The maker's data says that none is fitted: else one may be, and is proved discharged. */
  readonly noBank: boolean;
  /** s, V */
  readonly safeWait: number;
  readonly safeVoltage: number;
  /** Pressure of hard braking, Pa gauge: the stand-in asks for no more, and steps are measured up to it. */
  readonly working: number;
}

export interface PlungerUnit extends ByWireUnit {
  readonly plungerArea: number;
  readonly plungerStroke: number;
}

export interface AccumulatorUnit extends ByWireUnit {
  readonly store: StoreUnit;
}

/** Hard braking takes this share of a sensor's full scale, and of the pressure at which the pump starts. */
const workingShare = 0.4;
const storeShare = 0.8;
/** And this share of a plunger's stroke. */
const plungerShare = 0.9;

function vehicleOf(spec: ByWireSpec): VehicleBrakes | null {
  const { massKg, tyreRadiusMm, frictionCoefficientFront, pistonAreaFrontMm2, effectiveRadiusFrontMm } = spec;
  if (
    massKg === undefined ||
    tyreRadiusMm === undefined ||
    frictionCoefficientFront === undefined ||
    pistonAreaFrontMm2 === undefined ||
    effectiveRadiusFrontMm === undefined
  )
    return null;
  return brakesFromSpec({
    ...spec,
    massKg,
    tyreRadiusMm,
    frictionCoefficientFront,
    pistonAreaFrontMm2,
    effectiveRadiusFrontMm,
  });
}

function fallbackOf(spec: ByWireSpec): ByWireUnit['fallbackLeast'] {
  if (spec.fallbackPressureMinKpa !== undefined)
    return { value: spec.fallbackPressureMinKpa * 1e3, field: 'fallbackPressureMinKpa' };
  const vehicle = vehicleOf(spec);
  const deceleration = spec.category === 'own' ? spec.ownDecelerationMinMPerS2 : lightRule.decelerationLeast;
  return vehicle && deceleration !== undefined
    ? {
        value: pressureFor(vehicle, deceleration),
        field: spec.category === 'own' ? 'ownDecelerationMinMPerS2' : 'category',
      }
    : null;
}

function bankOf(spec: ByWireSpec): BackupBank | null {
  const { backupCapacitanceF, backupVoltageFullV, backupVoltageMinV, energyPerStopJ, stopsMin } = spec;
  return backupCapacitanceF === undefined ||
    backupVoltageFullV === undefined ||
    backupVoltageMinV === undefined ||
    energyPerStopJ === undefined
    ? null
    : {
        capacitance: backupCapacitanceF,
        full: backupVoltageFullV,
        least: backupVoltageMinV,
        energyPerStop: energyPerStopJ,
        stops: stopsMin,
      };
}

function commonOf(spec: ByWireSpec, working: number): ByWireUnit {
  return {
    spec,
    pedalRatio: spec.pedalRatio,
    linkageEfficiency: spec.linkageEfficiency,
    masterArea: circleArea(spec.masterBoreMm),
    masterEfficiency: spec.masterEfficiency,
    masterSpring: spec.masterSpringForceN,
    simulator: {
      preload: spec.simulatorPreloadN,
      stiffness1: spec.simulatorStiffness1NPerMm * 1e3,
      stiffness2: spec.simulatorStiffness2NPerMm * 1e3,
      changeTravel: spec.simulatorChangeTravelMm * 1e-3,
    },
    ratedVoltage: spec.ratedVoltageV,
    ratedCurrent: spec.ratedCurrentA,
    supplyDropMax: spec.supplyDropMaxV,
    groundDropMax: spec.groundDropMaxV,
    quiescentMax: spec.quiescentCurrentMaxMa * 1e-3,
    sleepAfter: spec.sleepAfterS,
    sensor: {
      supply: spec.sensorSupplyV,
      offset: spec.sensorOffsetRatio,
      full: spec.sensorFullScaleRatio,
      fullScale: spec.sensorFullScaleKpa * 1e3,
    },
    timeConstant: spec.responseTimeConstantS,
    fallbackForce: spec.fallbackForceN,
    fallbackLeast: fallbackOf(spec),
    bank: bankOf(spec),
    noBank: spec.backupBank === 'none',
    safeWait: spec.safeWaitMin * 60,
    safeVoltage: spec.safeVoltageV,
    working,
  };
}

/** SI form of a validated sheet. */
export function preparePlunger(spec: PlungerSpec): PlungerUnit {
  const plungerArea = circleArea(spec.plungerBoreMm);
  const plungerStroke = spec.plungerStrokeMm * 1e-3;
  const most = (plungerShare * plungerArea * plungerStroke) / (wheels.length * wheelCompliance);
  return { ...commonOf(spec, min(spec.sensorFullScaleKpa * 1e3 * workingShare, most)), plungerArea, plungerStroke };
}

/** SI form of a validated sheet. */
export function prepareAccumulator(spec: AccumulatorSpec): AccumulatorUnit {
  const working = min(spec.sensorFullScaleKpa * workingShare, spec.cutInKpa * storeShare) * 1e3;
  return { ...commonOf(spec, working), store: storeFromSpec(spec) };
}

/** Pedal force (N) of a simulator at a pedal travel (m). */
export function simulatorForce(simulator: PedalSimulator, travel: number): number {
  const { preload, stiffness1, stiffness2, changeTravel } = simulator;
  const soft = min(travel, changeTravel);
  return preload + stiffness1 * soft + stiffness2 * max(0, travel - changeTravel);
}

/** Pedal travel (m) at a pedal force (N): none below the preload. */
export function simulatorTravel(simulator: PedalSimulator, force: number): number {
  const { preload, stiffness1, stiffness2, changeTravel } = simulator;
  const above = max(0, force - preload);
  const soft = above / stiffness1;
  return soft <= changeTravel ? soft : changeTravel + (above - stiffness1 * changeTravel) / stiffness2;
}

/** The stand-in asks for its hardest braking at this share beyond the simulator's change of stage, and for none up to so far, m. */
const fullTravelShare = 1.4;
const playTravel = 2e-3;

/** Travel (m) at which the stand-in brakes its hardest. */
const fullTravel = ({ simulator }: ByWireUnit) => playTravel + simulator.changeTravel * fullTravelShare;

/** Pressure (Pa gauge) that the stand-in's controller asks for at a pedal travel (m). */
export function targetAt(unit: ByWireUnit, travel: number): number {
  return unit.working * min(1, max(0, travel - playTravel) / (fullTravel(unit) - playTravel));
}

/** Pedal force (N) at which a share of the hardest braking is asked for. */
export function forceForShare(unit: ByWireUnit, share: number): number {
  return simulatorForce(unit.simulator, playTravel + (fullTravel(unit) - playTravel) * share);
}

/** Share of its supply that a sensor gives at a pressure (Pa gauge). */
export function sensorRatio({ offset, full, fullScale }: RatioSensor, pressure: number): number {
  return offset + ((full - offset) * pressure) / fullScale;
}

/** A bank drains itself to its safe voltage in this share of the wait. */
const drainsIn = 0.8;

/** Time constant with which a sound bank drains itself, s. */
export function bankDrain({ bank, safeWait, safeVoltage }: ByWireUnit): number {
  if (!bank) return Infinity;
  return (safeWait * drainsIn) / max(0.1, Math.log(bank.full / min(safeVoltage, 0.9 * bank.full)));
}

/** Energy (J) of a bank between two voltages: ½·C·(U1² − U2²), none where the first is not above the second. */
export function bankEnergy(capacitance: number, from: number, to: number): number {
  return from > to ? (capacitance * (from ** 2 - to ** 2)) / 2 : 0;
}
