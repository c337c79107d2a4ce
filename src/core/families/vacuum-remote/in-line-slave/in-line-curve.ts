import { passesThrough } from '../boost-curve/boost-lines';
import { boostCurveLimits, outputTolerance } from '../boost-curve/boost-curve-limits';
import { boostCurveStep } from '../boost-curve/boost-curve-step';
import type { BoostSetup } from '../boost-curve/corrected-pull';
import type { InLineUnit } from './geometry';
import { boostRatioTolerance, cutInPressure, expectedHysteresis, expectedRatio, outputAt } from './quasi-static';

const setup: BoostSetup = {
  output: 'output_pressure',
  unassisted: passesThrough,
  // Two gauge lines of up to 10 ms each, evenly likely, and 2 ms of the unit.
  lagStandard: 0.0046,
  ids: {
    slope: 'boost-slope',
    runOutOutput: 'run-out-output',
    atReference: 'boost-ratio',
    residual: 'residual-output',
  },
};

/** Boost curve of a unit in the brake line: output pressure over input pressure. */
export const boostCurve = boostCurveStep<InLineUnit>({
  names: setup,
  setup: () => setup,
  outputBand: (unit, { input, vacuum }, shop) => {
    const output = outputAt(unit, input, vacuum);
    const reach = output * boostRatioTolerance(unit, shop);
    return [output - reach, outputAt(unit, input, vacuum, 'way-back') + reach];
  },
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
