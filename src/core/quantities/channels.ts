import type { Dimension } from './measurement-unit';

export type PressureReference = 'gauge' | 'vacuum' | 'absolute';

export interface ChannelDescription {
  readonly id: string;
  readonly dimension: Dimension;
  /** Unit symbol in open files. */
  readonly fileUnit: string;
  readonly reference?: PressureReference;
}

function describe(dimension: Dimension, fileUnit: string, ids: readonly string[], reference?: PressureReference) {
  return ids.map((id): ChannelDescription => ({ id, dimension, fileUnit, reference }));
}

/** Every channel that a step can read, with the unit it has in open files. */
export const channels: readonly ChannelDescription[] = [
  ...describe('pressure', 'kPa', ['supply_vacuum', 'control_vacuum', 'reservoir_vacuum', 'source_vacuum'], 'vacuum'),
  ...describe(
    'pressure',
    'kPa',
    [
      'input_pressure',
      'output_pressure',
      'output_pressure_2',
      'boost_pressure',
      'pump_pressure',
      'return_pressure',
      'front_pressure',
      'rear_pressure',
      'accumulator_pressure',
      'accumulator_pressure_2',
    ],
    'gauge',
  ),
  ...describe('force', 'N', ['pedal_force', 'rod_force']),
  ...describe('length', 'mm', ['pedal_travel', 'rod_travel', 'ride_height']),
  ...describe('temperature', '°C', ['air_temperature', 'fluid_temperature']),
  ...describe('angle', '°', ['pedal_angle']),
  ...describe('current', 'A', ['motor_current']),
  ...describe('voltage', 'V', ['supply_voltage']),
  ...describe('volume-flow', 'L/min', ['flow']),
  ...describe('ratio', '1', ['stop_switch', 'pump_on', 'pump_on_2', 'engine_on', 'lamp_red', 'lamp_amber']),
];

const byId = new Map(channels.map((channel) => [channel.id, channel]));

/** The description of a known channel, or undefined for a column of the user's own. */
export function findChannel(id: string): ChannelDescription | undefined {
  return byId.get(id);
}
