import { type LookStep, inOrderOptions, leakOptions } from '../../../procedure/look-step';
import { remoteSketch } from './sketch';

export const lookOver: LookStep = {
  id: 'look-over',
  kind: 'look',
  title: 'Look over',
  why: 'Identity, threads and rubber first: nothing is fitted to a bench that could spray or spread a port.',
  minutes: 3,
  cautions: ['brake-fluid'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: remoteSketch,
      points: [
        {
          id: 'identity',
          title: 'Identity',
          hint: 'Plate and casting agree with the sheet; all parts present',
          at: [56, 60],
        },
        {
          id: 'threads',
          title: 'Threads and seats',
          hint: 'Parallel thread, taper seat; no port spread by a fitting driven in too far',
          at: [300, 100],
        },
        {
          id: 'rubber',
          title: 'Rubber',
          hint: 'Not swollen, not sticky: swollen rubber means the wrong fluid was in',
          at: [222, 92],
        },
        { id: 'shell', title: 'Shell', hint: 'No dents, no rust through, clamp band true', at: [44, 132] },
        { id: 'breather', title: 'Breather and filter', hint: 'Route free, filter clean and dry', at: [178, 24] },
        { id: 'reuse', title: 'Parts to reuse', hint: 'Note what cannot be bought and must go back in', at: [150, 64] },
      ],
      options: inOrderOptions,
    },
  },
};

export const leakLook: LookStep = {
  id: 'leak-look',
  kind: 'look',
  title: 'Leak look',
  why: 'Under pressure every joint shows. Use card, never a hand.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen'],
  optional: false,
  characteristics: [],
  feeds: {
    look: {
      sketch: remoteSketch,
      points: [
        { id: 'end-cap', title: 'End cap', hint: 'Slave cylinder end cap and its ring', at: [273, 80] },
        { id: 'fittings', title: 'Fittings', hint: 'Inlet and outlet unions', at: [302, 100] },
        { id: 'bleed-screws', title: 'Bleed screws', hint: 'Both screws and their seats', at: [244, 70] },
        { id: 'weep-hole', title: 'Weep hole', hint: 'Between the rod seal and the shell', at: [134, 132] },
        { id: 'switch', title: 'Stop-lamp switch', hint: 'Thread and terminals', at: [168, 146] },
        { id: 'control-valve', title: 'Control valve', hint: 'Cover joint and control piston plug', at: [178, 44] },
        { id: 'joint-faces', title: 'Joint faces', hint: 'Shell clamp and cylinder flange', at: [126, 50] },
      ],
      options: leakOptions,
    },
  },
};
