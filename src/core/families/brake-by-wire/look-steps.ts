import { inOrderOptions, type LookStep } from '../../procedure/look-step';
import { handsIn, provedSafe } from './step-parts';
import { byWireSketch } from './sketch';

/** Before anything is powered: everything that a hand has to touch for it. */
export const handsLook: LookStep = {
  id: 'hands-look',
  kind: 'look',
  title: 'Plugs, fluid and pads',
  why: 'Hands go in here, so it is asleep and discharged: a green pin or low fluid explains more than any measurement.',
  minutes: 4,
  cautions: ['service-mode', 'capacitor-bank', 'brake-fluid'],
  optional: false,
  characteristics: [],
  ...handsIn,
  feeds: {
    look: {
      sketch: byWireSketch,
      points: [
        { id: 'plug', title: 'Plug and pins', hint: 'Locked, dry, no pin pushed back or green', at: [248, 52] },
        { id: 'bank', title: 'Backup bank', hint: 'Not swollen, its terminals tight and clean', at: [214, 168] },
        { id: 'fluid', title: 'Fluid', hint: 'At its mark, clear, the one on the sheet', at: [124, 58] },
        { id: 'lines', title: 'Lines to the wheels', hint: 'Dry at every union', at: [290, 108] },
        { id: 'boot', title: 'Boot of the rod', hint: 'Whole, and the rod free in it', at: [62, 72] },
      ],
      options: inOrderOptions,
    },
  },
};

/** Read before anything that could set one. */
export const faultCodes: LookStep = {
  id: 'fault-codes',
  kind: 'look',
  title: 'Lamps and fault codes',
  why: 'Read first, before anything is done that could set one: a code names a circuit, what is measured says what is wrong with it.',
  minutes: 4,
  cautions: ['wakes-by-itself'],
  optional: false,
  characteristics: [],
  ...provedSafe,
  feeds: {
    look: {
      sketch: byWireSketch,
      points: [
        { id: 'lamp', title: 'Red lamp', hint: 'Lit at key on, out a moment later', at: [206, 26] },
        { id: 'amber', title: 'Amber lamp', hint: 'Lit at key on, out a moment later', at: [236, 26] },
        {
          id: 'codes',
          title: 'Codes of the controller',
          hint: 'Write down which, clear them, and read again',
          writes: 'Codes as read',
          at: [206, 52],
        },
      ],
      options: [
        { id: 'none', title: 'None, in order', effect: 'pass' },
        { id: 'stored', title: 'Stored, to note', effect: 'note' },
        { id: 'present', title: 'Present or lit, unfit', effect: 'fail' },
      ],
    },
  },
};
