import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'port-residual': true;
    'neutral-leak-flow': true;
    'parking-release-pressure': true;
  }
}

/** Words of this family alone. */
export const pedalValveRows = {
  characteristics: {
    'port-residual': {
      title: 'Residual output',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'front_pressure' },
      openName: 'residual-output',
    },
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
} as const satisfies BroughtRows;
