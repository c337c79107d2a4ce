import type { SketchShape } from '../../procedure/look-step';

/** A motor-pump unit from the side: master cylinder, booster, motor and pump, accumulator, reservoir. */
export const motorPumpSketch: readonly SketchShape[] = [
  { path: 'M10 112 H62', fill: 'none' },
  { path: 'M62 92 H128 V132 H62 Z', fill: 'body' },
  { path: 'M128 84 H258 V140 H128 Z', fill: 'body' },
  { path: 'M138 84 V44 H238 V84 Z', fill: 'body' },
  { path: 'M150 44 V34 H176 V44', fill: 'rubber' },
  { path: 'M92 132 V150 H64 V182 H150 V150 H120 V132', fill: 'body' },
  { path: 'M150 158 H176 V176 H150 Z', fill: 'rubber' },
  { path: 'M212 140 V152', fill: 'none' },
  { path: 'M212 152 m-28 16 a28 20 0 1 0 56 0 a28 20 0 1 0 -56 0', fill: 'body' },
  { path: 'M258 100 H300 M258 124 H300', fill: 'none' },
];
