import { type LookStep, inOrderOptions, leakOptions } from '../../../procedure/look-step';
import { servoSketch } from './sketch';

export const lookOver: LookStep = {
  id: 'look-over',
  kind: 'look',
  title: 'Look over',
  why: 'Identity, threads, rubber and lever first: nothing is put under vacuum that could tear off or bind.',
  minutes: 3,
  cautions: ['brake-fluid'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: servoSketch,
      points: [
        {
          id: 'identity',
          title: 'Identity',
          hint: 'Plates of cylinder and control unit agree with the sheet; all parts present',
          at: [196, 58],
        },
        {
          id: 'threads',
          title: 'Threads and seats',
          hint: 'Parallel thread, taper seat; no port spread by a fitting driven in too far',
          at: [92, 84],
        },
        {
          id: 'rubber',
          title: 'Rubber',
          hint: 'Not swollen, not sticky: swollen rubber means the wrong fluid was in',
          at: [60, 64],
        },
        { id: 'shell', title: 'Cylinder', hint: 'No dents, no rust through, clamp band true', at: [142, 104] },
        { id: 'breather', title: 'Breather and filter', hint: 'Route free, filter clean and dry', at: [60, 32] },
        {
          id: 'reservoir',
          title: 'Reservoir',
          hint: 'No rust through, seams and bosses sound, drained',
          at: [40, 146],
        },
        {
          id: 'lever',
          title: 'Cam lever and rod',
          hint: 'Moves freely by hand and comes back; clevis pin secured',
          at: [276, 100],
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
  why: 'Under pressure every joint of the control unit shows. Use card, never a hand.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: servoSketch,
      points: [
        { id: 'control-plug', title: 'Control piston plug', hint: 'Plug and its ring', at: [60, 92] },
        { id: 'fittings', title: 'Fittings', hint: 'Inlet union', at: [94, 84] },
        { id: 'weep-hole', title: 'Weep hole', hint: 'Between control piston and diaphragm', at: [46, 78] },
        { id: 'switch', title: 'Stop-lamp switch', hint: 'Thread and terminals', at: [80, 92] },
        { id: 'control-valve', title: 'Control valve', hint: 'Cover joint of the diaphragm housing', at: [84, 52] },
      ],
      options: leakOptions,
    },
  },
};
