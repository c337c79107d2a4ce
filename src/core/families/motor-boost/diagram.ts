import type { PartsDiagram } from '../../contract/part';
import { motorBoostSketch } from './sketch';

/** Where the parts of the unit and the lines of its plug are. */
export const motorBoostDiagram: PartsDiagram = {
  sketch: [
    ...motorBoostSketch,
    { path: 'M182 50 H196 V36 H206', fill: 'none' },
    { path: 'M182 53 H278 V40', fill: 'none' },
    { path: 'M182 56 H240 V40', fill: 'none' },
  ],
  at: {
    'stroke-sensor': [70, 112],
    feed: [206, 34],
    ground: [240, 34],
    'ignition-line': [278, 34],
    motor: [127, 172],
    gears: [127, 140],
    'return-spring': [112, 100],
    controller: [126, 52],
  },
};
