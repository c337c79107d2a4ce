import type { PartsDiagram } from '../../contract/part';
import { motorPumpSketch } from './sketch';

/** Where the parts of the unit and of its store are. */
export const motorPumpDiagram: PartsDiagram = {
  sketch: [...motorPumpSketch, { path: 'M240 166 H252 M252 154 H284 V178 H252 Z', fill: 'body' }],
  at: {
    motor: [80, 168],
    pump: [118, 168],
    accumulator: [212, 168],
    'pressure-switch': [268, 166],
    'outlet-check': [180, 136],
    booster: [94, 108],
    supply: [164, 168],
    relief: [150, 118],
  },
};
