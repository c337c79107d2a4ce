import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'run-time': true;
    'rest-time': true;
    'dead-pressure': true;
    precharge: true;
    'charge-time': true;
    'store-cut-in': true;
    'store-cut-out': true;
    'internal-leak-flow': true;
    'lamp-pressure': true;
    'half-life': true;
    'levelling-leak-flow': true;
    'alarm-pressure': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** A system counts as dead below this, Pa gauge. */
    readonly deadPressure: number;
    /** A precharge may differ from its sheet by this fraction. */
    readonly prechargeTolerance: number;
    /** A pump’s thresholds may be off by this fraction. */
    readonly switchTolerance: number;
    /** A pump’s run from cut-in may differ from what the sheet’s model gives by this fraction. */
    readonly runTimeTolerance: number;
    /** A charge from empty may take this many times what the sheet’s model gives. */
    readonly chargeTimeFactor: number;
    /** Oil leak inside, times what a sound unit leaks by its sheet. */
    readonly internalLeakFactor: number;
    /** Useful applications of a charge at least, fraction of the prediction. */
    readonly applicationsShare: number;
    /** A store’s pressure halves in no less than this, s. */
    readonly halfLife: number;
  }
}

/** Words of a gas store with its pump. */
export const storeRows = {
  characteristics: {
    'run-time': { title: 'Run time', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'rest-time': { title: 'Rest between runs', unit: 's', as: 'time', dial: { kind: 'watch' }, inverse: true },
    'dead-pressure': {
      title: 'Pressure left',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
    },
    precharge: {
      title: 'Precharge at 20 °C',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
    },
    'charge-time': { title: 'Time to charge', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'store-cut-in': {
      title: 'Pump starts at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
      openName: 'pump-cut-in',
    },
    'store-cut-out': {
      title: 'Pump stops at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
      openName: 'pump-cut-out',
    },
    'internal-leak-flow': {
      title: 'Internal leak',
      unit: 'cm3/min',
      as: 'flow',
      dial: { kind: 'flow', channel: 'accumulator_pressure' },
    },
    'lamp-pressure': {
      title: 'Lamp lights at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
    },
    'half-life': { title: 'Half-life', unit: 's', as: 'long-time', dial: { kind: 'watch' }, inverse: true },
    'levelling-leak-flow': {
      title: 'Leak of the levelling',
      unit: 'cm3/min',
      as: 'flow',
      dial: { kind: 'flow', channel: 'accumulator_pressure_2' },
    },
    'alarm-pressure': {
      title: 'Alarm sounds at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'accumulator_pressure' },
    },
  },
  limits: {
    deadPressure: 200_000,
    prechargeTolerance: 0.1,
    switchTolerance: 0.05,
    runTimeTolerance: 0.3,
    chargeTimeFactor: 1.4,
    internalLeakFactor: 4,
    applicationsShare: 0.8,
    halfLife: 4 * 3600,
  },
} as const satisfies BroughtRows;
