import type { PartsDiagram } from '../../contract/part';
import { boosterSketch } from './steps/sketch';

/** The unit with what feeds it and what is behind it, and where their parts are. */
export const inlineDiagram: PartsDiagram = {
  sketch: [
    ...boosterSketch,
    { path: 'M184 16 H236', fill: 'rubber' },
    { path: 'M236 6 H304 V38 H236 Z', fill: 'body' },
    { path: 'M234 124 V140', fill: 'none' },
    { path: 'M234 140 m-24 24 a24 24 0 1 0 48 0 a24 24 0 1 0 -48 0', fill: 'body' },
  ],
  at: {
    source: [270, 22],
    hose: [204, 16],
    'check-valve': [150, 18],
    diaphragm: [127, 60],
    'control-valve': [72, 104],
    'reaction-disc': [150, 104],
    'output-rod': [194, 104],
    'return-spring': [148, 150],
    'master-cylinder': [240, 104],
    behind: [234, 164],
  },
};
