import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'pump-flow': true;
    'relief-pressure': true;
    'store-soak-loss': true;
    'return-pressure': true;
    'boost-sag': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Back pressure in a return line, Pa gauge. */
    readonly returnPressure: number;
    /** Boost may sag by this fraction while the steering takes its share. */
    readonly boostSag: number;
    /** A reserve may lose this fraction of its pressure over its soak. */
    readonly soakLossShare: number;
  }
}

/** Words of this family alone. */
export const hydraulicBoostRows = {
  characteristics: {
    'pump-flow': {
      title: 'Pump flow at idle',
      unit: 'L/min',
      as: 'pump-flow',
      dial: { kind: 'reading', channel: 'flow' },
    },
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
  limits: {
    returnPressure: 250_000,
    boostSag: 0.25,
    soakLossShare: 0.3,
  },
} as const satisfies BroughtRows;
