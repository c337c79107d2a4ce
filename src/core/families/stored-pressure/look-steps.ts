import { type LookStep, type SketchShape, inOrderOptions } from '../../procedure/look-step';

/** A coach from the side: pumps, spheres, pedal, struts. */
const sketch: readonly SketchShape[] = [
  { path: 'M20 60 H300 V130 H20 Z', fill: 'body' },
  { path: 'M70 130 m-24 16 a24 24 0 1 0 48 0 a24 24 0 1 0 -48 0', fill: 'body' },
  { path: 'M250 130 m-24 16 a24 24 0 1 0 48 0 a24 24 0 1 0 -48 0', fill: 'body' },
  { path: 'M36 78 V104 L48 116', fill: 'none' },
  { path: 'M60 96 H96 V116 H60 Z', fill: 'body' },
  { path: 'M124 88 m-14 0 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0', fill: 'body' },
  { path: 'M166 88 m-14 0 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0', fill: 'body' },
  { path: 'M206 78 H284 V120 H206 Z', fill: 'body' },
  { path: 'M96 106 H206', fill: 'rubber' },
  { path: 'M70 146 V122 M250 146 V122', fill: 'none' },
];

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
      sketch,
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
