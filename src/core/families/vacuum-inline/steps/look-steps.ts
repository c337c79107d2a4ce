import { type LookStep, inOrderOptions } from '../../../procedure/look-step';
import { boosterSketch, vehicleSketch } from './sketch';

export const lookOver: LookStep = {
  id: 'look-over',
  kind: 'look',
  title: 'Look over',
  why: 'Identity, shell and inlet first: nothing is put under vacuum that could fold or suck in what it should not.',
  minutes: 3,
  cautions: ['brake-fluid'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: boosterSketch,
      points: [
        { id: 'identity', title: 'Identity', hint: 'Plate agrees with the sheet; all parts present', at: [108, 52] },
        { id: 'shell', title: 'Shell', hint: 'No dents, no rust through, crimp or clamp true', at: [100, 158] },
        {
          id: 'air-inlet',
          title: 'Air inlet and filter',
          hint: 'Boot whole, filter clean and dry, no hiss heard on it',
          at: [72, 104],
        },
        {
          id: 'check-valve-seat',
          title: 'Check valve and grommet',
          hint: 'Grommet tight, not hard, not split',
          at: [158, 20],
        },
        {
          id: 'front-seal',
          title: 'Front seal',
          hint: 'Dry: brake fluid here means the master cylinder leaks into the shell',
          at: [184, 140],
        },
        { id: 'rods', title: 'Rods', hint: 'Push rod straight, clevis not worn, output rod turns', at: [30, 104] },
      ],
      options: inOrderOptions,
    },
  },
};

export const complaint: LookStep = {
  id: 'complaint',
  kind: 'look',
  title: 'Complaint and first look',
  why: 'What the driver felt, and what can be seen without a tool, before anything is measured.',
  minutes: 3,
  cautions: ['vehicle-still'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: vehicleSketch,
      points: [
        {
          id: 'pedal-feel',
          title: 'Pedal',
          hint: 'Hard from the first stroke, hard after standing, or only when held',
          at: [36, 120],
        },
        {
          id: 'fluid-level',
          title: 'Fluid level',
          hint: 'Between the marks; a low level is looked into before it is filled',
          at: [119, 64],
        },
        { id: 'red-lamp', title: 'Red lamp', hint: 'Out with the engine running and the lever down', at: [20, 34] },
        {
          id: 'pedal-travel',
          title: 'Pedal travel',
          hint: 'Firm, clear of the floor, comes back by itself',
          at: [22, 74],
        },
      ],
      options: inOrderOptions,
    },
  },
};

export const hoseLook: LookStep = {
  id: 'hose-look',
  kind: 'look',
  title: 'Vacuum hose',
  why: 'A vacuum hose resists collapse; fuel hose of the same bore does not, and sucks shut when the brakes draw air.',
  minutes: 2,
  cautions: ['running-engine'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: vehicleSketch,
      points: [
        {
          id: 'vacuum-hose',
          title: 'Hose',
          hint: 'Marked for vacuum, stiff, not oil-soft; does not flatten when pinched',
          at: [140, 28],
        },
        { id: 'hose-ends', title: 'Ends and clips', hint: 'Tight at engine and check valve, no hiss', at: [196, 34] },
        { id: 'hose-route', title: 'Route', hint: 'No kink, no rub, not against the exhaust', at: [100, 40] },
      ],
      options: inOrderOptions,
    },
  },
};

/** Checks that an inquiry ends in once the booster has been cleared; cheapest first. */
export const behindTheBooster: LookStep = {
  id: 'behind-the-booster',
  kind: 'look',
  title: 'Behind the booster',
  why: 'Once the booster is cleared, a hard pedal comes from what is behind it.',
  minutes: 12,
  cautions: ['rigid-stands', 'fluid-jet'],
  optional: true,
  characteristics: [],
  feeds: {
    look: {
      sketch: vehicleSketch,
      points: [
        {
          id: 'combination-valve',
          title: 'Combination valve',
          hint: 'One axle dead and the lamp on: its shuttle stands to one side',
          at: [191, 92],
        },
        {
          id: 'seized-wheel',
          title: 'Wheel cylinders and calipers',
          hint: 'Each wheel: pressure but no movement, no clamp',
          at: [262, 158],
        },
        { id: 'brake-hoses', title: 'Brake hoses', hint: 'Swollen, or pressure trapped after release', at: [250, 100] },
        { id: 'linings', title: 'Linings', hint: 'Glazed, soaked, or of the wrong grade', at: [120, 160] },
      ],
      options: [
        { id: 'in-order', title: 'In order', effect: 'pass' },
        { id: 'found', title: 'Found it', effect: 'fail' },
      ],
    },
  },
};
