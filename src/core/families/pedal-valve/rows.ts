import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'rise-time': true;
    'port-residual': true;
    'neutral-leak-flow': true;
    'parking-release-pressure': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Time to 90 % of a quick application, s. */
    readonly riseTime: number;
  }
}

/** Words of this family alone. */
export const pedalValveRows = {
  characteristics: {
    'rise-time': { title: 'Time to 90 %', unit: 's', as: 'time', dial: { kind: 'watch' } },
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
  limits: {
    riseTime: 0.4,
  },
} as const satisfies BroughtRows;
