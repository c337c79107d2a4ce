import type { ReadingBands } from '../step-definition';
import { analyseBoostCurve, boostCurveCharacteristics } from './boost-curve-analysis';
import { boostCurveLimits } from './boost-curve-limits';
import { boostRatioTolerance, chamberDifference, outputAt, pullInput } from './quasi-static';
import { rest, supplyOn, vacuumNow } from './step-parts';
import type { Context, Measured } from './step-parts';

/** Where output, control port and supply of a sound unit are at the input and the vacuum of this moment. */
function boostCurveBands(context: Context, readings: Readonly<Record<string, number>>): ReadingBands {
  const { unit, workshopLimits: shop } = context;
  const set = vacuumNow(context);
  const supply: ReadingBands = { supply_vacuum: [set * (1 - shop.supplySag), set * 1.02] };
  const input = readings.input_pressure;
  if (input === undefined) return supply;
  const vacuum = readings.supply_vacuum ?? set;
  const output = outputAt(unit, Math.max(0, input), vacuum);
  const reach = output * boostRatioTolerance(unit, shop);
  const apply = vacuum - chamberDifference(unit, input, vacuum);
  const wayBack = vacuum - chamberDifference(unit, input, vacuum, 'way-back');
  const remainder = shop.controlRemainder * vacuum;
  return {
    ...supply,
    output_pressure: [output - reach, outputAt(unit, Math.max(0, input), vacuum, 'way-back') + reach],
    control_vacuum: [Math.min(apply, wayBack) - remainder, Math.max(apply, wayBack) + remainder],
  };
}

export const boostCurve: Measured = {
  id: 'boost-curve',
  kind: 'measured',
  title: 'Boost curve',
  why: 'One even pull finds cut-in, slope, run-out and the way back.',
  minutes: 3,
  cautions: ['fluid-jet'],
  optional: false,
  characteristics: boostCurveCharacteristics,
  needs: ['input_pressure', 'output_pressure'],
  uses: ['control_vacuum', 'supply_vacuum'],
  leastRows: 60,
  picture: { kind: 'ride-the-line' },
  startsFrom: 'evacuated',
  guide: (context) => {
    const top = pullInput(context.unit, vacuumNow(context));
    return [
      rest(2, supplyOn),
      {
        instruction: { code: 'pull-slowly-past', channel: 'input_pressure', level: top },
        controls: supplyOn,
        lever: { to: top * 1.02, seconds: 28 },
        end: { kind: 'input-above', level: top },
      },
      {
        instruction: { code: 'hold-there', seconds: 2 },
        controls: supplyOn,
        lever: { to: top * 1.02, seconds: 0.5 },
        end: { kind: 'seconds', seconds: 2.5 },
      },
      {
        instruction: { code: 'let-back-slowly', channel: 'input_pressure' },
        controls: supplyOn,
        lever: { to: 0, seconds: 22 },
        end: { kind: 'input-below', level: 30_000 },
      },
      rest(2.5, supplyOn),
    ];
  },
  analyse: analyseBoostCurve,
  limits: boostCurveLimits,
  bands: boostCurveBands,
};
