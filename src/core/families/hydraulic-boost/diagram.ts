import type { PartsDiagram } from '../../contract/part';
import { engineAndBooster } from './sketch';

/** Where the parts of the unit, of its pump and of the steering are. */
export const hydraulicDiagram: PartsDiagram = {
  sketch: engineAndBooster,
  at: {
    pump: [238, 56],
    belt: [290, 54],
    'reserve-accumulator': [88, 172],
    'reserve-check': [88, 146],
    spool: [72, 120],
    'rod-seal': [40, 128],
    'return-line': [160, 76],
    fluid: [238, 20],
    'pressure-hose': [124, 54],
    priority: [270, 164],
  },
};
