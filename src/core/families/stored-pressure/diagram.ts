import type { PartsDiagram } from '../../contract/part';
import { vehicleSketch } from './sketch';

/** Where the parts are in the vehicle. */
export const storedDiagram: PartsDiagram = {
  sketch: vehicleSketch,
  at: {
    'pump-1': [224, 92],
    'pump-2': [262, 92],
    'sphere-1': [123, 84],
    'sphere-2': [165, 84],
    'valve-block-1': [123, 112],
    'valve-block-2': [165, 112],
    'cut-out': [240, 118],
    'metering-valve': [76, 106],
    levelling: [250, 146],
    fluid: [194, 72],
    'parking-cable': [104, 148],
  },
};
