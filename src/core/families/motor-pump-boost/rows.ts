import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'run-current': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Motor current at working pressure may differ from the rated by this fraction. */
    readonly currentTolerance: number;
  }
}

/** Words of this family alone. */
export const motorPumpBoostRows = {
  characteristics: {
    'run-current': {
      title: 'Current while running',
      unit: 'A',
      as: 'current',
      dial: { kind: 'reading', channel: 'motor_current' },
    },
  },
  limits: {
    currentTolerance: 0.3,
  },
} as const satisfies BroughtRows;
