import type { SketchShape } from '../../procedure/look-step';

/** Booster, pump with its fluid, belt and hoses, and the steering gear. */
export const engineAndBooster: readonly SketchShape[] = [
  { path: 'M12 128 H50', fill: 'none' },
  { path: 'M50 108 H116 V148 H50 Z', fill: 'body' },
  { path: 'M116 114 H190 V142 H116 Z', fill: 'body' },
  { path: 'M124 114 V88 H168 V114', fill: 'body' },
  { path: 'M74 148 V166 H102 V148', fill: 'body' },
  { path: 'M84 108 Q92 44 190 44 H214', fill: 'rubber' },
  { path: 'M100 108 Q118 68 196 68 H214', fill: 'rubber' },
  { path: 'M214 30 H262 V82 H214 Z', fill: 'body' },
  { path: 'M222 30 V12 H254 V30', fill: 'body' },
  { path: 'M262 56 H300', fill: 'none' },
  { path: 'M232 150 H306 V178 H232 Z', fill: 'body' },
  { path: 'M250 82 V150', fill: 'rubber' },
];
