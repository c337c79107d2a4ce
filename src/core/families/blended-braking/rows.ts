import type { BroughtRows } from '../../procedure/brought-rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'speed-dropouts': true;
    'closure-bias': true;
    'closure-rms': true;
    'closure-worst': true;
    'friction-gain': true;
    'handover-dip': true;
    'panic-delay': true;
    'unfilled-torque': true;
    'store-margin': true;
    'master-difference': true;
    'switch-difference': true;
  }
}

declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** Times that the speed of a drive may fall away. */
    readonly speedDropouts: number;
  }
}

const ofTorques = { kind: 'between', channels: ['requested_torque', 'regen_torque'] } as const;

/** Words of this family alone. */
export const blendedRows = {
  characteristics: {
    'speed-dropouts': { title: 'Speed lost', unit: '1', as: 'tally', dial: { kind: 'count' } },
    'closure-bias': { title: 'Torque missing on average', unit: 'N·m', as: 'torque', dial: ofTorques },
    'closure-rms': { title: 'Torque error, RMS', unit: 'N·m', as: 'torque', dial: ofTorques },
    'closure-worst': { title: 'Torque error at its worst', unit: 'N·m', as: 'torque', dial: ofTorques },
    'friction-gain': {
      title: 'Friction, share of what it should be',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'worked-out', channels: ['requested_torque', 'wheel_pressure_fl'] },
    },
    'handover-dip': { title: 'Dip in the handover', unit: 'N·m', as: 'torque', dial: ofTorques },
    'panic-delay': { title: 'Panic answered after', unit: 's', as: 'time', dial: { kind: 'watch' } },
    'unfilled-torque': { title: 'Torque not filled in', unit: 'N·m', as: 'torque', dial: ofTorques },
    'store-margin': {
      title: 'Store above the wheels',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'between', channels: ['accumulator_pressure', 'wheel_pressure_fl'] },
    },
    'master-difference': {
      title: 'Master sensors apart',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'between', channels: ['master_pressure', 'master_pressure_2'] },
    },
    'switch-difference': { title: 'Stop switches apart', unit: 's', as: 'time', dial: { kind: 'watch' } },
  },
  limits: { speedDropouts: 0 },
  channels: {
    requested_torque: {
      title: 'Requested torque',
      dimension: 'torque',
      fileUnit: 'N·m',
      words: ['requested', 'request', 'demand', 'demanded', 'driver', 'brake', 'braking', 'torque', 'total', 'target'],
    },
    regen_torque: {
      title: 'Regenerative torque',
      dimension: 'torque',
      fileUnit: 'N·m',
      words: ['regen', 'regenerative', 'recuperation', 'motor', 'electric', 'generator', 'torque'],
    },
    /** Worked out of a drive, for its picture; a tool may have one of its own. */
    torque_error: {
      title: 'Torque error',
      dimension: 'percent',
      fileUnit: '%',
      words: ['torque', 'error', 'missing', 'closure'],
    },
    battery_charge: {
      title: 'Battery charge',
      dimension: 'percent',
      fileUnit: '%',
      words: ['battery', 'charge', 'soc', 'state', 'pack', 'level'],
    },
    yaw_rate: { title: 'Yaw rate', dimension: 'angle-rate', fileUnit: '°/s', words: ['yaw', 'rate', 'turn'] },
    steering_angle: {
      title: 'Steering angle',
      dimension: 'angle',
      fileUnit: '°',
      words: ['steering', 'wheel', 'steer', 'angle'],
    },
    lamp_abs: {
      title: 'Anti-lock lamp',
      dimension: 'ratio',
      fileUnit: '1',
      words: ['abs', 'anti-lock', 'antilock', 'lamp', 'light', 'warning'],
    },
    lamp_stability: {
      title: 'Stability lamp',
      dimension: 'ratio',
      fileUnit: '1',
      words: ['stability', 'esc', 'esp', 'lamp', 'light', 'warning'],
    },
    buzzer: { title: 'Buzzer', dimension: 'ratio', fileUnit: '1', words: ['buzzer', 'chime', 'beeper', 'warning'] },
  },
} as const satisfies BroughtRows;
