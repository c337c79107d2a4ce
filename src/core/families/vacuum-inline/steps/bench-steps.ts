import { releaseEntry } from '../../../toolboxes/analysis/release-entry';
import { assistPicture } from '../unit/assist-picture';
import { assistCurveEntry } from '../../../toolboxes/servo/assist-curve-entry';
import { unassistedCurveEntry } from '../../../toolboxes/servo/unassisted-curve-entry';
import { analyseUnassistedCurve } from '../../../toolboxes/servo/unassisted-curve-analysis';
import { saying } from '../../../procedure/question';
import { analyseAssistCurve, assistCurveCharacteristics } from '../../../toolboxes/servo/assist-curve-analysis';
import { analyseRelease } from '../../../toolboxes/analysis/release-analysis';
import { vacuumUnitSteps } from '../../../toolboxes/vacuum/vacuum-unit-steps';
import { type Limit, around, atMost, limitFrom } from '../../../procedure/limit';
import type { ReadingBands } from '../../../procedure/expected';
import { assistCurveLimits, shortOfAssist } from './assist-curve-limits';
import type { VacuumInlineUnit } from '../unit/geometry';
import { outputAt, outputBand, pressureSlope, pushForce, runOutForce } from '../unit/quasi-static';
import {
  appliedForce,
  holdThere,
  letBack,
  pushTo,
  residualLimit,
  rest,
  supplyOn,
  vacuumNow,
  type Context,
  type Measured,
} from './step-parts';

const rod = 'rod_force';

const vacuumSteps = vacuumUnitSteps<VacuumInlineUnit>({
  supplyVacuum: vacuumNow,
  leverChannel: rod,
  appliedLevel: appliedForce,
  apply: (level) => pushTo(rod, level, 3, supplyOn),
  withControlPort: false,
  holdWhy: {
    rest: 'With the source shut the whole shell must keep its vacuum: finds the atmosphere valve, the shell and its seals.',
    applied: 'With the rod held and the air inlet open: finds the diaphragm and the vacuum valve.',
  },
  appliedCautions: ['fluid-jet'],
});

export const vacuumDraw = vacuumSteps.draw;
export const vacuumHoldRest = vacuumSteps.holdAtRest;
export const vacuumHoldApplied = vacuumSteps.holdApplied;

/** Output of a sound unit at the rod force and the vacuum of this moment, both branches. */
function curveBands(context: Context, readings: Readonly<Record<string, number>>): ReadingBands {
  const { unit, workshopLimits: shop } = context;
  const set = vacuumNow(context);
  const supply: ReadingBands = { supply_vacuum: [set * (1 - shop.supplySag), set * 1.02] };
  const force = readings.rod_force;
  if (force === undefined) return supply;
  const vacuum = readings.supply_vacuum ?? set;
  const [low, high] = outputBand(unit, Math.max(0, force), vacuum, shop);
  const back = outputAt(unit, Math.max(0, force), vacuum, 'way-back');
  return { ...supply, output_pressure: [low, Math.max(high, back)] };
}

export const assistCurve: Measured = {
  id: 'assist-curve',
  kind: 'measured',
  title: 'Assist curve',
  why: 'One even push finds cut-in, jump-in, slope, run-out and the way back.',
  minutes: 3,
  cautions: ['fluid-jet'],
  optional: false,
  characteristics: [...assistCurveCharacteristics, 'supply-sag'],
  feeds: {
    log: {
      needs: [rod, 'output_pressure'],
      uses: ['supply_vacuum'],
      leastRows: 60,
      bandwidth: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const top = pushForce(context.unit, vacuumNow(context));
        return [
          rest(2, supplyOn),
          {
            instruction: { code: 'pull-slowly-past', channel: rod, level: top },
            controls: supplyOn,
            lever: { to: top * 1.02, seconds: 28 },
            end: { kind: 'input-above', level: top },
          },
          holdThere(top * 1.02, 2, supplyOn),
          letBack(rod, 22, supplyOn),
          rest(2.5, supplyOn),
        ];
      },
      bands: curveBands,
    },
    dials: assistCurveEntry<VacuumInlineUnit>({
      lever: rod,
      supply: { channel: 'supply_vacuum', least: ({ unit }) => leastSupply * unit.ratedVacuum, set: vacuumNow },
      vacuumFed: true,
      unassistedSlope: (unit) => pressureSlope(unit, 1),
      cutIn: (unit) => unit.cutInForce,
      knee: (context, supply) => runOutForce(context.unit, supply ?? vacuumNow(context)),
      band: (context, force, supply) => {
        const vacuum = supply ?? vacuumNow(context);
        const [low, high] = outputBand(context.unit, Math.max(0, force), vacuum, context.workshopLimits);
        return [low, Math.max(high, outputAt(context.unit, Math.max(0, force), vacuum, 'way-back'))];
      },
    }),
  },
  analyse: (trace, context) => {
    const { unit } = context;
    const analysis = analyseAssistCurve(trace, context, {
      lever: rod,
      supply: { channel: 'supply_vacuum', least: leastSupply * unit.ratedVacuum },
      vacuumFed: true,
      cutInForce: unit.cutInForce,
      unassistedSlope: pressureSlope(unit, 1),
      runOutForce: (supply) => (supply === null ? null : runOutForce(unit, supply)),
    });
    return saying(analysis, shortOfAssist(analysis, context));
  },
  limits: assistCurveLimits,
  pictures: [assistPicture],
};

/** Shares of the rated vacuum below which a push says nothing of the assist, and above which it is not one without. */
const leastSupply = 0.3;
const noSupply = 0.05;

/** Rod force of the push without vacuum: enough for a clear slope, N. */
const unassistedForce = (context: Context) =>
  context.unit.springForce + context.unit.reserveForce * context.unit.leverage;

export const unassistedCurve: Measured = {
  id: 'unassisted-curve',
  kind: 'measured',
  title: 'Curve without vacuum',
  why: 'Without vacuum the rod must still reach the master cylinder: what stops the vehicle when assist is lost.',
  minutes: 2,
  cautions: ['fluid-jet'],
  optional: false,
  characteristics: ['unassisted-slope'],
  feeds: {
    log: {
      needs: [rod, 'output_pressure'],
      uses: ['supply_vacuum'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => {
        const top = unassistedForce(context);
        return [
          rest(1.5),
          {
            instruction: { code: 'pull-slowly-past', channel: rod, level: top },
            controls: {},
            lever: { to: top * 1.03, seconds: 14 },
            end: { kind: 'input-above', level: top },
          },
          letBack(rod, 4, {}),
          rest(1.5),
        ];
      },
      bands: (context, readings): ReadingBands => {
        const force = readings.rod_force;
        if (force === undefined) return {};
        const expected = outputAt(context.unit, Math.max(0, force), 0);
        return { output_pressure: [expected * 0.85, expected * 1.15] };
      },
    },
    dials: unassistedCurveEntry<VacuumInlineUnit>({
      lever: rod,
      expectedAt: ({ unit }, force) => outputAt(unit, Math.max(0, force), 0),
    }),
  },
  analyse: (trace, context) =>
    analyseUnassistedCurve(trace, context, {
      lever: rod,
      expectedAt: (force) => outputAt(context.unit, force, 0),
      off: { channel: 'supply_vacuum', most: noSupply * context.unit.ratedVacuum },
    }),
  limits: (_analysis, context): Limit[] => {
    const { spec } = context.unit;
    const percent = spec.slopeTolerancePercent;
    const from = limitFrom(
      { field: 'slopeTolerancePercent', value: percent === undefined ? undefined : percent / 100 },
      { key: 'slopeTolerance', value: context.workshopLimits.slopeTolerance },
    );
    return [around('unassisted-slope', pressureSlope(context.unit, 1), from)];
  },
  pictures: [{ kind: 'over-time', channels: [rod, 'output_pressure'] }],
};

export const release: Measured = {
  id: 'release',
  kind: 'measured',
  title: 'Letting go',
  why: 'Let go at once: the pressure must fall to nothing and stay there, or the brakes drag.',
  minutes: 1,
  cautions: ['fluid-jet'],
  optional: false,
  characteristics: ['release-time', 'residual-output'],
  feeds: {
    log: {
      needs: [rod, 'output_pressure'],
      uses: ['supply_vacuum'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const level = appliedForce(context);
        return [
          rest(1.5, supplyOn),
          pushTo(rod, level, 3, supplyOn),
          {
            instruction: { code: 'let-go', channel: rod },
            controls: supplyOn,
            lever: { to: 0, seconds: 0.1 },
            end: { kind: 'input-below', level: 10 },
          },
          rest(5, supplyOn),
        ];
      },
      bands: (context) => ({ output_pressure: [0, residualLimit(context).value] }),
    },
    dials: releaseEntry({ output: 'output_pressure', residual: 'residual-output' }),
  },
  analyse: (trace, context) =>
    analyseRelease(trace, context, { lever: rod, residualLimit: residualLimit(context).value }),
  limits: (_analysis, context) => [
    atMost(
      'release-time',
      limitFrom(
        { field: 'releaseTimeMaxS', value: context.unit.spec.releaseTimeMaxS },
        { key: 'releaseTime', value: context.workshopLimits.releaseTime },
      ),
      { expected: 0 },
    ),
    atMost('residual-output', residualLimit(context), { expected: 0 }),
  ],
  pictures: [{ kind: 'over-time', channels: [rod, 'output_pressure'] }],
};
