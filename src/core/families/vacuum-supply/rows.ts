import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'pump-speed': true;
    'ultimate-pressure': true;
    'pump-cut-in': true;
    'pump-cut-out': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Its ultimate pressure may be higher than the sheet by this fraction. */
    readonly ultimateTolerance: number;
    /** Leak of a vacuum supply at rest, m3/s at standard conditions. */
    readonly supplyLeakFlow: number;
  }
}

/** Words of this family alone. */
export const vacuumSupplyRows = {
  characteristics: {
    'pump-speed': {
      title: 'Pump speed',
      unit: 'L/min',
      as: 'pump-flow',
      dial: { kind: 'flow', channel: 'supply_vacuum' },
    },
    'ultimate-pressure': {
      title: 'Ultimate pressure',
      unit: 'kPa',
      as: 'absolute',
      dial: { kind: 'reading', channel: 'supply_vacuum' },
    },
    'pump-cut-in': {
      title: 'Pump starts at',
      unit: 'kPa',
      as: 'vacuum',
      dial: { kind: 'reading', channel: 'supply_vacuum' },
    },
    'pump-cut-out': {
      title: 'Pump stops at',
      unit: 'kPa',
      as: 'vacuum',
      dial: { kind: 'reading', channel: 'supply_vacuum' },
    },
  },
  limits: {
    ultimateTolerance: 0.25,
    supplyLeakFlow: 50e-6 / 60,
  },
} as const satisfies BroughtRows;
