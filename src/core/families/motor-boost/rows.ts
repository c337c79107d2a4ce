import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'sum-error': true;
    'track-gain': true;
    'track-offset': true;
    dropouts: true;
    'peak-current': true;
  }
}

/** Words of this family alone. */
export const motorBoostRows = {
  characteristics: {
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
  },
  channels: {
    sensor_b: {
      title: 'Track B',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['sensor', 'track', 'signal', 'b', '2'],
    },
  },
} as const satisfies BroughtRows;
