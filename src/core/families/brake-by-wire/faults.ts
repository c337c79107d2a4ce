import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import { applyCircuitFault, circuitExtents } from '../../toolboxes/store/model/circuit-faults';
import { soundCircuit, type CircuitCondition } from '../../toolboxes/store/model/charging-circuit';
import type { AccumulatorUnit, ByWireUnit, PlungerUnit, Wheel } from './geometry';

/** What one wheel's valves and sensor do to its pressure: p settles at offset + gain·target. */
export interface WheelCondition {
  gain: number;
  /** Pa */
  offset: number;
  /** Times the sound time constant. */
  slower: number;
}

/** What a pressure sensor is off: share of its span at no pressure, and a factor of its slope. */
export interface SensorCondition {
  offset: number;
  gain: number;
}

/** Parameters of a decoupled unit that faults change; everything is what a sound one has at the start. */
export interface ByWireCondition {
  readonly wheels: Record<Wheel, WheelCondition>;
  readonly sensors: Record<Wheel | 'master' | 'store', SensorCondition>;
  /** Dead time of every wheel, s. */
  deadTime: number;
  /** Fastest that the source changes a pressure, Pa/s. */
  rateLimit: number;
  /** Creep of the held pedal, m/s, out positive. */
  creep: number;
  /** Simulator's stiffness, times the sheet's. */
  stiffer: number;
  /** Creep of the plunger while the pressure is held, m/s. */
  plungerCreep: number;
  /** Of the feed and of the ground, ohm. */
  feedResistance: number;
  groundResistance: number;
  /** Of the bank: capacitance as a share, and resistance, ohm. */
  capacitance: number;
  bankResistance: number;
  /** Current asleep, A. */
  asleep: number;
}

/** The source of a sound unit changes a pressure no faster than this, Pa/s: further than a wheel's own time constant ever asks. */
const soundRate = 400e6;
/** Resistance of a sound bank, ohm. */
const soundBankResistance = 0.03;

/** Shares of what a feed and a ground may lose that sound ones do. */
const soundFeed = 0.35;
const soundGround = 0.3;

export function soundByWire({ supplyDropMax, groundDropMax, ratedCurrent }: ByWireUnit): ByWireCondition {
  const wheel = (): WheelCondition => ({ gain: 1, offset: 0, slower: 1 });
  const sensor = (): SensorCondition => ({ offset: 0, gain: 1 });
  return {
    wheels: { fl: wheel(), fr: wheel(), rl: wheel(), rr: wheel() },
    sensors: { fl: sensor(), fr: sensor(), rl: sensor(), rr: sensor(), master: sensor(), store: sensor() },
    deadTime: 0.02,
    rateLimit: soundRate,
    creep: 0,
    stiffer: 1,
    plungerCreep: 0,
    feedResistance: (soundFeed * supplyDropMax) / ratedCurrent,
    groundResistance: (soundGround * groundDropMax) / ratedCurrent,
    capacitance: 1,
    bankResistance: soundBankResistance,
    asleep: 0.008,
  };
}

/** Condition of a unit with a store: its charging circuit too. */
export interface AccumulatorCondition extends ByWireCondition {
  readonly circuit: CircuitCondition;
}

export function soundAccumulator(unit: ByWireUnit): AccumulatorCondition {
  return { ...soundByWire(unit), circuit: soundCircuit() };
}

type CommonFault = Fault<ByWireUnit, ByWireCondition>;
const perMinute = 1e-3 / 60;

const commonFaults: readonly CommonFault[] = [
  {
    id: 'isolation-valve-leak',
    title: 'Isolation valve leaks',
    shows: 'With the pedal held the pressure of the source comes back into it: the pedal creeps out by itself.',
    appearance: { codes: 'stored' },
    tells: ['isolation-hold'],
    leaves: ['tracking', 'simulator-curve', 'fallback'],
    extent: extentOf('Creep of the held pedal', 'creep', (c) => -c.creep),
    apply: (c, s) => void (c.creep = -(3 + 12 * s) * perMinute),
  },
  {
    id: 'simulator-valve-stuck',
    title: 'Simulator valve stuck shut',
    shows:
      'The pedal is hard from the start although the unit is awake; the wheels follow what little travel there is.',
    appearance: { codes: 'present' },
    tells: ['fault-codes', 'simulator-curve'],
    leaves: ['fallback', 'sensor-transfer'],
    extent: extentOf('Stiffness, times what it should be', 'ratio', (c) => c.stiffer),
    apply: (c, s) => void (c.stiffer = 3 + 5 * s),
  },
  {
    id: 'inlet-valve-leak',
    title: 'Inlet valve leaks, front left',
    shows: 'One wheel stands above what is asked of it, and keeps pressure when nothing is.',
    appearance: { codes: 'stored' },
    tells: ['tracking', 'release'],
    leaves: ['isolation-hold', 'fallback', 'simulator-curve'],
    extent: extentOf('Pressure above what is asked', 'difference', (c) => c.wheels.fl.offset),
    apply: (c, s) => void (c.wheels.fl.offset = 250e3 + 600e3 * s),
  },
  {
    id: 'outlet-valve-leak',
    title: 'Outlet valve leaks, rear left',
    shows: 'One wheel gets a share less than is asked of it, at every level; it lets go as it should.',
    appearance: { codes: 'stored' },
    tells: ['tracking'],
    leaves: ['isolation-hold', 'release', 'fallback', 'simulator-curve'],
    extent: extentOf('Gain of the wheel', 'ratio', (c) => c.wheels.rl.gain),
    apply: (c, s) => void (c.wheels.rl.gain = 0.92 - 0.35 * s),
  },
  {
    id: 'wheel-sensor-offset',
    title: 'Wheel sensor off, front right',
    shows: 'Its signal is off by as much at every pressure, and the wheel is held that much too low.',
    appearance: { codes: 'none' },
    tells: ['sensor-transfer', 'tracking'],
    leaves: ['fallback', 'simulator-curve', 'isolation-hold'],
    extent: extentOf('Zero of the sensor, of its span', 'percent', (c) => c.sensors.fr.offset),
    apply(c, s, unit) {
      c.sensors.fr.offset = 0.02 + 0.03 * s;
      // The controller believes it: what it reads too high it holds too low.
      c.wheels.fr.offset = -c.sensors.fr.offset * unit.sensor.fullScale;
    },
  },
  {
    id: 'stroke-sensor-implausible',
    title: 'Stroke sensor implausible',
    shows: 'A code is present and the lamp is lit; every pressure is right, for the unit goes by its second sensor.',
    appearance: { codes: 'present', lamp: 'present' },
    tells: ['fault-codes'],
    leaves: ['tracking', 'sensor-transfer', 'fallback'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'backup-capacitor-weak',
    title: 'Backup bank weak',
    shows: 'The bank holds less than it should and gives way under load: too few stops without a battery.',
    appearance: { codes: 'stored' },
    tells: ['backup'],
    leaves: ['tracking', 'panic', 'fallback', 'supply-check'],
    extent: extentOf('Capacitance left, as a share', 'ratio', (c) => c.capacitance),
    apply(c, s, unit) {
      const { bank } = unit;
      // It begins to count where the stops that it must give are no longer there.
      const enough = bank
        ? (bank.stops * bank.energyPerStop * 2) / (bank.full ** 2 - bank.least ** 2) / bank.capacitance
        : 1;
      c.capacitance = enough * (0.85 - 0.5 * s);
      c.bankResistance = soundBankResistance * (1.5 + 3 * s);
    },
  },
  {
    id: 'air-in-circuit',
    title: 'Air in a circuit, rear right',
    shows: 'One wheel comes late although it gets there: it has to squeeze air first.',
    appearance: { codes: 'none' },
    tells: ['tracking', 'panic'],
    leaves: ['isolation-hold', 'fallback', 'simulator-curve', 'sensor-transfer'],
    extent: extentOf('Time constant, times what it should be', 'ratio', (c) => c.wheels.rr.slower),
    apply: (c, s) => void (c.wheels.rr.slower = 3.5 + 4 * s),
  },
  {
    id: 'ground-resistance',
    title: 'Ground has a resistance',
    shows: 'Under load the ground terminal stands above the battery’s negative.',
    appearance: { codes: 'stored' },
    tells: ['supply-check'],
    leaves: ['tracking', 'sensor-transfer', 'fallback'],
    extent: extentOf(
      'Drop of the ground at the rated current',
      'voltage',
      (c, unit) => c.groundResistance * unit.ratedCurrent,
    ),
    apply: (c, s, unit) => void (c.groundResistance = ((1.6 + 4 * s) * unit.groundDropMax) / unit.ratedCurrent),
  },
  {
    id: 'never-sleeps',
    title: 'It never falls asleep',
    shows: 'Long after the key is off it still draws current, and may apply itself.',
    appearance: { codes: 'none' },
    tells: ['make-safe-before', 'bank-dead', 'make-safe-after'],
    leaves: ['supply-check', 'tracking', 'sensor-transfer'],
    extent: extentOf('Current asleep', 'small-current', (c) => c.asleep),
    apply: (c, s, unit) => void (c.asleep = unit.quiescentMax * (2 + 10 * s)),
  },
];

/** Every fault of a unit with a plunger as a change of its model. */
export const plungerFaults: readonly Fault<PlungerUnit, ByWireCondition>[] = [
  ...commonFaults,
  {
    id: 'plunger-seal-leak',
    title: 'Plunger seal leaks',
    shows: 'The pressure stands where it is asked to, but the plunger has to follow it: it creeps forward while held.',
    appearance: { codes: 'stored' },
    tells: ['isolation-hold'],
    leaves: ['tracking', 'simulator-curve', 'fallback', 'sensor-transfer'],
    extent: extentOf('Creep of the plunger', 'creep', (c) => c.plungerCreep),
    apply: (c, s) => void (c.plungerCreep = (4 + 20 * s) * perMinute),
  },
  {
    id: 'plunger-motor-weak',
    title: 'Plunger’s motor weak',
    shows:
      'Slow steps are followed as they should be; a fast press is not, for the pressure rises no faster than the motor can.',
    appearance: { codes: 'stored' },
    tells: ['panic'],
    leaves: ['fallback', 'simulator-curve', 'isolation-hold', 'sensor-transfer'],
    extent: extentOf('Fastest rise, in a second', 'difference', (c) => c.rateLimit),
    apply: (c, s, unit) => void (c.rateLimit = (unit.working / unit.spec.panicRiseTimeMaxS) * (0.7 - 0.4 * s)),
  },
];

const circuit = circuitExtents<AccumulatorCondition, AccumulatorUnit>(
  (c) => c.circuit,
  (unit) => unit.store,
);

/** Every fault of a unit with a store as a change of its model. */
export const accumulatorFaults: readonly Fault<AccumulatorUnit, AccumulatorCondition>[] = [
  ...commonFaults,
  {
    id: 'store-sensor-gain',
    title: 'Store sensor’s gain off',
    shows:
      'Its signal rises too slowly with the pressure: the pump runs on until it reads what it should, and stops too high.',
    appearance: { codes: 'none' },
    tells: ['sensor-transfer', 'pump-switch', 'bleed-down'],
    leaves: ['tracking', 'simulator-curve', 'isolation-hold'],
    extent: extentOf('Gain of the sensor', 'ratio', (c) => c.sensors.store.gain),
    apply(c, s, unit) {
      c.sensors.store.gain = 0.955 - 0.035 * s;
      c.circuit.cutInShift = unit.store.cutIn * (1 / c.sensors.store.gain - 1);
      c.circuit.cutOutShift = unit.store.cutOut * (1 / c.sensors.store.gain - 1);
    },
  },
  {
    id: 'store-precharge-low',
    title: 'Precharge of the store low',
    shows: 'The knee is low; run and rest are both short.',
    appearance: { codes: 'none' },
    tells: ['charge-from-empty', 'bleed-down', 'rest-cycle'],
    leaves: ['tracking', 'simulator-curve', 'fallback'],
    extent: circuit.precharge,
    apply: (c, s, unit) => applyCircuitFault(c.circuit, 'precharge-low', s, unit.store),
  },
  {
    id: 'pump-weak',
    title: 'Pump weak',
    shows: 'It runs long for every charge, the rest is normal.',
    appearance: { codes: 'none' },
    tells: ['charge-from-empty', 'rest-cycle'],
    leaves: ['tracking', 'simulator-curve', 'fallback', 'pump-switch'],
    extent: circuit.pump,
    apply: (c, s, unit) => applyCircuitFault(c.circuit, 'pump-weak', s, unit.store),
  },
];
