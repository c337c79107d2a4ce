import { readingComponents } from '../../../instruments/uncertainty';
import type { AnalysisProblem } from '../../../vocabulary/analysis-problem';
import { estimateOf } from '../../../procedure/analysis-result';
import { type Limit, around, atMost, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { VacuumInlineSpec } from '../unit/sheet';
import { masterPressure, pressureSlope, runOutForce, tolerancesOf } from '../unit/quasi-static';
import type { Context } from './step-parts';

/** Share of the rated vacuum that a supply which nobody recorded may be off, one sigma. */
const unrecorded = 0.15;

/** Standard uncertainty (Pa) of a supply vacuum as the gauge reads it; wide where there was none to read. */
function vacuumStandard(context: Context, vacuum: number | undefined): number {
  if (vacuum === undefined) return unrecorded * context.unit.ratedVacuum;
  const instrument = context.instruments.get('supply_vacuum');
  if (!instrument) return 0;
  return Math.sqrt(
    readingComponents(instrument, vacuum, context.date).reduce((sum, part) => sum + part.standard ** 2, 0),
  );
}

/**
 * Limits of the assist curve at the supply vacuum that was there: cut-in, jump-in and slope around the sheet's,
 * run-out around the model's at that vacuum, hysteresis and sag at most. Without a supply reading run-out is judged
 * at the rated vacuum.
 */
export function assistCurveLimits(analysis: StepAnalysis, context: Context): Limit[] {
  const { unit, workshopLimits: shop } = context;
  const { spec } = unit;
  const tolerances = tolerancesOf(unit, shop);
  const from = (field: keyof VacuumInlineSpec, value: number, key: keyof typeof shop) => ({
    value,
    source: limitFrom({ field, value: spec[field] === undefined ? undefined : value }, { key, value }).source,
  });
  const vacuum = analysis.vacuum ?? unit.ratedVacuum;
  const knee = runOutForce(unit, vacuum);
  const perPascal = (unit.efficiency * unit.area) / (unit.servoRatio - 1);
  const limits = [
    around('cut-in-force', unit.cutInForce, from('cutInTolerancePercent', tolerances.cutIn, 'cutInForceTolerance')),
    around(
      'jump-in-output',
      masterPressure(unit, unit.jumpInForce),
      from('jumpInTolerancePercent', tolerances.jumpIn, 'jumpInTolerance'),
    ),
    around(
      'force-slope',
      pressureSlope(unit, unit.servoRatio),
      from('slopeTolerancePercent', tolerances.slope, 'slopeTolerance'),
    ),
  ];
  if (knee !== null)
    limits.push(
      around(
        'run-out-force',
        knee,
        from('runOutTolerancePercent', tolerances.runOut, 'runOutTolerance'),
        perPascal * vacuumStandard(context, analysis.vacuum),
      ),
    );
  const most = spec.hysteresisMaxN;
  if (most !== undefined || unit.hysteresis > 0)
    limits.push(
      atMost(
        'force-hysteresis',
        limitFrom(
          { field: 'hysteresisMaxN', value: most },
          { key: 'hysteresisFactor', value: shop.hysteresisFactor * unit.hysteresis },
        ),
        { expected: unit.hysteresis },
      ),
    );
  const percent = spec.supplySagMaxPercent;
  const sag = limitFrom(
    { field: 'supplySagMaxPercent', value: percent === undefined ? undefined : percent / 100 },
    { key: 'supplySag', value: shop.supplySag },
  );
  limits.push(atMost('supply-sag', { ...sag, value: sag.value * (analysis.restVacuum ?? vacuum) }, { expected: 0 }));
  return limits;
}

/** Vacuum short of the rated one by more than this share is worth a finding of its own. */
const shortShare = 0.03;

/** "Sound, but short of assist here": run-out at the vacuum that was there against that at the rated vacuum. */
export function shortOfAssist(analysis: StepAnalysis, context: Context): AnalysisProblem[] {
  const { unit } = context;
  const { restVacuum } = analysis;
  if (restVacuum === undefined || restVacuum > unit.ratedVacuum * (1 - shortShare)) return [];
  const runOut = runOutForce(unit, restVacuum);
  const ratedRunOut = runOutForce(unit, unit.ratedVacuum);
  const found = estimateOf(analysis, 'run-out-force');
  if (runOut === null || ratedRunOut === null || !found) return [];
  if (Math.abs(found.value - runOut) > tolerancesOf(unit, context.workshopLimits).runOut * runOut) return [];
  return [
    {
      code: 'short-of-assist',
      vacuum: restVacuum,
      rated: unit.ratedVacuum,
      runOut: found.value,
      ratedRunOut,
      as: 'force',
    },
  ];
}
