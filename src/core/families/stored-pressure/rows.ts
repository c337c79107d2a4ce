import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'height-loss': true;
    'bump-pressure': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** A vehicle may sink this far on its springs once the hydraulics are off, m. */
    readonly heightLoss: number;
    /** Brake pressure that a bump may make, Pa gauge. */
    readonly bumpPressure: number;
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
  limits: {
    heightLoss: 0.01,
    bumpPressure: 150_000,
  },
} as const satisfies BroughtRows;
