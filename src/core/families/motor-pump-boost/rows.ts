import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'supply-drop': true;
    'run-current': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Supply drop under load, fraction of the rated voltage. */
    readonly supplyDrop: number;
    /** Motor current at working pressure may differ from the rated by this fraction. */
    readonly currentTolerance: number;
  }
}

/** Words of this family alone. */
export const motorPumpBoostRows = {
  characteristics: {
    'supply-drop': {
      title: 'Supply drop',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'difference', channel: 'supply_voltage' },
    },
    'run-current': {
      title: 'Current while running',
      unit: 'A',
      as: 'current',
      dial: { kind: 'reading', channel: 'motor_current' },
    },
  },
  limits: {
    supplyDrop: 0.05,
    currentTolerance: 0.3,
  },
} as const satisfies BroughtRows;
