import type { PartsDiagram } from '../../../contract/part';
import { remoteSketch } from './sketch';

/** Where the parts of this layout are. */
export const inLineSlaveDiagram: PartsDiagram = {
  sketch: remoteSketch,
  at: {
    'power-diaphragm': [78, 62],
    'control-valve': [190, 58],
    'control-piston': [160, 72],
    breather: [178, 28],
    'supply-hose': [134, 38],
    'stop-lamp-switch': [166, 146],
    'return-spring': [102, 134],
    unions: [300, 100],
    'power-piston': [44, 100],
    'slave-piston': [228, 100],
    'bypass-check': [196, 104],
    'rod-seal': [138, 108],
  },
};
