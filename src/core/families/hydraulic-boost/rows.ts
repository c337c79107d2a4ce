import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'relief-pressure': true;
    'store-soak-loss': true;
    'return-pressure': true;
    'boost-sag': true;
  }
}

/** Words of this family alone. */
export const hydraulicBoostRows = {
  characteristics: {
    'relief-pressure': {
      title: 'Relief pressure',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'pump_pressure' },
    },
    'store-soak-loss': {
      title: 'Pressure lost over the soak',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'accumulator_pressure' },
      openName: 'soak-loss',
    },
    'return-pressure': {
      title: 'Return-line pressure',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'return_pressure' },
    },
    'boost-sag': {
      title: 'Boost sags while steering',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'boost_pressure' },
    },
  },
} as const satisfies FamilyRows;
