import type { BroughtRows } from '../../procedure/brought-rows';
import { perWheel } from '../../toolboxes/foundation/rows';

declare module '../../quantities/characteristics' {
  interface CharacteristicWords {
    'safe-voltage': true;
    'sensor-offset': true;
    'sensor-gain': true;
    linearity: true;
    'stage-1-stiffness': true;
    'stage-2-stiffness': true;
    'stage-change-travel': true;
    'tracking-gain': true;
    'steady-error': true;
    'dead-time': true;
    lag: true;
    overshoot: true;
    'stroke-creep': true;
    'plunger-creep': true;
    'fallback-pressure': true;
    'backup-energy': true;
    'wheel-release-time': true;
    'wheel-residual': true;
  }
}
declare module '../../physics/bench-controls' {
  interface ControlWords {
    'sensor-at': true;
    'hand-pump': true;
    'bank-load': true;
  }
}
declare module '../../procedure/workshop-limits' {
  interface LimitWords {
    /** A fallback pressure may fall short of what the pedal's ratio gives by this fraction. */
    readonly fallbackShortfall: number;
  }
}

/** Words of this family alone. */
export const byWireRows = {
  characteristics: {
    'safe-voltage': {
      title: 'Bank after the wait',
      unit: 'V',
      as: 'voltage',
      dial: { kind: 'reading', channel: 'backup_voltage' },
    },
    'sensor-offset': {
      title: 'Zero',
      unit: '%',
      as: 'percent',
      dial: { kind: 'share', channels: ['sensor_a', 'sensor_supply'] },
    },
    'sensor-gain': {
      title: 'Gain',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['sensor_a', 'sensor_supply'] },
    },
    linearity: {
      title: 'Linearity',
      unit: '%',
      as: 'percent',
      dial: { kind: 'share', channels: ['sensor_a', 'sensor_supply'] },
    },
    'stage-1-stiffness': {
      title: 'First stage',
      unit: 'N/mm',
      as: 'stiffness',
      dial: { kind: 'quotient', channels: ['pedal_force', 'pedal_travel'] },
    },
    'stage-2-stiffness': {
      title: 'Second stage',
      unit: 'N/mm',
      as: 'stiffness',
      dial: { kind: 'quotient', channels: ['pedal_force', 'pedal_travel'] },
    },
    'stage-change-travel': {
      title: 'Change of stage',
      unit: 'mm',
      as: 'length',
      dial: { kind: 'difference', channel: 'pedal_travel' },
    },
    'tracking-gain': {
      title: 'Gain',
      unit: '1',
      as: 'ratio',
      dial: { kind: 'quotient', channels: ['wheel_pressure_fl', 'target_pressure_fl'] },
    },
    'steady-error': {
      title: 'Steady error',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'between', channels: ['wheel_pressure_fl', 'target_pressure_fl'] },
    },
    'dead-time': { title: 'Dead time', unit: 's', as: 'time', dial: { kind: 'watch' } },
    lag: { title: 'Lag', unit: 's', as: 'time', dial: { kind: 'watch' } },
    overshoot: {
      title: 'Overshoot',
      unit: '%',
      as: 'percent',
      dial: { kind: 'share', channels: ['wheel_pressure_fl', 'target_pressure_fl'] },
    },
    'stroke-creep': {
      title: 'Creep of the pedal',
      unit: 'mm/min',
      as: 'creep',
      dial: { kind: 'rate', channel: 'pedal_travel' },
    },
    'plunger-creep': {
      title: 'Creep of the plunger',
      unit: 'mm/min',
      as: 'creep',
      dial: { kind: 'rate', channel: 'plunger_travel' },
    },
    'fallback-pressure': {
      title: 'Pressure by the foot alone',
      unit: 'kPa',
      as: 'gauge',
      dial: { kind: 'reading', channel: 'wheel_pressure_rl' },
    },
    'backup-energy': {
      title: 'Energy of the bank',
      unit: 'J',
      as: 'energy',
      dial: { kind: 'worked-out', channels: ['backup_voltage', 'backup_current'] },
    },
    'wheel-release-time': {
      title: 'Release time, slowest wheel',
      unit: 's',
      as: 'time',
      dial: { kind: 'watch' },
      openName: 'release-time',
    },
    'wheel-residual': {
      title: 'Residual pressure',
      unit: 'kPa',
      as: 'difference',
      dial: { kind: 'difference', channel: 'wheel_pressure_fl' },
      openName: 'residual-output',
    },
  },
  channels: {
    reference_pressure: {
      title: 'Reference gauge',
      dimension: 'pressure',
      fileUnit: 'kPa',
      reference: 'gauge',
      words: ['reference', 'ref', 'test gauge', 'pressure', 'p'],
    },
    ...perWheel('target_pressure', 'Target', ['target', 'desired', 'commanded', 'setpoint', 'wheel', 'pressure', 'p']),
    plunger_travel: {
      title: 'Plunger travel',
      dimension: 'length',
      fileUnit: 'mm',
      words: ['plunger', 'actuator', 'travel', 'stroke', 'position'],
    },
    motor_speed: {
      title: 'Motor speed',
      dimension: 'rotation',
      fileUnit: '1/min',
      words: ['motor', 'speed', 'rpm', 'rotation'],
    },
    sensor_at: {
      title: 'Sensor',
      dimension: 'ratio',
      fileUnit: '1',
      words: ['sensor number', 'sensor at'],
    },
    backup_voltage: {
      title: 'Backup bank',
      dimension: 'voltage',
      fileUnit: 'V',
      words: ['backup', 'capacitor', 'bank', 'reserve', 'voltage'],
    },
    backup_current: {
      title: 'Bank current',
      dimension: 'current',
      fileUnit: 'A',
      words: ['backup', 'capacitor', 'bank', 'discharge', 'current'],
    },
  },
  controls: ['sensor-at', 'hand-pump', 'bank-load'],
  limits: { fallbackShortfall: 0.15 },
} as const satisfies BroughtRows;
