import { boostPicture } from './boost-picture';
import { passesThrough } from '../boost-curve/boost-lines';
import { boostCurveLimits, outputTolerance } from '../boost-curve/boost-curve-limits';
import { boostCurveStep } from '../boost-curve/boost-curve-step';
import type { InLineUnit } from './geometry';
import { boostRatioTolerance, cutInPressure, expectedHysteresis, expectedRatio, outputAt } from './quasi-static';

const names = {
  output: 'output_pressure',
  ids: {
    slope: 'boost-slope',
    runOutOutput: 'run-out-output',
    atReference: 'boost-ratio',
    residual: 'residual-output',
  },
} as const;

/** Boost curve of a unit in the brake line: output pressure over input pressure. */
export const boostCurve = boostCurveStep<InLineUnit>({
  picture: boostPicture,
  names,
  setup: (unit) => ({ ...names, unassisted: passesThrough, slopeBeyond: unit.a }),
  outputBand: (unit, { input, vacuum }, shop) => {
    const output = outputAt(unit, input, vacuum);
    const reach = output * boostRatioTolerance(unit, shop);
    return [output - reach, outputAt(unit, input, vacuum, 'way-back') + reach];
  },
  cutIn: cutInPressure,
  limits: (analysis, context) => {
    const { unit, workshopLimits: shop } = context;
    return boostCurveLimits(analysis, context, {
      atReference: {
        id: 'boost-ratio',
        at: (vacuum) => expectedRatio(unit, vacuum),
        tolerance: outputTolerance('boostRatioTolerancePercent', unit.spec.boostRatioTolerancePercent, shop),
      },
      cutIn: cutInPressure(unit),
      hysteresis: expectedHysteresis(unit),
    });
  },
  cautions: ['fluid-jet'],
});
