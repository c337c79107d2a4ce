import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'ground-drop': true;
    'sum-error': true;
    'track-gain': true;
    'track-offset': true;
    dropouts: true;
    'peak-current': true;
    'quiescent-current': true;
  }
}
declare module '../../physics/bench-controls' {
  interface ControlWords {
    ignition: true;
  }
}

/** Words of this family alone. */
export const motorBoostRows = {
  characteristics: {
    'ground-drop': {
      title: 'Ground drop',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'reading', channel: 'ground_voltage' },
    },
    'sum-error': {
      title: 'Worst error of the sum',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'between', channels: ['sensor_a', 'sensor_b'] },
    },
    'track-gain': {
      title: 'Gain',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['sensor_a', 'sensor_supply'] },
    },
    'track-offset': {
      title: 'Offset',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'difference', channel: 'sensor_a' },
    },
    dropouts: { title: 'Dropouts', unit: '1', as: 'tally', dial: { kind: 'count' } },
    'peak-current': {
      title: 'Peak current',
      unit: 'A',
      as: 'current',
      dial: { kind: 'reading', channel: 'motor_current' },
    },
    'quiescent-current': {
      title: 'Current asleep',
      unit: 'mA',
      as: 'small-current',
      dial: { kind: 'reading', channel: 'sleep_current' },
    },
  },
  channels: {
    battery_voltage: {
      title: 'Battery',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['battery', 'source', 'voltage', 'volts'],
    },
    ground_voltage: {
      title: 'Ground terminal',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['ground', 'earth', 'gnd', 'voltage'],
    },
    sensor_supply: {
      title: 'Sensor supply',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['sensor', 'reference', 'supply', '5v', 'vref'],
    },
    sensor_a: {
      title: 'Track A',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['sensor', 'track', 'signal', 'a', '1'],
    },
    sensor_b: {
      title: 'Track B',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['sensor', 'track', 'signal', 'b', '2'],
    },
    sleep_current: {
      title: 'Current asleep',
      dimension: 'current',
      fileUnit: 'A',
      words: ['sleep', 'quiescent', 'drain', 'standby', 'current'],
    },
    ignition_on: { title: 'Ignition', dimension: 'ratio', fileUnit: '1', words: ['ignition', 'key', 'kl15', 'on'] },
  },
  controls: ['ignition'],
} as const satisfies BroughtRows;
