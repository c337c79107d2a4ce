import type { SketchShape } from '../../procedure/look-step';

/** A vehicle from above, front to the left: pedal, master cylinder, combination valve, lines to four wheels, hand lever with its cable. */
export const foundationSketch: readonly SketchShape[] = [
  { path: 'M30 46 Q16 100 30 154 H294 V46 Z', fill: 'body' },
  { path: 'M56 18 H98 V40 H56 Z M56 160 H98 V182 H56 Z', fill: 'rubber' },
  { path: 'M224 18 H266 V40 H224 Z M224 160 H266 V182 H224 Z', fill: 'rubber' },
  { path: 'M77 40 V58 H118 M77 160 V142 H118', fill: 'none' },
  { path: 'M118 88 H156 V112 H118 Z', fill: 'body' },
  { path: 'M104 80 V120 M104 100 H118', fill: 'none' },
  { path: 'M126 88 V74 H148 V88', fill: 'body' },
  { path: 'M118 58 V88 M118 142 V112', fill: 'none' },
  { path: 'M156 100 H176 M176 90 H200 V110 H176 Z', fill: 'body' },
  { path: 'M200 100 H246 M246 40 V160', fill: 'none' },
  { path: 'M150 136 H176 M176 128 V144 M176 136 L246 124 M176 136 L246 148', fill: 'none' },
];
