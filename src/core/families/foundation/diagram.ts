import type { PartsDiagram } from '../../contract/part';
import { foundationSketch } from './sketch';

/** Where the parts are in the vehicle. */
export const foundationDiagram: PartsDiagram = {
  sketch: foundationSketch,
  at: {
    'combination-valve': [188, 100],
    'wheel-cylinders': [245, 30],
    hoses: [92, 58],
    'master-cylinder': [142, 102],
    linings: [77, 30],
    'drum-adjusters': [245, 170],
    'stop-lamp-switch': [104, 124],
    'level-float': [128, 72],
    'lamp-wire': [180, 62],
    'parking-cable': [196, 136],
    fluid: [152, 72],
  },
};
