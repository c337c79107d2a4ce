import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'supply-drop': true;
    'run-current': true;
  }
}

/** Words of this family alone. */
export const motorPumpBoostRows = {
  characteristics: {
    'supply-drop': {
      title: 'Supply drop',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'difference', channel: 'supply_voltage' },
    },
    'run-current': {
      title: 'Current while running',
      unit: 'A',
      as: 'current',
      dial: { kind: 'reading', channel: 'motor_current' },
    },
  },
} as const satisfies FamilyRows;
