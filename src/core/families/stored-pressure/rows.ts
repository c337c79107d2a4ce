import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'height-loss': true;
    'bump-pressure': true;
  }
}

/** Words of this family alone. */
export const storedPressureRows = {
  characteristics: {
    'height-loss': {
      title: 'Height lost on its springs',
      unit: 'mm',
      as: 'length',
      dial: { kind: 'difference', channel: 'tape_height' },
    },
    'bump-pressure': {
      title: 'Brake pressure over a bump',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'front_pressure' },
    },
  },
} as const satisfies FamilyRows;
