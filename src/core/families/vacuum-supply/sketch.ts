import type { SketchShape } from '../../procedure/look-step';

/** A vacuum source: pump with its motor, hose, reservoir with its check valve, hose to the unit. */
export const sourceSketch: readonly SketchShape[] = [
  { path: 'M50 82 H118 V142 H50 Z', fill: 'body' },
  { path: 'M84 112 m-20 0 a20 20 0 1 0 40 0 a20 20 0 1 0 -40 0', fill: 'none' },
  { path: 'M24 164 H60 V142', fill: 'none' },
  { path: 'M100 82 V60 H196 V92', fill: 'rubber' },
  {
    path: 'M186 92 H286 Q298 92 298 104 V140 Q298 152 286 152 H186 Q174 152 174 140 V104 Q174 92 186 92 Z',
    fill: 'body',
  },
  { path: 'M270 92 V44 H306', fill: 'rubber' },
];
