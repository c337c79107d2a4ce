import type { LookStep, SketchShape } from '../../procedure/look-step';
import { provedSafe } from './step-parts';

/** A motor booster from the side: rod, gear case with the motor on it, master cylinder and reservoir, controller and its plug. */
const sketch: readonly SketchShape[] = [
  { path: 'M8 112 H58', fill: 'none' },
  { path: 'M58 98 H84 V126 H58 Z', fill: 'rubber' },
  { path: 'M84 70 H170 V154 H84 Z', fill: 'body' },
  { path: 'M98 154 V186 H156 V154', fill: 'body' },
  { path: 'M170 94 H276 V130 H170 Z', fill: 'body' },
  { path: 'M184 94 V58 H262 V94 Z', fill: 'body' },
  { path: 'M276 104 H304 M276 120 H304', fill: 'none' },
  { path: 'M92 70 V36 H158 V70 Z', fill: 'body' },
  { path: 'M158 46 H182 V60 H158', fill: 'rubber' },
];

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
      sketch,
      points: [
        {
          id: 'codes',
          title: 'Codes of the controller',
          hint: 'Write down which, clear them, and read again',
          writes: 'Codes as read',
          at: [126, 52],
        },
        { id: 'plug', title: 'Plug and pins', hint: 'Locked, dry, no pin pushed back or green', at: [172, 40] },
        { id: 'boot', title: 'Boot of the rod', hint: 'Whole, and the rod free in it', at: [70, 88] },
      ],
      options: [
        { id: 'none', title: 'None, in order', effect: 'pass' },
        { id: 'stored', title: 'Stored, to note', effect: 'note' },
        { id: 'present', title: 'Present, unfit', effect: 'fail' },
      ],
    },
  },
};
