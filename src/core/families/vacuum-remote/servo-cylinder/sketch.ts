import type { SketchShape } from '../../../procedure/look-step';

/** Reservoir, control unit and servo cylinder beside one another, and the cam lever that the cylinder's rod pulls. */
export const servoSketch: readonly SketchShape[] = [
  // Reservoir.
  { path: 'M22 120 Q12 120 12 134 V158 Q12 172 22 172 H96 Q106 172 106 158 V134 Q106 120 96 120 Z', fill: 'body' },
  // Control unit: hydraulic plug below, diaphragm housing above, breather on top.
  { path: 'M46 72 H74 V96 H46 Z', fill: 'body' },
  { path: 'M34 48 H86 V72 H34 Z', fill: 'body' },
  { path: 'M52 48 V30 H68 V48', fill: 'body' },
  { path: 'M34 60 H86', fill: 'rubber' },
  { path: 'M74 84 H98', fill: 'none' },
  // Vacuum lines.
  { path: 'M86 56 Q112 56 128 66', fill: 'none' },
  { path: 'M106 146 Q122 146 122 128 Q122 104 138 96', fill: 'none' },
  // Servo cylinder with its piston and rod.
  { path: 'M128 50 Q128 42 138 42 H206 Q216 42 216 52 V108 Q216 118 206 118 H138 Q128 118 128 110 Z', fill: 'body' },
  { path: 'M162 46 V114', fill: 'rubber' },
  { path: 'M162 80 H272', fill: 'none' },
  { path: 'M216 72 H230 V88 H216 Z', fill: 'rubber' },
  // Cam lever on its pivot.
  { path: 'M266 66 L280 66 L290 150 Q276 164 262 150 Z', fill: 'body' },
];
