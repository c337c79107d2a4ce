import type { PartsDiagram } from '../../contract/part';
import { sourceSketch } from './sketch';

/** Where the parts of a source are. */
export const supplyDiagram: PartsDiagram = {
  sketch: sourceSketch,
  at: {
    pump: [84, 110],
    'pump-motor': [42, 158],
    lines: [236, 126],
    'check-valve': [196, 88],
    switch: [292, 88],
    sensor: [236, 88],
    hose: [150, 60],
  },
};
