import type { FamilyRows } from '../../contract/family';

declare module '../../quantities/characteristics' {
  interface FamilyCharacteristics {
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

/** Words of this family alone. */
export const vacuumRemoteRows = {
  characteristics: {
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
} as const satisfies FamilyRows;
