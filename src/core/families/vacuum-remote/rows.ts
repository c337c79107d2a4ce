import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'pair-offset': true;
    'pair-gain': true;
    'switch-close-pressure': true;
    'switch-open-pressure': true;
    'cut-in-pressure': true;
    'valve-opening-pressure': true;
    'boost-slope': true;
    'run-out-input': true;
    'boost-ratio': true;
    'servo-slope': true;
    'servo-force': true;
    'run-out-servo-force': true;
    'vacuum-pair-offset': true;
    'control-remainder': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Control vacuum left at full activation, fraction of the supply vacuum. */
    readonly controlRemainder: number;
    /** Output decay, fraction of the held pressure per second. */
    readonly outputDecay: number;
    /** Force left of a servo's full pull after release, as a fraction of it. */
    readonly residualForceShare: number;
    /** Pair error, fraction of the reading, and its floor as a fraction of the gauge's range. */
    readonly pairError: number;
    readonly pairErrorFloor: number;
    /** Stop-lamp switch closes between these, Pa. */
    readonly switchCloseMin: number;
    readonly switchCloseMax: number;
  }
}

/** Words of this family alone. */
export const vacuumRemoteRows = {
  characteristics: {
    'pair-offset': {
      title: 'Pair offset',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'output_pressure' },
    },
    'pair-gain': {
      title: 'Pair gain',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
    },
    'switch-close-pressure': {
      title: 'Switch closes at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'switch-open-pressure': {
      title: 'Switch opens at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'cut-in-pressure': {
      title: 'Cut-in',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'valve-opening-pressure': {
      title: 'Control valve opens',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'boost-slope': {
      title: 'Boost slope',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
    },
    'run-out-input': {
      title: 'Run-out, input',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'boost-ratio': {
      title: 'Boost ratio',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
    },
    'servo-slope': {
      title: 'Boost slope',
      unit: 'N/kPa',
      as: 'force-per-pressure',
      dial: { kind: 'quotient', channels: ['rod_force', 'input_pressure'] },
      openName: 'boost-slope',
    },
    'servo-force': { title: 'Servo force', unit: 'N', as: 'force', dial: { kind: 'difference', channel: 'rod_force' } },
    'run-out-servo-force': {
      title: 'Run-out, force',
      unit: 'N',
      as: 'force',
      dial: { kind: 'difference', channel: 'rod_force' },
      openName: 'run-out-output',
    },
    'vacuum-pair-offset': {
      title: 'Vacuum pair offset',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
    },
    'control-remainder': {
      title: 'Control remainder',
      unit: 'kPa',
      as: 'vacuum',
      dial: { kind: 'reading', channel: 'control_vacuum' },
    },
  },
  limits: {
    controlRemainder: 0.03,
    outputDecay: 0.02 / 60,
    residualForceShare: 0.02,
    pairError: 0.03,
    pairErrorFloor: 0.005,
    switchCloseMin: 200_000,
    switchCloseMax: 800_000,
  },
} as const satisfies BroughtRows;
