import type { LookStep } from '../../procedure/look-step';
import { provedSafe } from './step-parts';
import { motorBoostSketch } from './sketch';

/** A plug or a boot is no code. */
const asSeen = { none: 'In order', stored: 'To note', present: 'Unfit' };

export const faultCodes: LookStep = {
  id: 'fault-codes',
  kind: 'look',
  title: 'Fault codes',
  why: 'Read last, after everything that could set one: a code names a circuit, what was measured says what is wrong with it.',
  minutes: 3,
  cautions: ['wakes-by-itself'],
  optional: false,
  characteristics: [],
  ...provedSafe,
  feeds: {
    look: {
      sketch: motorBoostSketch,
      points: [
        {
          id: 'codes',
          title: 'Codes of the controller',
          hint: 'Write down which, clear them, and read again',
          writes: 'Codes as read',
          at: [126, 52],
        },
        {
          id: 'plug',
          title: 'Plug and pins',
          hint: 'Locked, dry, no pin pushed back or green',
          words: asSeen,
          at: [172, 40],
        },
        { id: 'boot', title: 'Boot of the rod', hint: 'Whole, and the rod free in it', words: asSeen, at: [70, 88] },
      ],
      options: [
        { id: 'none', title: 'None, in order', effect: 'pass' },
        { id: 'stored', title: 'Stored, to note', effect: 'note' },
        { id: 'present', title: 'Present, unfit', effect: 'fail' },
      ],
    },
  },
};
