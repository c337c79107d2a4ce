import type { Dimension } from './measurement-unit';

export type PressureReference = 'gauge' | 'vacuum' | 'absolute';

/** Everything that is said of a channel, in one row. */
export interface ChannelRow {
  readonly title: string;
  readonly dimension: Dimension;
  /** Unit symbol in open files. */
  readonly fileUnit: string;
  readonly reference?: PressureReference;
  /** Words of a log's header that speak for it; the more of them a header has, the likelier it is. */
  readonly words: readonly string[];
}

export interface ChannelDescription extends ChannelRow {
  readonly id: string;
}

const shared: Readonly<Record<string, ChannelRow>> = {
  supply_vacuum: {
    title: 'Supply',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'vacuum',
    words: ['supply', 'vacuum', 'vac', 'booster', 'manifold', 'map', 'source'],
  },
  control_vacuum: {
    title: 'Control port',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'vacuum',
    words: ['control', 'test', 'port', 'vacuum', 'vac'],
  },
  reservoir_vacuum: {
    title: 'Vehicle’s sensor',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'vacuum',
    words: ['reservoir', 'tank', 'vacuum', 'vac'],
  },
  source_vacuum: {
    title: 'Source side',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'vacuum',
    words: ['source', 'manifold', 'pump side', 'hose', 'vacuum', 'vac'],
  },
  input_pressure: {
    title: 'Input',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['input', 'inlet', 'in', 'master', 'pressure', 'p'],
  },
  output_pressure: {
    title: 'Output',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['output', 'outlet', 'out', 'wheel', 'slave', 'pressure', 'p'],
  },
  output_pressure_2: {
    title: 'Output 2',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['output', 'outlet', 'out', 'wheel', 'pressure', 'p', '2'],
  },
  boost_pressure: {
    title: 'Boost',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['boost', 'chamber', 'servo', 'pressure', 'p'],
  },
  pump_pressure: {
    title: 'Pump line',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['pump', 'delivery', 'pressure', 'p'],
  },
  return_pressure: {
    title: 'Return line',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['return', 'tank', 'pressure', 'p'],
  },
  front_pressure: {
    title: 'Front',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['front', 'axle', 'circuit', 'pressure', 'p'],
  },
  rear_pressure: {
    title: 'Rear',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['rear', 'back', 'axle', 'circuit', 'pressure', 'p'],
  },
  parking_pressure: {
    title: 'Parking port',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['parking', 'spring', 'chamber', 'release', 'pressure', 'p'],
  },
  accumulator_pressure: {
    title: 'Store',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['accumulator', 'accu', 'store', 'stored', 'sphere', 'charge', 'pressure', 'p', '1'],
  },
  accumulator_pressure_2: {
    title: 'Store 2',
    dimension: 'pressure',
    fileUnit: 'kPa',
    reference: 'gauge',
    words: ['accumulator', 'accu', 'store', 'stored', 'sphere', 'charge', 'pressure', 'p', '2'],
  },
  pedal_force: { title: 'Pedal force', dimension: 'force', fileUnit: 'N', words: ['pedal', 'foot', 'force', 'load'] },
  rod_force: { title: 'Rod force', dimension: 'force', fileUnit: 'N', words: ['rod', 'push', 'force', 'load'] },
  pedal_travel: {
    title: 'Pedal travel',
    dimension: 'length',
    fileUnit: 'mm',
    words: ['pedal', 'travel', 'stroke', 'position'],
  },
  rod_travel: {
    title: 'Rod travel',
    dimension: 'length',
    fileUnit: 'mm',
    words: ['rod', 'travel', 'stroke', 'position'],
  },
  ride_height: {
    title: 'Ride height',
    dimension: 'length',
    fileUnit: 'mm',
    words: ['ride', 'height', 'body', 'level', 'suspension'],
  },
  tape_height: {
    title: 'Height by tape',
    dimension: 'length',
    fileUnit: 'mm',
    words: ['tape', 'wing', 'arch', 'hub', 'height'],
  },
  air_temperature: {
    title: 'Air temperature',
    dimension: 'temperature',
    fileUnit: '°C',
    words: ['air', 'ambient', 'temperature', 'temp'],
  },
  fluid_temperature: {
    title: 'Fluid temperature',
    dimension: 'temperature',
    fileUnit: '°C',
    words: ['fluid', 'oil', 'temperature', 'temp'],
  },
  pedal_angle: {
    title: 'Pedal angle',
    dimension: 'angle',
    fileUnit: '°',
    words: ['pedal', 'foot', 'angle', 'position'],
  },
  motor_current: {
    title: 'Motor current',
    dimension: 'current',
    fileUnit: 'A',
    words: ['motor', 'pump', 'current', 'amps', 'clamp'],
  },
  supply_voltage: {
    title: 'Supply voltage',
    dimension: 'voltage',
    fileUnit: 'V',
    words: ['supply', 'battery', 'voltage', 'volts'],
  },
  flow: { title: 'Flow', dimension: 'volume-flow', fileUnit: 'L/min', words: ['flow', 'delivery', 'rate'] },
  stop_switch: {
    title: 'Stop-lamp switch',
    dimension: 'ratio',
    fileUnit: '1',
    words: ['stop', 'switch', 'lamp', 'light'],
  },
  pump_on: { title: 'Pump', dimension: 'ratio', fileUnit: '1', words: ['pump', 'motor', 'on', '1'] },
  pump_on_2: { title: 'Pump 2', dimension: 'ratio', fileUnit: '1', words: ['pump', 'motor', 'on', '2'] },
  engine_on: { title: 'Engine', dimension: 'ratio', fileUnit: '1', words: ['engine', 'running', 'ignition'] },
  lamp_red: { title: 'Red lamp', dimension: 'ratio', fileUnit: '1', words: ['red', 'warning', 'lamp', 'light'] },
  parking_brake: {
    title: 'Parking brake',
    dimension: 'ratio',
    fileUnit: '1',
    words: ['parking', 'brake', 'on', 'lamp'],
  },
  lamp_amber: { title: 'Amber lamp', dimension: 'ratio', fileUnit: '1', words: ['amber', 'yellow', 'lamp', 'light'] },
};

const described = (rows: Readonly<Record<string, ChannelRow>>) =>
  Object.entries(rows).map(([id, row]): ChannelDescription => ({ ...row, id }));

const all = described(shared);
const byId = new Map(all.map((channel) => [channel.id, channel]));

/** Every channel that a step can read, with the unit it has in open files. */
export const channels: readonly ChannelDescription[] = all;

/** Adds a family's channels; the registry does. Throws where one is there already (a programmer's error). */
export function joinChannels(more: Readonly<Record<string, ChannelRow>>): void {
  for (const channel of described(more)) {
    if (byId.has(channel.id)) throw new Error(`there is a channel "${channel.id}" already`);
    all.push(channel);
    byId.set(channel.id, channel);
  }
}

/** The description of a known channel, or undefined for a column of the user's own. */
export function findChannel(id: string): ChannelDescription | undefined {
  return byId.get(id);
}

/** Display name of a channel; of a column of the user's own what it is called. */
export function channelTitle(id: string): string {
  return id === 'time' ? 'Time' : (byId.get(id)?.title ?? id);
}
