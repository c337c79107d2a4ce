/** Display names of channels. */
export const channelTitles: Readonly<Record<string, string>> = {
  input_pressure: 'Input',
  output_pressure: 'Output',
  output_pressure_2: 'Output 2',
  supply_vacuum: 'Supply',
  control_vacuum: 'Control port',
  stop_switch: 'Stop-lamp switch',
  rod_force: 'Rod force',
  rod_travel: 'Rod travel',
  ride_height: 'Ride height',
  pedal_force: 'Pedal force',
  pedal_travel: 'Pedal travel',
  reservoir_vacuum: 'Vehicle’s sensor',
  source_vacuum: 'Source side',
  time: 'Time',
  air_temperature: 'Air temperature',
  fluid_temperature: 'Fluid temperature',
  engine_on: 'Engine',
  pump_on: 'Pump',
  pump_on_2: 'Pump 2',
  accumulator_pressure: 'Store',
  accumulator_pressure_2: 'Store 2',
  front_pressure: 'Front',
  rear_pressure: 'Rear',
  boost_pressure: 'Boost',
  pump_pressure: 'Pump line',
  return_pressure: 'Return line',
  pedal_angle: 'Pedal angle',
  motor_current: 'Motor current',
  supply_voltage: 'Supply voltage',
  flow: 'Flow',
  lamp_red: 'Red lamp',
  lamp_amber: 'Amber lamp',
};

export function channelTitle(id: string): string {
  return channelTitles[id] ?? id;
}
