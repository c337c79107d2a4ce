import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { MotorBoostUnit } from './geometry';

/** Parameters of a motor booster that faults change; everything is what a sound one has at the start. */
export interface MotorBoostCondition {
  /** Added to track A, V at its own supply. */
  trackOffset: number;
  /** Travel by which the magnet sits off, m: both tracks take it for travel. */
  magnetShift: number;
  /** How long track A goes dead where its wiper passes a worn place, s; 0 where there is none. */
  dropout: number;
  /** Of the feed and of the ground, ohm. */
  feedResistance: number;
  groundResistance: number;
  /** The permanent feed is open. */
  feedOpen: boolean;
  /** The ignition line never says that the key is on. */
  ignitionOpen: boolean;
  /** Force of the motor, as a share; lag with which it follows, s; play of its gears, N at the rod. */
  motor: number;
  lag: number;
  backlash: number;
  /** Output that stays after release, Pa, and the time constant of the way back, s. */
  residual: number;
  releaseLag: number;
  /** Current asleep, A. */
  asleep: number;
}

/** Wiring of a sound feed and ground, ohm. */
const soundFeed = 0.006;
const soundGround = 0.002;

export function soundMotorBoost(): MotorBoostCondition {
  return {
    trackOffset: 0,
    magnetShift: 0,
    dropout: 0,
    feedResistance: soundFeed,
    groundResistance: soundGround,
    feedOpen: false,
    ignitionOpen: false,
    motor: 1,
    lag: 0.02,
    backlash: 0,
    residual: 0,
    releaseLag: 0.04,
    asleep: 0.008,
  };
}

type MotorBoostFault = Fault<MotorBoostUnit, MotorBoostCondition>;

/** Every fault of the family as a change of the model. */
export const motorBoostFaults: readonly MotorBoostFault[] = [
  {
    id: 'sensor-track-a-offset',
    title: 'Track A of the sensor is off',
    shows: 'The sum of both tracks is wrong over the whole stroke; the offset of track A alone is.',
    appearance: { codes: 'stored' },
    tells: ['sensor-tracks'],
    leaves: ['assist-curve', 'supply-check'],
    extent: extentOf('Offset of track A', 'voltage', (c) => c.trackOffset),
    apply: (c, s) => void (c.trackOffset = 0.2 + 0.6 * s),
  },
  {
    id: 'sensor-track-dropout',
    title: 'Track A of the sensor drops out',
    shows: 'For a moment track A is dead at one place of the stroke; everything else is right.',
    appearance: { codes: 'stored' },
    tells: ['sensor-tracks'],
    leaves: ['assist-curve', 'supply-check'],
    extent: extentOf('Length of a dropout', 'time', (c) => c.dropout),
    apply: (c, s) => void (c.dropout = 0.006 + 0.03 * s),
  },
  {
    id: 'sensor-magnet-shifted',
    title: 'Magnet of the sensor has shifted',
    shows: 'Both tracks are off by as much, one up and one down: their sum says nothing.',
    appearance: { codes: 'stored' },
    tells: ['sensor-tracks'],
    leaves: ['assist-curve', 'supply-check'],
    extent: extentOf('Shift of the magnet', 'length', (c) => c.magnetShift),
    apply: (c, s) => void (c.magnetShift = (1.6 + 3 * s) * 1e-3),
  },
  {
    id: 'supply-drop',
    title: 'Feed has a resistance',
    shows: 'Under load the unit gets less than the battery gives; its ground is good.',
    appearance: { codes: 'stored' },
    tells: ['supply-check'],
    leaves: ['sensor-tracks'],
    extent: extentOf(
      'Drop of the feed at the rated current',
      'voltage',
      (c, unit) => c.feedResistance * unit.ratedCurrent,
    ),
    apply: (c, s) => void (c.feedResistance = 0.02 + 0.06 * s),
  },
  {
    id: 'ground-resistance',
    title: 'Ground has a resistance',
    shows: 'Under load the ground terminal stands above the battery’s negative, and the run-out comes early.',
    appearance: { codes: 'stored' },
    tells: ['supply-check'],
    leaves: ['sensor-tracks'],
    extent: extentOf(
      'Drop of the ground at the rated current',
      'voltage',
      (c, unit) => c.groundResistance * unit.ratedCurrent,
    ),
    apply: (c, s) => void (c.groundResistance = 0.01 + 0.05 * s),
  },
  {
    id: 'fuse-open',
    title: 'Main fuse open',
    shows: 'Nothing arrives at the unit: no assist, a stiff pedal, no current.',
    appearance: { codes: 'present' },
    tells: ['supply-check', 'fault-codes'],
    leaves: [],
    extent: thereOrNot,
    apply: (c) => void (c.feedOpen = true),
  },
  {
    id: 'motor-weak',
    title: 'Motor weak',
    shows: 'Run-out comes early although the supply is good.',
    appearance: { codes: 'stored' },
    tells: ['assist-curve'],
    leaves: ['sensor-tracks', 'unassisted-curve'],
    extent: extentOf('Force of the motor, as a share', 'ratio', (c) => c.motor),
    apply: (c, s) => void (c.motor = 0.75 - 0.45 * s),
  },
  {
    id: 'gear-worn',
    title: 'Gears worn',
    shows: 'It follows late and with play: wide hysteresis, a slow quick application.',
    appearance: { codes: 'none' },
    tells: ['assist-curve', 'step-response', 'release'],
    leaves: ['supply-check', 'sensor-tracks'],
    extent: extentOf('Play of the gears', 'force', (c) => c.backlash),
    apply(c, s) {
      c.backlash = 30 + 70 * s;
      c.lag = 0.25 + 0.4 * s;
    },
  },
  {
    id: 'return-spring-weak',
    title: 'Return spring weak',
    shows: 'The pressure comes back slowly and not wholly.',
    appearance: { codes: 'none' },
    tells: ['release', 'assist-curve'],
    leaves: ['supply-check', 'sensor-tracks'],
    extent: extentOf('Output that stays', 'difference', (c) => c.residual),
    apply(c, s) {
      c.residual = 45e3 + 150e3 * s;
      c.releaseLag = 0.3 + 0.8 * s;
    },
  },
  {
    id: 'ignition-line-missing',
    title: 'Ignition line missing',
    shows: 'The supply is good and the unit never wakes: no assist.',
    appearance: { codes: 'present' },
    tells: ['assist-curve', 'fault-codes'],
    leaves: ['unassisted-curve'],
    extent: thereOrNot,
    apply: (c) => void (c.ignitionOpen = true),
  },
  {
    id: 'controller-in-fallback',
    title: 'Controller in fallback',
    shows: 'A code is present and the assist is a share of what it should be.',
    appearance: { codes: 'present' },
    tells: ['assist-curve', 'fault-codes'],
    leaves: ['unassisted-curve'],
    extent: extentOf('Assist that is left, as a share', 'ratio', (c) => c.motor),
    apply: (c, s) => void (c.motor = 0.5 - 0.3 * s),
  },
  {
    id: 'never-sleeps',
    title: 'It never falls asleep',
    shows: 'Long after the key is off it still draws current: a battery that is flat in the morning.',
    appearance: { codes: 'none' },
    tells: ['make-safe-before', 'drain', 'make-safe-after'],
    leaves: ['supply-check', 'assist-curve', 'sensor-tracks'],
    extent: extentOf('Current asleep', 'small-current', (c) => c.asleep),
    apply: (c, s) => void (c.asleep = 0.04 + 0.3 * s),
  },
];
