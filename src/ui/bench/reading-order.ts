/** Largest first: what the step turns on, then what drives it, then what feeds it. */
const readingOrder = [
  'accumulator_pressure',
  'accumulator_pressure_2',
  'front_pressure',
  'rear_pressure',
  'output_pressure',
  'pump_pressure',
  'boost_pressure',
  'return_pressure',
  'pedal_travel',
  'ride_height',
  'pedal_angle',
  'input_pressure',
  'rod_force',
  'pedal_force',
  'control_vacuum',
  'reservoir_vacuum',
  'supply_vacuum',
  'motor_current',
  'supply_voltage',
  'flow',
  'stop_switch',
  'pump_on',
  'pump_on_2',
  'lamp_red',
  'lamp_amber',
  'parking_pressure',
  'parking_brake',
  'engine_on',
];

/** What a step reads, in the order in which it is shown: what is a family's own and needed comes first, what it only uses last. */
export function inReadingOrder(needs: readonly string[], uses: readonly string[]): readonly string[] {
  const own = (channels: readonly string[]) => channels.filter((channel) => !readingOrder.includes(channel));
  const known = readingOrder.filter((channel) => needs.includes(channel) || uses.includes(channel));
  return [...new Set([...own(needs), ...known, ...own(uses)])];
}
