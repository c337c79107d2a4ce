import type { CurvePicture } from '../../../procedure/picture';
import type { InLineUnit } from './geometry';
import { boostRatioTolerance, expectedCurve, outputAt } from './quasi-static';

/** What the unit gives over the pressure at its input. */
export const boostPicture: CurvePicture<InLineUnit> = {
  kind: 'curve',
  input: 'input_pressure',
  outputs: ['output_pressure'],
  expected: (unit, vacuum, { workshopLimits }) => expectedCurve(unit, vacuum, workshopLimits),
  band: (unit, input, vacuum, { workshopLimits: limits }) => {
    const expected = outputAt(unit, input, vacuum);
    const reach = expected * boostRatioTolerance(unit, limits);
    return [expected - reach, expected + reach];
  },
};
