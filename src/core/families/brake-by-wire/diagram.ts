import type { PartsDiagram } from '../../contract/part';
import { byWireSketch } from './sketch';

/** Where the parts of either make are. */
export const byWireDiagram: PartsDiagram = {
  sketch: byWireSketch,
  at: {
    'isolation-valve': [152, 96],
    'simulator-valve': [108, 122],
    'wheel-valves': [222, 92],
    'wheel-circuits': [296, 104],
    'pressure-sensors': [250, 112],
    'stroke-sensor': [62, 96],
    'backup-bank': [214, 170],
    ground: [250, 52],
    controller: [206, 50],
    source: [186, 132],
    store: [216, 134],
    'store-sensor': [246, 142],
  },
};
