import type { SketchShape } from '../../../procedure/look-step';

/** A remote unit from the side: vacuum shell, control valve on top of it, slave cylinder with its end cap. */
export const remoteSketch: readonly SketchShape[] = [
  { path: 'M30 60 Q30 40 50 40 H120 V160 H50 Q30 160 30 140 Z', fill: 'body' },
  { path: 'M120 44 H134 V156 H120 Z', fill: 'body' },
  { path: 'M134 78 H262 V122 H134 Z', fill: 'body' },
  { path: 'M262 72 H284 V128 H262 Z', fill: 'body' },
  { path: 'M150 78 V52 H206 V78', fill: 'body' },
  { path: 'M164 52 V30 H192 V52', fill: 'body' },
  { path: 'M78 50 V150', fill: 'none' },
  { path: 'M78 100 H230', fill: 'none' },
  { path: 'M230 84 V116', fill: 'rubber' },
  { path: 'M284 100 H306', fill: 'none' },
  { path: 'M150 122 V144 H166', fill: 'none' },
  { path: 'M120 40 Q140 24 164 40', fill: 'none' },
];
