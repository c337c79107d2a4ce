import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'output-decay-rate': true;
    'input-creep': true;
    'input-decay-rate': true;
    'draw-time': true;
    'rest-difference': true;
    'vacuum-loss': true;
    'leak-flow': true;
    'reverse-leak': true;
    'idle-vacuum': true;
    'held-vacuum': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** |control − supply| at rest, Pa. */
    readonly restDifference: number;
    /** Vacuum lost (Pa) in `vacuumLossSeconds` (s). */
    readonly vacuumLoss: number;
    readonly vacuumLossSeconds: number;
    /** Vacuum lost (Pa in `vacuumLossSeconds`) back through a check valve. */
    readonly reverseLeak: number;
    /** Least supply vacuum at sea level by the two schools, Pa. */
    readonly leastVacuum: number;
    readonly leastVacuumStrict: number;
  }
}

/** Pa; the two schools of least vacuum speak in inches. */
const inchOfMercury = 3386.389;

/** Words of draws, holds, check valves and sources. */
export const vacuumRows = {
  characteristics: {
    'output-decay-rate': {
      title: 'Output decay',
      unit: 'kPa/min',
      as: 'rate',
      dial: { kind: 'rate', channel: 'output_pressure' },
    },
    'input-creep': {
      title: 'Input creep',
      unit: 'kPa/min',
      as: 'rate',
      dial: { kind: 'rate', channel: 'input_pressure' },
    },
    'input-decay-rate': {
      title: 'Input decay',
      unit: 'kPa/min',
      as: 'rate',
      dial: { kind: 'rate', channel: 'input_pressure' },
    },
    'draw-time': { title: 'Draw time', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'rest-difference': {
      title: 'Control against supply at rest',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
    },
    'vacuum-loss': {
      title: 'Vacuum loss',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'difference', channel: 'supply_vacuum' },
    },
    'leak-flow': { title: 'Leak flow', unit: 'cm3/min', as: 'flow', dial: { kind: 'flow', channel: 'supply_vacuum' } },
    'reverse-leak': {
      title: 'Back through the check valve',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'difference', channel: 'supply_vacuum' },
    },
    'idle-vacuum': {
      title: 'Vacuum at idle',
      unit: 'kPa',
      as: 'vacuum',
      dial: { kind: 'reading', channel: 'supply_vacuum' },
    },
    'held-vacuum': {
      title: 'Vacuum while held',
      unit: 'kPa',
      as: 'vacuum',
      dial: { kind: 'reading', channel: 'supply_vacuum' },
    },
  },
  limits: {
    restDifference: 1_500,
    vacuumLoss: 3_300,
    vacuumLossSeconds: 15,
    reverseLeak: 1_000,
    leastVacuum: 16 * inchOfMercury,
    leastVacuumStrict: 18 * inchOfMercury,
  },
} as const satisfies BroughtRows;
