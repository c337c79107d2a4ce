import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'pump-speed': true;
    'ultimate-pressure': true;
    'pump-cut-in': true;
    'pump-cut-out': true;
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
} as const satisfies FamilyRows;
