import { type LookStep, inOrderOptions, leakOptions } from '../../procedure/look-step';
import { engineAndBooster } from './sketch';

export const fluidLook: LookStep = {
  id: 'fluid-look',
  kind: 'look',
  title: 'Fluid',
  why: 'Level, colour and foam first: half of all complaints are here, and nothing is run dry.',
  minutes: 2,
  cautions: ['running-engine', 'fluid-not-mixed'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: engineAndBooster,
      points: [
        { id: 'level', title: 'Level', hint: 'At the mark for its temperature', at: [238, 18] },
        { id: 'colour', title: 'Colour', hint: 'Clear; dark or gritty is worn or burnt', at: [226, 40] },
        { id: 'foam', title: 'Foam', hint: 'None: foam and a groan are air', at: [252, 40] },
        { id: 'belt', title: 'Belt', hint: 'Tight, dry, not glazed', at: [292, 46] },
      ],
      options: inOrderOptions,
    },
  },
};

export const hoseLook: LookStep = {
  id: 'hose-look',
  kind: 'look',
  title: 'Hoses',
  why: 'The pressure hose must be rated above the relief pressure before anything is dead-headed; a twisted one bursts.',
  minutes: 3,
  cautions: ['running-engine', 'fluid-jet'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: engineAndBooster,
      points: [
        { id: 'rating', title: 'Rating', hint: 'Marked above the relief pressure on the sheet', at: [150, 48] },
        { id: 'route', title: 'Route', hint: 'Not rubbing, not against the exhaust', at: [118, 74] },
        {
          id: 'elbows',
          title: 'Elbows',
          hint: 'Clocked so that the hose is not twisted; left-hand nuts on some ends',
          at: [92, 98],
        },
        { id: 'return-hose', title: 'Return hose', hint: 'Soft but whole, not kinked', at: [186, 72] },
      ],
      options: inOrderOptions,
    },
  },
};

export const leakLook: LookStep = {
  id: 'leak-look',
  kind: 'look',
  title: 'Leak look',
  why: 'Foot down, engine idling: every joint under pressure. Use card, never a hand.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen', 'running-engine'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: engineAndBooster,
      points: [
        { id: 'rod-seal', title: 'Rod seal', hint: 'Behind the push rod’s boot', at: [44, 118] },
        { id: 'spool-plug', title: 'Spool plug', hint: 'End plug and its ring', at: [58, 104] },
        { id: 'housing-joint', title: 'Housing joint', hint: 'Between booster and master cylinder', at: [116, 150] },
        { id: 'accumulator-seal', title: 'Accumulator seal', hint: 'Around its cap', at: [88, 172] },
      ],
      options: leakOptions,
    },
  },
};

export const bleed: LookStep = {
  id: 'bleed',
  kind: 'look',
  title: 'Bleed',
  why: 'Engine not firing or wheels raised: lock to lock slowly, the pedal stroked, foam left to clear, topped up, until nothing changes.',
  minutes: 15,
  cautions: ['rigid-stands', 'running-engine', 'brake-fluid'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: engineAndBooster,
      points: [
        { id: 'lock-to-lock', title: 'Lock to lock', hint: 'Slowly, never held on the stop', at: [270, 164] },
        { id: 'pedal-stroked', title: 'Pedal stroked', hint: 'Several times, engine idling', at: [20, 118] },
        { id: 'foam-cleared', title: 'Foam cleared', hint: 'Left until no bubble rises', at: [252, 22] },
        { id: 'level-after', title: 'Level after it', hint: 'Topped up with the sheet’s fluid', at: [226, 22] },
      ],
      options: [
        { id: 'in-order', title: 'Done', effect: 'pass' },
        { id: 'note', title: 'To note', effect: 'note' },
        { id: 'unfit', title: 'Does not clear', effect: 'fail' },
      ],
    },
  },
};
