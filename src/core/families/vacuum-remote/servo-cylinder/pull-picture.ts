import type { CurvePicture } from '../../../procedure/picture';
import { outputTolerance } from '../boost-curve/boost-curve-limits';
import { expectedPull, forceBand, type ServoUnit } from './servo';

const tolerance = (unit: ServoUnit, shop: Parameters<typeof outputTolerance>[2]) =>
  outputTolerance('servoForceTolerancePercent', unit.spec.servoForceTolerancePercent, shop).value;

/** What the unit gives over the pressure at its input. */
export const pullPicture: CurvePicture<ServoUnit> = {
  kind: 'curve',
  input: 'input_pressure',
  outputs: ['rod_force'],
  expected: (unit, vacuum, { workshopLimits }) => expectedPull(unit, vacuum, tolerance(unit, workshopLimits)),
  band: (unit, input, vacuum, { workshopLimits }) =>
    forceBand(unit, { input, vacuum }, { tolerance: tolerance(unit, workshopLimits), upper: 'apply' }),
};
