import type { PartsDiagram } from '../../../contract/part';
import { servoSketch } from './sketch';

/** Where the parts of this layout are. */
export const servoCylinderDiagram: PartsDiagram = {
  sketch: servoSketch,
  at: {
    'power-diaphragm': [162, 62],
    'control-valve': [62, 62],
    'control-piston': [60, 94],
    breather: [60, 32],
    'supply-hose': [112, 54],
    'stop-lamp-switch': [92, 84],
    'return-spring': [196, 100],
    unions: [28, 88],
    'power-piston': [196, 62],
    reservoir: [46, 146],
  },
};
