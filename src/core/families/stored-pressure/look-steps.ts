import { type LookStep, inOrderOptions } from '../../procedure/look-step';
import { vehicleSketch } from './sketch';

/** Optional: what can be seen before anything is measured. */
export const walkRound: LookStep = {
  id: 'walk-round',
  kind: 'look',
  title: 'Walk round',
  why: 'Fluid, cables and struts can be seen before anything is measured; a seized cable or a wrong fluid shows here first.',
  minutes: 5,
  cautions: ['levelling-drops', 'fluid-not-mixed'],
  optional: true,
  characteristics: [],
  feeds: {
    look: {
      sketch: vehicleSketch,
      points: [
        { id: 'fluid-kind', title: 'Fluid', hint: 'The one on the sheet, clear, at its mark', at: [222, 92] },
        { id: 'spheres-look', title: 'Spheres', hint: 'Plates readable, no weeping at their seats', at: [144, 72] },
        { id: 'struts', title: 'Struts and links', hint: 'Dry, links free, rubber whole', at: [250, 122] },
        {
          id: 'parking-cable',
          title: 'Parking cables',
          hint: 'Move freely in their sheaths, both sides alike',
          at: [104, 148],
        },
      ],
      options: inOrderOptions,
    },
  },
};
