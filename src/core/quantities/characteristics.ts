import { findChannel } from './channels';
import { partPlace, places, type Place, type Placed } from './places';
import type { ShownAs } from './shown-kind';

/** How a characteristic is read off dials by hand. */
export type DialReading =
  /** One reading above the gauge's zero, or a difference of two readings of one gauge. */
  | { readonly kind: 'difference'; readonly channel: string }
  | { readonly kind: 'reading'; readonly channel: string }
  /** Quotient of two readings of two gauges. */
  | { readonly kind: 'quotient'; readonly channels: readonly [string, string] }
  /** Two gauges against each other. */
  | { readonly kind: 'between'; readonly channels: readonly [string, string] }
  /** Change of one gauge's reading over a watched time. */
  | { readonly kind: 'rate'; readonly channel: string }
  /** Volume flow worked out of such a change and a volume. */
  | { readonly kind: 'flow'; readonly channel: string }
  /** Read with a watch: half a second each way. */
  | { readonly kind: 'watch' }
  /** Counted. */
  | { readonly kind: 'count' };

/** Everything that is said of a characteristic, in one row. */
export interface CharacteristicRow {
  readonly title: string;
  /** Unit symbol in open files. */
  readonly unit: string;
  readonly as: ShownAs;
  readonly dial: DialReading;
  /**
   * Name in open files where it differs: a force–pressure curve has a boost slope and a hysteresis too, but in other units than a
   * pressure–pressure curve, and one id has one unit in here.
   */
  readonly openName?: string;
}

const shared = {
  'switch-close-pressure': {
    title: 'Switch closes at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'switch-open-pressure': {
    title: 'Switch opens at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'pair-offset': {
    title: 'Pair offset',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'output_pressure' },
  },
  'pair-gain': {
    title: 'Pair gain',
    unit: '1',
    as: 'ratio',
    dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
  },
  'output-decay-rate': {
    title: 'Output decay',
    unit: 'kPa/min',
    as: 'rate',
    dial: { kind: 'rate', channel: 'output_pressure' },
  },
  'input-creep': {
    title: 'Input creep',
    unit: 'kPa/min',
    as: 'rate',
    dial: { kind: 'rate', channel: 'input_pressure' },
  },
  'input-decay-rate': {
    title: 'Input decay',
    unit: 'kPa/min',
    as: 'rate',
    dial: { kind: 'rate', channel: 'input_pressure' },
  },
  'draw-time': { title: 'Draw time', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'rest-difference': {
    title: 'Control against supply at rest',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
  },
  'vacuum-loss': {
    title: 'Vacuum loss',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'difference', channel: 'supply_vacuum' },
  },
  'leak-flow': { title: 'Leak flow', unit: 'cm3/min', as: 'flow', dial: { kind: 'flow', channel: 'supply_vacuum' } },
  'cut-in-pressure': {
    title: 'Cut-in',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'valve-opening-pressure': {
    title: 'Control valve opens',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'boost-slope': {
    title: 'Boost slope',
    unit: '1',
    as: 'ratio',
    dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
  },
  'run-out-input': {
    title: 'Run-out, input',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'run-out-output': {
    title: 'Run-out, output',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'output_pressure' },
  },
  'boost-ratio': {
    title: 'Boost ratio',
    unit: '1',
    as: 'ratio',
    dial: { kind: 'quotient', channels: ['output_pressure', 'input_pressure'] },
  },
  'servo-slope': {
    title: 'Boost slope',
    unit: 'N/kPa',
    as: 'force-per-pressure',
    dial: { kind: 'quotient', channels: ['rod_force', 'input_pressure'] },
    openName: 'boost-slope',
  },
  'servo-force': { title: 'Servo force', unit: 'N', as: 'force', dial: { kind: 'difference', channel: 'rod_force' } },
  'run-out-servo-force': {
    title: 'Run-out, force',
    unit: 'N',
    as: 'force',
    dial: { kind: 'difference', channel: 'rod_force' },
    openName: 'run-out-output',
  },
  'servo-residual': {
    title: 'Residual force',
    unit: 'N',
    as: 'force',
    dial: { kind: 'difference', channel: 'rod_force' },
    openName: 'residual-output',
  },
  'vacuum-pair-offset': {
    title: 'Vacuum pair offset',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
  },
  hysteresis: {
    title: 'Hysteresis',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'input_pressure' },
  },
  'control-remainder': {
    title: 'Control remainder',
    unit: 'kPa',
    as: 'vacuum',
    dial: { kind: 'reading', channel: 'control_vacuum' },
  },
  'supply-sag': {
    title: 'Supply sag',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'difference', channel: 'supply_vacuum' },
  },
  'residual-output': {
    title: 'Residual output',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'output_pressure' },
  },
  'release-time': { title: 'Release time', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'reverse-leak': {
    title: 'Back through the check valve',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'difference', channel: 'supply_vacuum' },
  },
  'cut-in-force': { title: 'Cut-in', unit: 'N', as: 'force', dial: { kind: 'reading', channel: 'rod_force' } },
  'jump-in-output': {
    title: 'Jump-in',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'output_pressure' },
  },
  'force-slope': {
    title: 'Boost slope',
    unit: 'kPa/N',
    as: 'slope-per-force',
    dial: { kind: 'quotient', channels: ['output_pressure', 'rod_force'] },
    openName: 'boost-slope',
  },
  'run-out-force': { title: 'Run-out, force', unit: 'N', as: 'force', dial: { kind: 'reading', channel: 'rod_force' } },
  'force-hysteresis': {
    title: 'Hysteresis',
    unit: 'N',
    as: 'force',
    dial: { kind: 'difference', channel: 'rod_force' },
    openName: 'hysteresis',
  },
  'unassisted-slope': {
    title: 'Slope without power',
    unit: 'kPa/N',
    as: 'slope-per-force',
    dial: { kind: 'quotient', channels: ['output_pressure', 'rod_force'] },
  },
  'assisted-applications': { title: 'Assisted strokes', unit: '1', as: 'count', dial: { kind: 'count' } },
  'vacuum-per-application': {
    title: 'Vacuum for the first stroke',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'difference', channel: 'supply_vacuum' },
  },
  'rod-gap': { title: 'Output-rod gap', unit: 'mm', as: 'length', dial: { kind: 'difference', channel: 'rod_travel' } },
  'idle-vacuum': {
    title: 'Vacuum at idle',
    unit: 'kPa',
    as: 'vacuum',
    dial: { kind: 'reading', channel: 'supply_vacuum' },
  },
  'held-vacuum': {
    title: 'Vacuum while held',
    unit: 'kPa',
    as: 'vacuum',
    dial: { kind: 'reading', channel: 'supply_vacuum' },
  },
  'pedal-sink': {
    title: 'Pedal sinks',
    unit: 'mm',
    as: 'length',
    dial: { kind: 'difference', channel: 'pedal_travel' },
  },
  'soak-loss': {
    title: 'Vacuum lost over the soak',
    unit: 'kPa',
    as: 'vacuum-difference',
    dial: { kind: 'difference', channel: 'supply_vacuum' },
  },
  'vehicle-ratio': {
    title: 'Boost at one pedal force',
    unit: '1',
    as: 'ratio',
    dial: { kind: 'quotient', channels: ['output_pressure', 'output_pressure'] },
  },
  'pump-speed': {
    title: 'Pump speed',
    unit: 'L/min',
    as: 'pump-flow',
    dial: { kind: 'flow', channel: 'supply_vacuum' },
  },
  'ultimate-pressure': {
    title: 'Ultimate pressure',
    unit: 'kPa',
    as: 'absolute',
    dial: { kind: 'reading', channel: 'supply_vacuum' },
  },
  'pump-cut-in': {
    title: 'Pump starts at',
    unit: 'kPa',
    as: 'vacuum',
    dial: { kind: 'reading', channel: 'supply_vacuum' },
  },
  'pump-cut-out': {
    title: 'Pump stops at',
    unit: 'kPa',
    as: 'vacuum',
    dial: { kind: 'reading', channel: 'supply_vacuum' },
  },
  'run-time': { title: 'Run time', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'rest-time': { title: 'Rest between runs', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'dead-pressure': {
    title: 'Pressure left',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
  },
  'supply-drop': {
    title: 'Supply drop',
    unit: 'V',
    as: 'voltage',
    dial: { kind: 'difference', channel: 'supply_voltage' },
  },
  'run-current': {
    title: 'Current while running',
    unit: 'A',
    as: 'current',
    dial: { kind: 'reading', channel: 'motor_current' },
  },
  precharge: {
    title: 'Precharge at 20 °C',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
  },
  'charge-time': { title: 'Time to charge', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'store-cut-in': {
    title: 'Pump starts at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
    openName: 'pump-cut-in',
  },
  'store-cut-out': {
    title: 'Pump stops at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
    openName: 'pump-cut-out',
  },
  'internal-leak-flow': {
    title: 'Internal leak',
    unit: 'cm3/min',
    as: 'flow',
    dial: { kind: 'flow', channel: 'accumulator_pressure' },
  },
  'lamp-pressure': {
    title: 'Lamp lights at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
  },
  'half-life': { title: 'Half-life', unit: 's', as: 'long-time', dial: { kind: 'watch' } },
  'levelling-leak-flow': {
    title: 'Leak of the levelling',
    unit: 'cm3/min',
    as: 'flow',
    dial: { kind: 'flow', channel: 'accumulator_pressure_2' },
  },
  'height-loss': {
    title: 'Height lost on its springs',
    unit: 'mm',
    as: 'length',
    dial: { kind: 'difference', channel: 'rod_travel' },
  },
  'bump-pressure': {
    title: 'Brake pressure over a bump',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'difference', channel: 'front_pressure' },
  },
  'metering-slope': {
    title: 'Metering slope',
    unit: 'kPa/N',
    as: 'slope-per-force',
    dial: { kind: 'quotient', channels: ['front_pressure', 'pedal_force'] },
  },
  'circuit-difference': {
    title: 'Difference of the circuits',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'between', channels: ['front_pressure', 'rear_pressure'] },
  },
  'cut-in-travel': { title: 'Cut-in', unit: '°', as: 'angle', dial: { kind: 'reading', channel: 'pedal_angle' } },
  'modulation-slope': {
    title: 'Modulation slope',
    unit: 'kPa/°',
    as: 'slope-per-angle',
    dial: { kind: 'quotient', channels: ['front_pressure', 'pedal_angle'] },
  },
  'regulated-maximum': {
    title: 'Regulated maximum',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'front_pressure' },
  },
  'angle-hysteresis': {
    title: 'Hysteresis',
    unit: '°',
    as: 'angle',
    dial: { kind: 'difference', channel: 'pedal_angle' },
    openName: 'hysteresis',
  },
  'rise-time': { title: 'Time to 90 %', unit: 's', as: 'time', dial: { kind: 'watch' } },
  'port-residual': {
    title: 'Residual output',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'front_pressure' },
    openName: 'residual-output',
  },
  'neutral-leak-flow': {
    title: 'Neutral leak',
    unit: 'cm3/min',
    as: 'flow',
    dial: { kind: 'reading', channel: 'flow' },
  },
  'alarm-pressure': {
    title: 'Alarm sounds at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'accumulator_pressure' },
  },
  'parking-release-pressure': {
    title: 'Parking brake lets go at',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'output_pressure' },
    openName: 'release-pressure',
  },
  'relief-pressure': {
    title: 'Relief pressure',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'pump_pressure' },
  },
  'pump-flow': {
    title: 'Pump flow at idle',
    unit: 'L/min',
    as: 'pump-flow',
    dial: { kind: 'reading', channel: 'flow' },
  },
  'store-soak-loss': {
    title: 'Pressure lost over the soak',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'accumulator_pressure' },
    openName: 'soak-loss',
  },
  'return-pressure': {
    title: 'Return-line pressure',
    unit: 'kPa',
    as: 'gauge',
    dial: { kind: 'reading', channel: 'return_pressure' },
  },
  'boost-sag': {
    title: 'Boost sags while steering',
    unit: 'kPa',
    as: 'difference',
    dial: { kind: 'difference', channel: 'boost_pressure' },
  },
} as const satisfies Readonly<Record<string, CharacteristicRow>>;

/** Words that a family brings: it declares their ids here (by module augmentation) and its rows in its `rows`. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- families add to it
export interface FamilyCharacteristics {}

/** A characteristic; one that is measured in several places is said with its place (`rise-time@rear`). */
export type CharacteristicId = Placed<keyof typeof shared | (keyof FamilyCharacteristics & string)>;

const rows = new Map<string, CharacteristicRow>(Object.entries(shared));

/** Adds a family's words to the table; the registry does. Throws where a word is there already with another row (a programmer's error). */
export function joinCharacteristics(more: Readonly<Record<string, CharacteristicRow>>): void {
  for (const [id, row] of Object.entries(more)) {
    if (rows.has(id) && rows.get(id) !== row) throw new Error(`there is a characteristic "${id}" already`);
    rows.set(id, row);
  }
}

/** The same dial at another place: the channel of that place where there is one. */
function dialAt(dial: DialReading, place: Place): DialReading {
  const there = (channel: string) =>
    [`${channel}_${place}`, channel.replace('front', place)].find((each) => findChannel(each)) ?? channel;
  switch (dial.kind) {
    case 'watch':
    case 'count':
      return dial;
    case 'quotient':
    case 'between':
      return { ...dial, channels: [there(dial.channels[0]), there(dial.channels[1])] };
    default:
      return { ...dial, channel: there(dial.channel) };
  }
}

/** The row of a characteristic, for its place where it has one; throws where nobody has brought one (a programmer's error). */
export function characteristicRow(id: CharacteristicId): CharacteristicRow {
  const { word, place } = partPlace(id);
  const row = rows.get(word);
  if (!row) throw new Error(`there is no characteristic "${id}"`);
  if (place === null) return row;
  return {
    ...row,
    title: `${row.title}, ${places[place].title}`,
    dial: dialAt(row.dial, place),
    openName: `${row.openName ?? word}${places[place].ending}`,
  };
}

/** Every characteristic with its row. */
export function everyCharacteristic(): readonly (readonly [CharacteristicId, CharacteristicRow])[] {
  return [...rows] as [CharacteristicId, CharacteristicRow][];
}

export function characteristicTitle(id: CharacteristicId): string {
  return characteristicRow(id).title;
}

/** The name a characteristic has in open files. */
export function openName(id: CharacteristicId): string {
  return characteristicRow(id).openName ?? id;
}

/** The characteristic of a step that has this name in open files; undefined when the step has none. */
export function findByOpenName(ids: readonly CharacteristicId[], name: string): CharacteristicId | undefined {
  return ids.find((id) => openName(id) === name);
}

/** Names that readings were kept under before places had one of their own. */
const formerNames: Readonly<Record<string, CharacteristicId>> = {
  'rise-time-2': 'rise-time@rear',
  'front-residual': 'port-residual',
  'rear-residual': 'port-residual@rear',
};

/** The characteristic that a kept reading is of, under whatever name; undefined where it is none. */
export function characteristicKeptAs(name: string): CharacteristicId | undefined {
  const present = formerNames[name] ?? name.replace(/-2$/, '@2');
  return [name, present].find(isCharacteristicId);
}

/** Whether `id` names a characteristic that the product knows. */
export function isCharacteristicId(id: string): id is CharacteristicId {
  return rows.has(partPlace(id).word);
}
