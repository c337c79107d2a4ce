import type { VacuumInlineUnit } from '../unit/geometry';
import { reserveEntry } from '../../../toolboxes/servo/reserve-entry';
import { checkValveEntry } from '../../../toolboxes/vacuum/check-valve-entry';
import { analyseCheckValve } from '../../../toolboxes/vacuum/check-valve-analysis';
import { analyseReserve, type ReserveOptions } from '../../../toolboxes/servo/reserve-analysis';
import type { GuidePhase } from '../../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../../procedure/limit';
import type { StepAnalysis } from '../../../procedure/step-analysis';
import type { PredictedStaircase } from '../../../procedure/expected';
import { outputAt } from '../unit/quasi-static';
import { assistedCount, predictReserve } from '../unit/reserve-prediction';
import {
  engineOn,
  home,
  leverOf,
  reserveLevel,
  rest,
  rodForceAt,
  stroke,
  supplyOn,
  vacuumLossSeconds,
  vacuumNow,
  type Context,
  type Measured,
} from './step-parts';

/** Source running and joined to the unit, on either stand. */
export function sourceOn(context: Context): GuidePhase['controls'] {
  return context.plan === 'vehicle' ? engineOn : supplyOn;
}

/** The source lost: the bench's valve shut and its line vented, or the engine stopped. */
const sourceLost: GuidePhase['controls'] = {};

/** Strokes that the prediction is drawn for. */
const predictedStrokes = 8;
/** Strokes that are looked ahead for the one that changes nothing any more. */
const mostStrokes = 14;
/** Two strokes that differ by less than this share read the same. */
const alike = 0.01;
const leastStrokes = 4;
/** Air let in by a quick stroke is warm and less of it, so that a few more are needed than the prediction at even warmth says. */
const quickStrokes = 3;

/** The staircase of a sound unit from the vacuum that was there before the first stroke. */
export function predictedStaircase(
  context: Context,
  analysis: StepAnalysis | null,
  count = predictedStrokes,
): PredictedStaircase {
  const rodForce = rodForceAt(context, reserveLevel(context));
  const vacuum = analysis?.vacuum ?? vacuumNow(context);
  const strokes = predictReserve(
    context.unit,
    { ambient: context.ambient.pressure, vacuum, benchVolume: context.benchVolume ?? 0, rodForce },
    count,
  );
  const unassisted = outputAt(context.unit, rodForce, 0);
  return { strokes, threshold: ((strokes[0]?.output ?? unassisted) + unassisted) / 2 };
}

/** Strokes until the workshop's school calls the reserve used up, by the prediction. */
export function strokesToExhaust(context: Context): number {
  if (context.schools.exhaust === 'count') return context.workshopLimits.exhaustStrokes;
  const { strokes } = predictedStaircase(context, null, mostStrokes);
  const same = strokes.findIndex(
    (each, at) => at > 0 && Math.abs(each.output - strokes[at - 1].output) < alike * each.output,
  );
  return Math.max(leastStrokes, same < 0 ? mostStrokes : Math.min(mostStrokes, same + 2 + quickStrokes));
}

export function reserveLimits(_analysis: StepAnalysis, context: Context): Limit[] {
  const { strokes } = predictedStaircase(context, null);
  const { spec } = context.unit;
  const least = limitFrom(
    { field: 'assistedApplicationsMin', value: spec.assistedApplicationsMin },
    { key: 'assistedApplications', value: context.workshopLimits.assistedApplications },
  );
  // High up a sound unit has fewer: what the model gives with all the vacuum to be had here is never asked for more. Too little in
  // this log lowers nothing.
  const predicted = assistedCount(strokes);
  return [
    {
      characteristic: 'assisted-applications',
      low: Math.min(least.value, Math.max(1, predicted)),
      high: null,
      expected: predicted,
      standard: 0,
      source: least.source,
    },
  ];
}

export const reserveOptions = (context: Context): ReserveOptions => ({
  lever: leverOf(context),
  unassisted: (level) => outputAt(context.unit, rodForceAt(context, level), 0),
  store: { channel: 'supply_vacuum', full: vacuumNow(context) },
});

export const reserve: Measured = {
  id: 'reserve',
  kind: 'measured',
  title: 'Reserve',
  why: 'With the source lost the shell must still give two or three useful strokes.',
  minutes: 2,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['assisted-applications', 'vacuum-per-application'],
  feeds: {
    log: {
      needs: ['output_pressure'],
      uses: ['supply_vacuum', 'rod_force', 'pedal_force'],
      leastRows: 40,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const lever = leverOf(context);
        const level = reserveLevel(context);
        const lost: GuidePhase =
          context.plan === 'vehicle'
            ? {
                instruction: { code: 'stop-engine', seconds: 3 },
                controls: sourceLost,
                lever: home,
                end: { kind: 'seconds', seconds: 3 },
              }
            : {
                instruction: { code: 'vent-source-side', seconds: 3 },
                hold: 'counted',
                controls: sourceLost,
                lever: home,
                end: { kind: 'seconds', seconds: 3 },
              };
        const strokes = Array.from({ length: Math.min(predictedStrokes, strokesToExhaust(context)) }, (_, at) =>
          stroke(lever, level, at + 1, sourceLost),
        );
        return [rest(2, sourceOn(context)), lost, ...strokes.flat()];
      },
      bands: (context) => {
        const { strokes } = predictedStaircase(context, null);
        return { supply_vacuum: [0, vacuumNow(context)], output_pressure: [0, (strokes[0]?.output ?? 0) * 1.1] };
      },
    },
    dials: reserveEntry<VacuumInlineUnit>(
      { channel: 'supply_vacuum', title: 'Vacuum before it', full: vacuumNow },
      { perStroke: true },
    ),
  },
  analyse: (trace, context) => analyseReserve(trace, context, reserveOptions(context)),
  limits: reserveLimits,
  pictures: [
    { kind: 'steps', predict: (context, analysis) => predictedStaircase(context, analysis) },
    { kind: 'over-time', channels: ['output_pressure', 'supply_vacuum'] },
  ],
};

export const checkValve: Measured = {
  id: 'check-valve',
  kind: 'measured',
  title: 'Check valve',
  why: 'It passes one way only: with the source side shut, then open to the air, the loss must not change.',
  minutes: 2,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['reverse-leak'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: ['source_vacuum', 'engine_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => {
        const seconds = vacuumLossSeconds(context);
        const vehicle = context.plan === 'vehicle';
        return [
          rest(2, sourceOn(context)),
          {
            instruction: vehicle ? { code: 'stop-engine-clamped', seconds } : { code: 'shut-source-and-wait', seconds },
            hold: vehicle ? 'counted' : 'watched',
            controls: vehicle ? { isolated: 1 } : { source: 1, isolated: 1 },
            lever: home,
            end: { kind: 'seconds', seconds },
          },
          {
            instruction: vehicle ? { code: 'open-clamp', seconds } : { code: 'vent-source-side', seconds },
            hold: 'counted',
            controls: sourceLost,
            lever: home,
            end: { kind: 'seconds', seconds },
          },
        ];
      },
      bands: (context) => ({ supply_vacuum: [vacuumNow(context) - 3_300, vacuumNow(context)] }),
    },
    dials: checkValveEntry(vacuumLossSeconds),
  },
  analyse: (trace, context) => analyseCheckValve(trace, context, vacuumLossSeconds(context)),
  limits: (_analysis, context) => {
    const { spec } = context.unit;
    return [
      atMost(
        'reverse-leak',
        limitFrom(
          {
            field: 'reverseLeakMaxKpa',
            value: spec.reverseLeakMaxKpa === undefined ? undefined : spec.reverseLeakMaxKpa * 1e3,
          },
          { key: 'reverseLeak', value: context.workshopLimits.reverseLeak },
        ),
        { expected: 0 },
      ),
    ];
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'source_vacuum'] }],
};
