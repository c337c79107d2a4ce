import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'unassisted-pressure': true;
    'assisted-pressure': true;
    'split-pressure': true;
    'rear-slope': true;
    'lower-slope': true;
    'axle-ratio': true;
    'stop-lamp-pressure': true;
    'stop-lamp-travel': true;
    deceleration: true;
    'stopping-distance': true;
    'pedal-force-needed': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** What a foot makes by itself may be so far off what the sheet says, as a share. */
    readonly basePressure: number;
    /** Below its split the rear follows one to one, within this. */
    readonly lowerSlope: number;
    /** One axle that has so many times the other's pressure is alone. */
    readonly axleRatio: number;
  }
}

const axles = ['rear_pressure', 'front_pressure'] as const;

/** Words of this family alone. */
export const foundationFamilyRows = {
  characteristics: {
    'unassisted-pressure': {
      title: 'Pressure of the foot alone',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'master_pressure' },
    },
    'assisted-pressure': {
      title: 'Pressure with assist',
      unit: 'kPa',
      as: 'gauge',
      repeats: true,
      dial: { kind: 'difference', channel: 'master_pressure' },
    },
    'split-pressure': {
      title: 'Split pressure',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'front_pressure' },
    },
    'rear-slope': { title: 'Rear slope', unit: '1', as: 'ratio', dial: { kind: 'quotient', channels: axles } },
    'lower-slope': {
      title: 'Slope below the split',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: axles },
    },
    'axle-ratio': {
      title: 'One axle over the other',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['front_pressure', 'rear_pressure'] },
    },
    'stop-lamp-pressure': {
      title: 'Stop lamp lights at',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'difference', channel: 'master_pressure' },
    },
    'stop-lamp-travel': {
      title: 'Stop lamp lights after',
      unit: 'mm',
      as: 'length',
      dial: { kind: 'difference', channel: 'pedal_travel' },
    },
    deceleration: { title: 'Deceleration', unit: 'm/s²', as: 'deceleration', dial: { kind: 'calculated' } },
    'stopping-distance': { title: 'Stopping distance', unit: 'm', as: 'distance', dial: { kind: 'calculated' } },
    'pedal-force-needed': {
      title: 'Pedal force needed',
      unit: 'N',
      as: 'force',
      dial: { kind: 'calculated' },
    },
  },
  limits: { basePressure: 0.15, lowerSlope: 0.05, axleRatio: 4 },
} as const satisfies BroughtRows;
