import { findChannel } from './channels';
import type { ShownAs } from './shown-kind';
import { characteristicRow, isCharacteristicId } from './characteristics';
import type { Dimension } from './measurement-unit';

export type { ShownAs } from './shown-kind';

const channelsShownAs: Partial<Record<Dimension, ShownAs>> = {
  force: 'force',
  length: 'length',
  ratio: 'state',
  angle: 'angle',
  current: 'current',
  voltage: 'voltage',
  'volume-flow': 'pump-flow',
  rotation: 'rotation',
  torque: 'torque',
  speed: 'speed',
  'angle-rate': 'angle-rate',
  percent: 'percent',
  temperature: 'temperature',
};

/** How a characteristic or channel is shown. */
export function shownAs(id: string): ShownAs {
  if (isCharacteristicId(id)) return characteristicRow(id).as;
  if (id === 'time') return 'time';
  const channel = findChannel(id);
  if (!channel) return 'gauge';
  return channel.reference ?? channelsShownAs[channel.dimension] ?? 'gauge';
}

/** Unit that a figure of a kind has in open files. */
export const openUnits: Readonly<Record<ShownAs, string>> = {
  gauge: 'kPa',
  vacuum: 'kPa',
  absolute: 'kPa',
  difference: 'kPa',
  'vacuum-difference': 'kPa',
  rate: 'kPa/min',
  flow: 'cm3/min',
  'pump-flow': 'L/min',
  time: 's',
  ratio: '1',
  count: 'strokes',
  tally: 'times',
  state: '1',
  force: 'N',
  length: 'mm',
  'slope-per-force': 'kPa/N',
  'slope-per-angle': 'kPa/°',
  'force-per-pressure': 'N/kPa',
  angle: '°',
  current: 'A',
  'small-current': 'mA',
  voltage: 'V',
  'long-time': 's',
  stiffness: 'N/mm',
  creep: 'mm/min',
  energy: 'J',
  percent: '%',
  rotation: '1/min',
  torque: 'N·m',
  speed: 'km/h',
  'angle-rate': '°/s',
  deceleration: 'm/s²',
  distance: 'm',
  volume: 'cm3',
  temperature: '°C',
};
