import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
    'neutral-leak-flow': true;
    'parking-release-pressure': true;
  }
}

/** Words of this family alone. */
export const pedalValveRows = {
  characteristics: {
    'neutral-leak-flow': {
      title: 'Neutral leak',
      unit: 'cm3/min',
      as: 'flow',
      dial: { kind: 'reading', channel: 'flow' },
    },
    'parking-release-pressure': {
      title: 'Parking brake lets go at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'parking_pressure' },
      openName: 'release-pressure',
    },
  },
} as const satisfies FamilyRows;
