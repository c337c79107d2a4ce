import type { CharacteristicId } from '../quantities/characteristics';

/** How a characteristic is read off dials by hand. */
type DialReading =
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

const input = 'input_pressure';
const output = 'output_pressure';
const store = 'accumulator_pressure';
const store2 = 'accumulator_pressure_2';

/** How each characteristic is read off dials. */
export const dialReadings: Readonly<Record<CharacteristicId, DialReading>> = {
  'switch-close-pressure': { kind: 'difference', channel: input },
  'switch-open-pressure': { kind: 'difference', channel: input },
  'pair-offset': { kind: 'difference', channel: output },
  'pair-gain': { kind: 'quotient', channels: [output, input] },
  'output-decay-rate': { kind: 'rate', channel: output },
  'input-creep': { kind: 'rate', channel: input },
  'input-decay-rate': { kind: 'rate', channel: input },
  'draw-time': { kind: 'watch' },
  'rest-difference': { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
  'vacuum-loss': { kind: 'difference', channel: 'supply_vacuum' },
  'leak-flow': { kind: 'flow', channel: 'supply_vacuum' },
  'cut-in-pressure': { kind: 'difference', channel: input },
  'valve-opening-pressure': { kind: 'difference', channel: input },
  'boost-slope': { kind: 'quotient', channels: [output, input] },
  'run-out-input': { kind: 'difference', channel: input },
  'run-out-output': { kind: 'difference', channel: output },
  'boost-ratio': { kind: 'quotient', channels: [output, input] },
  'servo-slope': { kind: 'quotient', channels: ['rod_force', input] },
  'servo-force': { kind: 'difference', channel: 'rod_force' },
  'run-out-servo-force': { kind: 'difference', channel: 'rod_force' },
  'servo-residual': { kind: 'difference', channel: 'rod_force' },
  'vacuum-pair-offset': { kind: 'between', channels: ['supply_vacuum', 'control_vacuum'] },
  hysteresis: { kind: 'difference', channel: input },
  'control-remainder': { kind: 'reading', channel: 'control_vacuum' },
  'supply-sag': { kind: 'difference', channel: 'supply_vacuum' },
  'residual-output': { kind: 'difference', channel: output },
  'release-time': { kind: 'watch' },
  'reverse-leak': { kind: 'difference', channel: 'supply_vacuum' },
  'cut-in-force': { kind: 'reading', channel: 'rod_force' },
  'jump-in-output': { kind: 'difference', channel: output },
  'force-slope': { kind: 'quotient', channels: [output, 'rod_force'] },
  'run-out-force': { kind: 'reading', channel: 'rod_force' },
  'force-hysteresis': { kind: 'difference', channel: 'rod_force' },
  'unassisted-slope': { kind: 'quotient', channels: [output, 'rod_force'] },
  'assisted-applications': { kind: 'count' },
  'vacuum-per-application': { kind: 'difference', channel: 'supply_vacuum' },
  'rod-gap': { kind: 'difference', channel: 'rod_travel' },
  'idle-vacuum': { kind: 'reading', channel: 'supply_vacuum' },
  'held-vacuum': { kind: 'reading', channel: 'supply_vacuum' },
  'pedal-sink': { kind: 'difference', channel: 'pedal_travel' },
  'soak-loss': { kind: 'difference', channel: 'supply_vacuum' },
  'vehicle-ratio': { kind: 'quotient', channels: [output, output] },
  'pump-speed': { kind: 'flow', channel: 'supply_vacuum' },
  'ultimate-pressure': { kind: 'reading', channel: 'supply_vacuum' },
  'pump-cut-in': { kind: 'reading', channel: 'supply_vacuum' },
  'pump-cut-out': { kind: 'reading', channel: 'supply_vacuum' },
  'run-time': { kind: 'watch' },
  'rest-time': { kind: 'watch' },
  'dead-pressure': { kind: 'reading', channel: store },
  'supply-drop': { kind: 'difference', channel: 'supply_voltage' },
  'run-current': { kind: 'reading', channel: 'motor_current' },
  precharge: { kind: 'reading', channel: store },
  'charge-time': { kind: 'watch' },
  'store-cut-in': { kind: 'reading', channel: store },
  'store-cut-out': { kind: 'reading', channel: store },
  'internal-leak-flow': { kind: 'flow', channel: store },
  'lamp-pressure': { kind: 'reading', channel: store },
  'half-life': { kind: 'watch' },
  'precharge-2': { kind: 'reading', channel: store2 },
  'charge-time-2': { kind: 'watch' },
  'store-cut-in-2': { kind: 'reading', channel: store2 },
  'store-cut-out-2': { kind: 'reading', channel: store2 },
  'internal-leak-flow-2': { kind: 'flow', channel: store2 },
  'lamp-pressure-2': { kind: 'reading', channel: store2 },
  'half-life-2': { kind: 'watch' },
  'dead-pressure-2': { kind: 'reading', channel: store2 },
  'run-time-2': { kind: 'watch' },
  'rest-time-2': { kind: 'watch' },
  'assisted-applications-2': { kind: 'count' },
  'levelling-leak-flow': { kind: 'flow', channel: store2 },
  'height-loss': { kind: 'difference', channel: 'rod_travel' },
  'bump-pressure': { kind: 'difference', channel: 'front_pressure' },
  'metering-slope': { kind: 'quotient', channels: ['front_pressure', 'pedal_force'] },
  'circuit-difference': { kind: 'between', channels: ['front_pressure', 'rear_pressure'] },
  'cut-in-travel': { kind: 'reading', channel: 'pedal_angle' },
  'modulation-slope': { kind: 'quotient', channels: ['front_pressure', 'pedal_angle'] },
  'regulated-maximum': { kind: 'reading', channel: 'front_pressure' },
  'angle-hysteresis': { kind: 'difference', channel: 'pedal_angle' },
  'rise-time': { kind: 'watch' },
  'rise-time-2': { kind: 'watch' },
  'front-residual': { kind: 'difference', channel: 'front_pressure' },
  'rear-residual': { kind: 'difference', channel: 'rear_pressure' },
  'neutral-leak-flow': { kind: 'reading', channel: 'flow' },
  'alarm-pressure': { kind: 'reading', channel: store },
  'parking-release-pressure': { kind: 'reading', channel: 'output_pressure' },
  'relief-pressure': { kind: 'reading', channel: 'pump_pressure' },
  'pump-flow': { kind: 'reading', channel: 'flow' },
  'store-soak-loss': { kind: 'difference', channel: 'accumulator_pressure' },
  'return-pressure': { kind: 'reading', channel: 'return_pressure' },
  'boost-sag': { kind: 'difference', channel: 'boost_pressure' },
};

/** Channel whose dial a characteristic is read on; null for a watch or a count. */
export function dialChannel(id: CharacteristicId): string | null {
  const how = dialReadings[id];
  switch (how.kind) {
    case 'reading':
    case 'difference':
    case 'rate':
    case 'flow':
      return how.channel;
    case 'between':
    case 'quotient':
      return how.channels[0];
    case 'watch':
    case 'count':
      return null;
  }
}
