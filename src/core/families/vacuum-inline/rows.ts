import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'rod-gap': true;
    'soak-loss': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Output with vacuum over output without at one pedal force, at least. */
    readonly vehicleRatio: number;
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
  limits: {
    vehicleRatio: 2,
  },
} as const satisfies BroughtRows;
