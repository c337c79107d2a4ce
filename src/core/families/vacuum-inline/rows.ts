import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'rod-gap': true;
    'soak-loss': true;
  }
}

/** Words of this family alone. */
export const vacuumInlineRows = {
  characteristics: {
    'rod-gap': {
      title: 'Output-rod gap',
      unit: 'mm',
      as: 'length',
      dial: { kind: 'difference', channel: 'rod_travel' },
    },
    'soak-loss': {
      title: 'Vacuum lost over the soak',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'difference', channel: 'supply_vacuum' },
    },
  },
} as const satisfies FamilyRows;
