import type { SketchShape } from '../../procedure/look-step';

/** A motor booster from the side: rod, gear case with the motor on it, master cylinder and reservoir, controller and its plug. */
export const motorBoostSketch: readonly SketchShape[] = [
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
