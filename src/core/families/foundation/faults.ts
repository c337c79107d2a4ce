import { extentOf, thereOrNot, type Fault } from '../../contract/fault';
import type { FoundationUnit } from './geometry';

/** What faults change of what sits behind the unit. */
export interface FoundationCondition {
  /** Share of its pressure that the rear axle gets through the combination valve. */
  rearShare: number;
  /** Differential switch of the combination valve is pushed to its side. */
  shuttled: boolean;
  /** Split pressure as a share of the sheet's, slope added beyond it, slope below it. */
  split: number;
  slopeMore: number;
  slopeBelow: number;
  /** Share of the master cylinder's pressure that gets past its cups. */
  bypass: number;
  /** Pressure that a swollen hose keeps after the pedal is let go, Pa, and how slowly it comes, s. */
  trapped: number;
  hoseLag: number;
  /** Travel at the pedal that air in the hydraulics, and slack of the drums, take, m. */
  air: number;
  slack: number;
  /** Friction of the linings, as a share. */
  friction: number;
  /** How far the stop-lamp switch is from the middle of where it should close, in halves of what it may be off. */
  switchOff: number;
}

export function soundFoundation(): FoundationCondition {
  return {
    rearShare: 1,
    shuttled: false,
    split: 1,
    slopeMore: 0,
    slopeBelow: 1,
    bypass: 0,
    trapped: 0,
    hoseLag: 0.04,
    air: 0,
    slack: 0,
    friction: 1,
    switchOff: 0,
  };
}

const bar = 1e5;

/** Every fault of the family as a change of the model. */
export const foundationFaults: readonly Fault<FoundationUnit, FoundationCondition>[] = [
  {
    id: 'combination-valve-shuttled',
    title: 'Combination valve stands to one side',
    shows: 'One axle dead, the pedal rock hard and the lamp on: its shuttle went over when one side lost its pressure.',
    appearance: { 'lamp-at-start': 'unfit', 'pedal-feel': 'unfit', 'rear-left': 'unfit', 'rear-right': 'unfit' },
    tells: ['combination-valve', 'proportioning', 'complaint', 'seized-check'],
    leaves: ['base-pair', 'stop-lamp-adjust'],
    extent: extentOf('Left to the rear axle, as a share', 'ratio', (c) => c.rearShare),
    apply: (c, s) => {
      c.rearShare = 0.14 - 0.13 * s;
      c.shuttled = true;
    },
  },
  {
    id: 'proportioning-shifted',
    title: 'Proportioning shifted',
    shows: 'The rear falls behind too early and too much, or is never let past one to one: a worn or bent valve.',
    appearance: {},
    tells: ['proportioning'],
    leaves: ['base-pair', 'combination-valve', 'stop-lamp-adjust'],
    extent: extentOf('Split pressure, share of the sheet’s', 'ratio', (c) => c.split),
    apply: (c, s) => {
      c.split = 0.8 - 0.4 * s;
      c.slopeMore = -0.05 - 0.12 * s;
      c.slopeBelow = 0.97 - 0.2 * s;
    },
  },
  {
    id: 'wheel-cylinder-seized',
    title: 'Wheel cylinder or caliper seized',
    shows: 'Pressure is there and nothing moves: no clamp, no fluid taken, and the vehicle pulls to the other side.',
    appearance: { 'front-left': 'unfit', 'pulls-to-a-side': 'unfit' },
    tells: ['seized-check', 'complaint'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'hose-swollen',
    title: 'Brake hose swollen shut',
    shows: 'Pressure comes late and stays after the pedal is let go: the wheel drags until it has leaked back.',
    appearance: { 'front-hoses': 'unfit', 'front-left': 'note', 'front-right': 'note' },
    tells: ['hose-look'],
    leaves: ['base-pair', 'proportioning', 'combination-valve', 'stop-lamp-adjust'],
    extent: extentOf('Pressure that stays', 'gauge', (c) => c.trapped),
    apply: (c, s) => {
      c.trapped = (1 + 5 * s) * bar;
      c.hoseLag = 0.15 + 0.3 * s;
    },
  },
  {
    id: 'master-cylinder-bypass',
    title: 'Master cylinder lets past',
    shows:
      'The pedal sinks under a held foot and the pressure is less than the foot should make: cups or bore are worn.',
    appearance: { 'pedal-feel': 'unfit' },
    tells: ['base-pair', 'complaint'],
    leaves: ['proportioning', 'combination-valve'],
    extent: extentOf('Pressure lost past the cups, as a share', 'ratio', (c) => c.bypass),
    apply: (c, s) => void (c.bypass = 0.22 + 0.45 * s),
  },
  {
    id: 'linings-glazed',
    title: 'Linings glazed',
    shows: 'Every pressure is right and the vehicle does not slow: linings shine, or are of the wrong sort.',
    appearance: { linings: 'unfit' },
    tells: ['complaint'],
    leaves: ['base-pair', 'proportioning', 'combination-valve', 'stop-lamp-adjust'],
    extent: extentOf('Friction, share of the sheet’s', 'ratio', (c) => c.friction),
    apply: (c, s) => void (c.friction = 0.8 - 0.4 * s),
  },
  {
    id: 'drum-adjustment-slack',
    title: 'Drums out of adjustment',
    shows: 'The first stroke goes far, the second is high; the hand lever comes up by more clicks than it should.',
    appearance: { 'first-stroke': 'unfit', clicks: 'unfit' },
    tells: ['complaint', 'parking-brake'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: extentOf('Travel at the pedal that is lost', 'length', (c) => c.slack),
    apply: (c, s) => void (c.slack = 0.02 + 0.04 * s),
  },
  {
    id: 'stop-switch-misadjusted',
    title: 'Stop-lamp switch too tight',
    shows: 'It closes too early or is never open: the lamps stay on, or flicker over bumps.',
    appearance: { 'stop-lamps': 'unfit' },
    tells: ['stop-lamp-adjust', 'complaint'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: extentOf('Off the middle, in halves of its window', 'ratio', (c) => c.switchOff),
    apply: (c, s) => void (c.switchOff = -(1.4 + 1.6 * s)),
  },
  {
    id: 'stop-switch-slack',
    title: 'Stop-lamp switch too slack',
    shows: 'It closes too late: a light foot slows the vehicle and nobody behind is shown.',
    appearance: { 'stop-lamps': 'unfit' },
    tells: ['stop-lamp-adjust', 'complaint'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: extentOf('Off the middle, in halves of its window', 'ratio', (c) => c.switchOff),
    apply: (c, s) => void (c.switchOff = 1.4 + 1.6 * s),
  },
  {
    id: 'level-float-failed',
    title: 'Level float failed',
    shows: 'The red lamp is on with the reservoir full, and goes out when the float is lifted or its plug is pulled.',
    appearance: { 'lamp-at-start': 'unfit', 'float-lifted': 'unfit' },
    tells: ['red-lamp', 'complaint'],
    leaves: ['base-pair', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'lamp-wire-grounded',
    title: 'Lamp wire touches ground',
    shows: 'The red lamp stays lit with every plug pulled: its wire is through to the body somewhere.',
    appearance: { 'lamp-at-start': 'unfit', 'all-plugs-off': 'unfit' },
    tells: ['red-lamp', 'complaint'],
    leaves: ['base-pair', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'parking-cable-seized',
    title: 'Parking cable seized',
    shows: 'The hand lever is stiff, one side does not take or does not let go: a cable that is never used rusts fast.',
    appearance: { frees: 'unfit', equaliser: 'note' },
    tells: ['parking-brake'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'air-in-hydraulics',
    title: 'Air in the hydraulics',
    shows: 'A spongy pedal that rises when it is pumped: air was let in, or was never got out.',
    appearance: { 'first-stroke': 'unfit', firm: 'unfit' },
    tells: ['complaint', 'bleed'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: extentOf('Travel at the pedal that is lost', 'length', (c) => c.air),
    apply: (c, s) => void (c.air = 0.02 + 0.05 * s),
  },
  {
    id: 'fluid-wrong',
    title: 'Wrong fluid',
    shows:
      'Seals swell or crumble, and the fluid looks, smells or floats as it should not: nothing that was wetted stays.',
    appearance: { kind: 'unfit' },
    tells: ['fluid-look'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
  {
    id: 'fluid-level-low',
    title: 'Fluid low',
    shows:
      'The level is below its mark: linings are worn, or fluid goes somewhere. It is looked into before it is filled.',
    appearance: { level: 'unfit', 'lamp-at-start': 'note' },
    tells: ['fluid-look'],
    leaves: ['base-pair', 'proportioning', 'combination-valve'],
    extent: thereOrNot,
    apply: () => undefined,
  },
];
