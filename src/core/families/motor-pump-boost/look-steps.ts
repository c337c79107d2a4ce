import { goneNow, goneOnce } from '../../procedure/interlock';
import { type LookStep, inOrderOptions, leakOptions } from '../../procedure/look-step';
import { motorPumpSketch } from './sketch';

export const fluidLook: LookStep = {
  id: 'fluid-look',
  kind: 'look',
  title: 'Fluid',
  why: 'The level is read with the accumulator empty: it reads high when dead, and is overfilled if it is filled when charged.',
  minutes: 2,
  cautions: ['brake-fluid', 'fluid-not-mixed'],
  optional: false,
  characteristics: [],
  interlock: goneNow('pressure'),
  feeds: {
    look: {
      sketch: motorPumpSketch,
      points: [
        {
          id: 'level',
          title: 'Level, accumulator empty',
          hint: 'At the mark for an empty accumulator, not above it',
          at: [246, 62],
        },
        { id: 'colour', title: 'Colour and smell', hint: 'Clear; black or milky means rubber or water', at: [190, 66] },
        {
          id: 'fluid-kind',
          title: 'Fluid',
          hint: 'The one on the sheet; swollen rubber means another was in',
          at: [163, 28],
        },
        {
          id: 'motor-end',
          title: 'Motor’s plug',
          hint: 'Dry inside: fluid here is fluid in the windings',
          at: [184, 184],
        },
      ],
      options: inOrderOptions,
    },
  },
};

export const leakLook: LookStep = {
  id: 'leak-look',
  kind: 'look',
  title: 'Leak look',
  why: 'Charged, every joint shows. Use card, never a hand.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen'],
  optional: false,
  characteristics: [],
  interlock: goneOnce('pressure'),
  brings: ['pressure'],
  feeds: {
    look: {
      sketch: motorPumpSketch,
      points: [
        {
          id: 'accumulator-seal',
          title: 'Accumulator seat',
          hint: 'A ring that slipped from its recess weeps here',
          at: [236, 150],
        },
        { id: 'pump-joints', title: 'Pump joints', hint: 'Both flanges and the outlet plug', at: [76, 158] },
        { id: 'switch', title: 'Pressure switch', hint: 'Thread and terminals', at: [268, 142] },
        { id: 'outlets', title: 'Outlet unions', hint: 'Both circuits', at: [292, 100] },
        { id: 'rod-seal', title: 'Rod seal', hint: 'Nothing behind the push rod’s boot', at: [50, 92] },
      ],
      options: leakOptions,
    },
  },
};
