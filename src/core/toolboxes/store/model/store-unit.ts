import type { GasAccumulatorSpec } from '../../../physics/gas-accumulator';

/** One store of a unit as its sheet gives it, SI, pressures gauge. */
export interface StoreUnit {
  /** m3 */
  readonly volume: number;
  /** At 20 °C. */
  readonly precharge: number;
  readonly cutIn: number;
  readonly cutOut: number;
  /** The red lamp (or the alarm) comes on below this. */
  readonly lamp: number;
  readonly leastUseful: number;
  /** s */
  readonly timeConstant: number;
  /** At working pressure, m3/s. */
  readonly pumpFlow: number;
  /** m3 */
  readonly fluidPerApplication: number;
  /** Oil past valves and seals at cut-out in a sound unit, m3/s. */
  readonly internalLeak: number;
  /** The system counts as dead below this; null falls back to the workshop's. */
  readonly dead: number | null;
  /** Least time in which the pressure may halve, s. */
  readonly halfLifeMin: number | null;
  /** The motor must not run longer than this at a stretch, s; null for a pump that an engine drives. */
  readonly motorRunMax: number | null;
  /** Least settled rest between runs, s; null where neither sheet nor maker says. */
  readonly restTimeMin: number | null;
  readonly chargeTimeMax: number | null;
  /** m3/s */
  readonly internalLeakMax: number | null;
  readonly assistedApplicationsMin: number | null;
  /** Relative tolerances; null falls back to the workshop's. */
  readonly prechargeTolerance: number | null;
  readonly switchTolerance: number | null;
}

/** Which store of a unit a step is about: its channels, and the ending of its characteristics' ids. */
export interface StoreCircuit<Unit> {
  /** Ending of the names of its typed fields. */
  readonly suffix: '' | '-2';
  /** Ending of its characteristics' ids. */
  readonly place: '' | '@2';
  readonly title: string;
  readonly pressure: 'accumulator_pressure' | 'accumulator_pressure_2';
  readonly pump: 'pump_on' | 'pump_on_2';
  /** 0/1 channel of its low-pressure lamp or alarm. */
  readonly lamp: 'lamp_red' | 'lamp_amber';
  readonly storeOf: (unit: Unit) => StoreUnit;
}

/** Lines and gauges beside a store: 0.12 cm3 to each megapascal. */
const lineCompliance = 0.12e-6 / 1e6;

/** The accumulator of a store in today's air (Pa absolute), sound unless `gas` scales its precharge. */
export function accumulatorOf(store: StoreUnit, ambient: number, gas = 1): GasAccumulatorSpec {
  return {
    precharge: gas <= 0 ? 0 : (store.precharge + ambient) * gas,
    volume: store.volume,
    timeConstant: store.timeConstant,
    lineCompliance,
  };
}
