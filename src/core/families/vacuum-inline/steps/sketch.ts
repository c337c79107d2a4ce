import type { SketchShape } from '../../../procedure/look-step';

/** A pedal-operated unit from the side: push rod and boot, shell with its diaphragm, master cylinder, check valve. */
export const boosterSketch: readonly SketchShape[] = [
  { path: 'M8 104 H58', fill: 'none' },
  { path: 'M58 84 L86 76 V132 L58 124 Z', fill: 'rubber' },
  { path: 'M86 60 Q88 36 116 30 H168 V178 H116 Q88 172 86 148 Z', fill: 'body' },
  { path: 'M128 40 V168', fill: 'rubber' },
  { path: 'M168 46 H182 V162 H168 Z', fill: 'body' },
  { path: 'M182 84 H286 V124 H182 Z', fill: 'body' },
  { path: 'M204 84 V58 H260 V84', fill: 'body' },
  { path: 'M148 104 H206', fill: 'none' },
  { path: 'M150 30 V16 H184', fill: 'rubber' },
];

/** A vehicle's brakes from the side: pedal, unit, engine with its hose, valve and wheels. */
export const vehicleSketch: readonly SketchShape[] = [
  { path: 'M20 40 V86 L34 118', fill: 'none' },
  { path: 'M22 92 H58', fill: 'none' },
  { path: 'M58 66 H98 V118 H58 Z', fill: 'body' },
  { path: 'M98 80 H142 V104 H98 Z', fill: 'body' },
  { path: 'M104 80 V62 H134 V80', fill: 'body' },
  { path: 'M86 66 Q92 26 150 28 H196', fill: 'rubber' },
  { path: 'M196 12 H252 V58 H196 Z', fill: 'body' },
  { path: 'M142 92 H176', fill: 'none' },
  { path: 'M176 80 H206 V104 H176 Z', fill: 'body' },
  { path: 'M206 86 H262 V128', fill: 'rubber' },
  { path: 'M206 98 H222 V160 H150', fill: 'none' },
  { path: 'M262 128 m-30 30 a30 30 0 1 0 60 0 a30 30 0 1 0 -60 0', fill: 'body' },
  { path: 'M120 160 m-26 0 a26 26 0 1 0 52 0 a26 26 0 1 0 -52 0', fill: 'body' },
];
