import type { CurvePicture } from '../../../procedure/picture';
import type { VacuumInlineUnit } from './geometry';
import { expectedCurve, outputBand } from './quasi-static';

/** Output over the force at the rod. */
export const assistPicture: CurvePicture<VacuumInlineUnit> = {
  kind: 'curve',
  input: 'rod_force',
  outputs: ['output_pressure'],
  expected: (unit, vacuum, { workshopLimits }) => expectedCurve(unit, vacuum, workshopLimits),
  band: (unit, force, vacuum, { workshopLimits }) => outputBand(unit, force, vacuum, workshopLimits),
};
