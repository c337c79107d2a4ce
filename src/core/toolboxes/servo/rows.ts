import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'run-out-output': true;
    hysteresis: true;
    'supply-sag': true;
    'cut-in-force': true;
    'jump-in-output': true;
    'force-slope': true;
    'run-out-force': true;
    'force-hysteresis': true;
    'unassisted-slope': true;
    'vacuum-per-application': true;
    'pedal-sink': true;
    'vehicle-ratio': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Run-out may differ from the expected by this fraction. */
    readonly runOutTolerance: number;
    /** Hysteresis at most this many times the expected. */
    readonly hysteresisFactor: number;
    /** Supply vacuum may sag by this fraction during a pull. */
    readonly supplySag: number;
    /** Cut-in force may differ from the expected by this fraction. */
    readonly cutInForceTolerance: number;
    /** Jump-in may differ from the expected by this fraction. */
    readonly jumpInTolerance: number;
    /** A slope may differ from the expected by this fraction. */
    readonly slopeTolerance: number;
    /** The pedal sinks at least this far when assist comes, m. */
    readonly pedalSink: number;
    /** It sinks no further than this: beyond, it is on its way to the floor, m. */
    readonly pedalSinkMost: number;
    /** Strokes after which a reserve counts as used up, where strokes are counted. */
    readonly exhaustStrokes: number;
    /** Soak before the first stroke is tried, s. */
    readonly soakSeconds: number;
  }
}

/** Words of a servo with its master cylinder. */
export const servoRows = {
  characteristics: {
    'run-out-output': {
      title: 'Run-out, output',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'output_pressure' },
    },
    hysteresis: {
      title: 'Hysteresis',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'input_pressure' },
    },
    'supply-sag': {
      title: 'Supply sag',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'difference', channel: 'supply_vacuum' },
    },
    'cut-in-force': { title: 'Cut-in', unit: 'N', as: 'force', dial: { kind: 'reading', channel: 'rod_force' } },
    'jump-in-output': {
      title: 'Jump-in',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'output_pressure' },
    },
    'force-slope': {
      title: 'Boost slope',
      unit: 'kPa/N',
      as: 'slope-per-force',
      dial: { kind: 'quotient', channels: ['output_pressure', 'rod_force'] },
      openName: 'boost-slope',
    },
    'run-out-force': {
      title: 'Run-out, force',
      unit: 'N',
      as: 'force',
      dial: { kind: 'reading', channel: 'rod_force' },
    },
    'force-hysteresis': {
      title: 'Hysteresis',
      unit: 'N',
      as: 'force',
      dial: { kind: 'difference', channel: 'rod_force' },
      openName: 'hysteresis',
    },
    'unassisted-slope': {
      title: 'Slope without power',
      unit: 'kPa/N',
      as: 'slope-per-force',
      dial: { kind: 'quotient', channels: ['output_pressure', 'rod_force'] },
    },
    'vacuum-per-application': {
      title: 'Vacuum for the first stroke',
      unit: 'kPa',
      as: 'vacuum-difference',
      dial: { kind: 'difference', channel: 'supply_vacuum' },
    },
    'pedal-sink': {
      title: 'Pedal sinks',
      unit: 'mm',
      as: 'length',
      dial: { kind: 'difference', channel: 'pedal_travel' },
    },
    'vehicle-ratio': {
      title: 'Boost at one pedal force',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['output_pressure', 'output_pressure'] },
    },
  },
  limits: {
    runOutTolerance: 0.15,
    hysteresisFactor: 2,
    supplySag: 0.1,
    cutInForceTolerance: 0.3,
    jumpInTolerance: 0.5,
    slopeTolerance: 0.15,
    pedalSink: 0.005,
    pedalSinkMost: 0.07,
    exhaustStrokes: 8,
    soakSeconds: 300,
  },
} as const satisfies BroughtRows;
