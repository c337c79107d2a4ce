import type { SketchShape } from '../../procedure/look-step';

/** A coach from the side: pumps, spheres, pedal, struts. */
export const vehicleSketch: readonly SketchShape[] = [
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
