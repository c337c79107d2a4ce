import type { SketchShape } from '../../procedure/look-step';

/** A decoupled unit from the side: rod and master cylinder, simulator below, source with its motor, controller and plug, four lines. */
export const byWireSketch: readonly SketchShape[] = [
  { path: 'M8 96 H52', fill: 'none' },
  { path: 'M52 82 H74 V110 H52 Z', fill: 'rubber' },
  { path: 'M74 78 H168 V114 H74 Z', fill: 'body' },
  { path: 'M92 114 V128 H76 V176 H140 V128 H122 V114', fill: 'body' },
  { path: 'M84 140 H132 M84 152 H132 M84 164 H132', fill: 'none' },
  { path: 'M96 78 V40 H152 V78 Z', fill: 'body' },
  { path: 'M168 66 H262 V150 H168 Z', fill: 'body' },
  { path: 'M190 150 V186 H240 V150', fill: 'body' },
  { path: 'M176 66 V38 H236 V66 Z', fill: 'body' },
  { path: 'M236 44 H258 V58 H236', fill: 'rubber' },
  { path: 'M262 80 H304 M262 98 H304 M262 116 H304 M262 134 H304', fill: 'none' },
];
