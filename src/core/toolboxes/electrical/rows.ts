import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'ground-drop': true;
    'quiescent-current': true;
  }
}
declare module '../../physics/bench-controls' {
  interface ControlWords {
    ignition: true;
  }
}

/** Words of units that are fed from a battery. */
export const electricalRows = {
  characteristics: {
    'ground-drop': {
      title: 'Ground drop',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'reading', channel: 'ground_voltage' },
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
