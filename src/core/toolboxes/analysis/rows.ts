import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'assisted-applications': true;
    'supply-drop': true;
    'rise-time': true;
    'release-time': true;
    'residual-output': true;
    'servo-residual': true;
    'metering-slope': true;
    'circuit-difference': true;
    'cut-in-travel': true;
    'modulation-slope': true;
    'regulated-maximum': true;
    'angle-hysteresis': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Supply drop under load, fraction of the rated voltage. */
    readonly supplyDrop: number;
    /** Time to 90 % of a quick application, s. */
    readonly riseTime: number;
    /** Boost ratio may differ from the expected one by this fraction. */
    readonly boostRatioTolerance: number;
    /** Cut-in may differ from the expected by this fraction. */
    readonly cutInTolerance: number;
    /** Output left after release above the zero read before the pull, Pa. */
    readonly residual: number;
    /** An output must be back after this long, s. */
    readonly releaseTime: number;
    /** Useful strokes from the reserve at least. */
    readonly assistedApplications: number;
    /** A pump may be slower than its sheet by this fraction. */
    readonly pumpSpeedTolerance: number;
    /** Two circuits may differ by this fraction of the regulated maximum. */
    readonly circuitDifference: number;
  }
}

/** Words of readings that are of no one kind of unit. */
export const analysisRows = {
  characteristics: {
    'supply-drop': {
      title: 'Supply drop',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'difference', channel: 'supply_voltage' },
    },
    'rise-time': { title: 'Time to 90 %', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'assisted-applications': { title: 'Assisted strokes', unit: '1', as: 'count', dial: { kind: 'count' } },
    'release-time': { title: 'Release time', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'residual-output': {
      title: 'Residual output',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'output_pressure' },
    },
    'servo-residual': {
      title: 'Residual force',
      unit: 'N',
      as: 'force',
      dial: { kind: 'difference', channel: 'rod_force' },
      openName: 'residual-output',
    },
    'metering-slope': {
      title: 'Metering slope',
      unit: 'kPa/N',
      as: 'slope-per-force',
      dial: { kind: 'quotient', channels: ['front_pressure', 'pedal_force'] },
    },
    'circuit-difference': {
      title: 'Difference of the circuits',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'between', channels: ['front_pressure', 'rear_pressure'] },
    },
    'cut-in-travel': { title: 'Cut-in', unit: '°', as: 'angle', dial: { kind: 'reading', channel: 'pedal_angle' } },
    'modulation-slope': {
      title: 'Modulation slope',
      unit: 'kPa/°',
      as: 'slope-per-angle',
      dial: { kind: 'quotient', channels: ['front_pressure', 'pedal_angle'] },
    },
    'regulated-maximum': {
      title: 'Regulated maximum',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'front_pressure' },
    },
    'angle-hysteresis': {
      title: 'Hysteresis',
      unit: '°',
      as: 'angle',
      dial: { kind: 'difference', channel: 'pedal_angle' },
      openName: 'hysteresis',
    },
  },
  limits: {
    supplyDrop: 0.05,
    riseTime: 0.4,
    boostRatioTolerance: 0.1,
    cutInTolerance: 0.25,
    residual: 35_000,
    releaseTime: 2,
    assistedApplications: 2,
    pumpSpeedTolerance: 0.2,
    circuitDifference: 0.06,
  },
} as const satisfies BroughtRows;
