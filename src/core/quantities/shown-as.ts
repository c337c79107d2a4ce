import { findChannel } from './channels';
import { isCharacteristicId, type CharacteristicId } from './characteristics';
import type { Dimension } from './measurement-unit';

/** What kind of pressure a figure is, so that it is shown in the right unit with its reference. */
export type ShownAs =
  | 'gauge'
  | 'vacuum'
  | 'absolute'
  | 'difference'
  | 'vacuum-difference'
  | 'rate'
  | 'flow'
  | 'pump-flow'
  | 'time'
  | 'ratio'
  | 'count'
  | 'state'
  | 'force'
  | 'length'
  | 'slope-per-force'
  | 'slope-per-angle'
  | 'force-per-pressure'
  | 'angle'
  | 'current'
  | 'voltage'
  | 'long-time';

const characteristicsShownAs: Readonly<Record<CharacteristicId, ShownAs>> = {
  'switch-close-pressure': 'gauge',
  'switch-open-pressure': 'gauge',
  'pair-offset': 'difference',
  'pair-gain': 'ratio',
  'output-decay-rate': 'rate',
  'input-creep': 'rate',
  'input-decay-rate': 'rate',
  'draw-time': 'time',
  'rest-difference': 'vacuum-difference',
  'vacuum-loss': 'vacuum-difference',
  'leak-flow': 'flow',
  'cut-in-pressure': 'gauge',
  'valve-opening-pressure': 'gauge',
  'boost-slope': 'ratio',
  'run-out-input': 'gauge',
  'run-out-output': 'gauge',
  'boost-ratio': 'ratio',
  'servo-slope': 'force-per-pressure',
  'servo-force': 'force',
  'run-out-servo-force': 'force',
  'servo-residual': 'force',
  'vacuum-pair-offset': 'vacuum-difference',
  hysteresis: 'difference',
  'control-remainder': 'vacuum',
  'supply-sag': 'vacuum-difference',
  'residual-output': 'difference',
  'release-time': 'time',
  'reverse-leak': 'vacuum-difference',
  'cut-in-force': 'force',
  'jump-in-output': 'gauge',
  'force-slope': 'slope-per-force',
  'run-out-force': 'force',
  'force-hysteresis': 'force',
  'unassisted-slope': 'slope-per-force',
  'assisted-applications': 'count',
  'vacuum-per-application': 'vacuum-difference',
  'rod-gap': 'length',
  'idle-vacuum': 'vacuum',
  'held-vacuum': 'vacuum',
  'pedal-sink': 'length',
  'soak-loss': 'vacuum-difference',
  'vehicle-ratio': 'ratio',
  'pump-speed': 'pump-flow',
  'ultimate-pressure': 'absolute',
  'pump-cut-in': 'vacuum',
  'pump-cut-out': 'vacuum',
  'run-time': 'time',
  'rest-time': 'time',
  'dead-pressure': 'gauge',
  'supply-drop': 'voltage',
  'run-current': 'current',
  precharge: 'gauge',
  'charge-time': 'time',
  'store-cut-in': 'gauge',
  'store-cut-out': 'gauge',
  'internal-leak-flow': 'flow',
  'lamp-pressure': 'gauge',
  'half-life': 'long-time',
  'precharge-2': 'gauge',
  'charge-time-2': 'time',
  'store-cut-in-2': 'gauge',
  'store-cut-out-2': 'gauge',
  'internal-leak-flow-2': 'flow',
  'lamp-pressure-2': 'gauge',
  'half-life-2': 'long-time',
  'dead-pressure-2': 'gauge',
  'run-time-2': 'time',
  'rest-time-2': 'time',
  'assisted-applications-2': 'count',
  'levelling-leak-flow': 'flow',
  'height-loss': 'length',
  'bump-pressure': 'gauge',
  'metering-slope': 'slope-per-force',
  'circuit-difference': 'difference',
  'cut-in-travel': 'angle',
  'modulation-slope': 'slope-per-angle',
  'regulated-maximum': 'gauge',
  'angle-hysteresis': 'angle',
  'rise-time': 'time',
  'rise-time-2': 'time',
  'front-residual': 'difference',
  'rear-residual': 'difference',
  'neutral-leak-flow': 'flow',
  'alarm-pressure': 'gauge',
  'parking-release-pressure': 'gauge',
  'relief-pressure': 'gauge',
  'pump-flow': 'pump-flow',
  'store-soak-loss': 'difference',
  'return-pressure': 'gauge',
  'boost-sag': 'difference',
};

const channelsShownAs: Partial<Record<Dimension, ShownAs>> = {
  force: 'force',
  length: 'length',
  ratio: 'state',
  angle: 'angle',
  current: 'current',
  voltage: 'voltage',
  'volume-flow': 'pump-flow',
};

/** How a characteristic or channel is shown. */
export function shownAs(id: string): ShownAs {
  if (isCharacteristicId(id)) return characteristicsShownAs[id];
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
  state: '1',
  force: 'N',
  length: 'mm',
  'slope-per-force': 'kPa/N',
  'slope-per-angle': 'kPa/°',
  'force-per-pressure': 'N/kPa',
  angle: '°',
  current: 'A',
  voltage: 'V',
  'long-time': 's',
};
