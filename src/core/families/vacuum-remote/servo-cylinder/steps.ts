import { entryFromOnce } from '../../../dials/from-readings';
import { onGauge } from '../../../dials/asked';
import { pullPicture } from './pull-picture';
import { analyseVacuumPair } from '../steps/gauge-agreement-analysis';
import type { MeasuredStep, StepDefinition } from '../../../procedure/step-definition';
import { boostCurveLimits, outputTolerance } from '../boost-curve/boost-curve-limits';
import { boostCurveStep } from '../boost-curve/boost-curve-step';
import { pressureHoldSteps } from '../steps/pressure-hold-steps';
import { releaseStep } from '../steps/release-step';
import { compareVacuumGauges, pairLimit, rest, vacuumNow, type Context } from '../steps/step-parts';
import { stopLampSwitch } from '../steps/stop-lamp-step';
import { remoteVacuumSteps } from '../steps/vacuum-steps';
import { leakLook, lookOver } from './look-steps';
import { residualLimit } from './residual-limit';
import { expectedForce, forceBand, pullBegins, type ServoUnit } from './servo';

/** A slope below this share of what the diameter gives is no boost. */
const leastBoostShare = 0.15;

const names = {
  output: 'rod_force',
  ids: {
    slope: 'servo-slope',
    runOutOutput: 'run-out-servo-force',
    atReference: 'servo-force',
    residual: 'servo-residual',
  },
} as const;

const forceTolerance = ({
  unit: { spec },
  workshopLimits: shop,
}: Pick<Context, 'workshopLimits'> & { unit: ServoUnit }) =>
  outputTolerance('servoForceTolerancePercent', spec.servoForceTolerancePercent, shop);

const boostCurve = boostCurveStep<ServoUnit>({
  picture: pullPicture,
  names,
  setup: (unit) => ({
    ...names,
    unassisted: { slope: 0, leastBoost: leastBoostShare * unit.forceGain },
    slopeBeyond: 0,
  }),
  outputBand: (unit, at, shop) =>
    forceBand(unit, at, { tolerance: forceTolerance({ unit, workshopLimits: shop }).value, upper: 'way-back' }),
  cutIn: pullBegins,
  limits: (analysis, context) =>
    boostCurveLimits(analysis, context, {
      atReference: {
        id: 'servo-force',
        at: (vacuum) => expectedForce(context.unit, vacuum),
        tolerance: forceTolerance(context),
      },
      cutIn: pullBegins(context.unit),
      hysteresis: context.unit.hysteresis,
    }),
  cautions: ['fluid-jet', 'moving-lever'],
});

/** Error that the vacuum pair may show on one tee, Pa: a share of the reading, at least a share of the gauge's range. */
function teeLimit(context: Context) {
  const from = pairLimit(context);
  const range = context.instruments.get('supply_vacuum')?.range ?? 0;
  return { ...from, value: Math.max(from.value * vacuumNow(context), context.workshopLimits.pairErrorFloor * range) };
}

/** Without a second hydraulic gauge only the vacuum pair is compared. */
const vacuumPair: MeasuredStep<ServoUnit> = {
  id: 'vacuum-gauge-agreement',
  kind: 'measured',
  title: 'Vacuum gauge agreement',
  why: 'Both vacuum gauges on one tee with the unit shut off: what they differ by is the bench’s error, not the unit’s.',
  minutes: 1,
  cautions: ['vacuum-exhaust'],
  optional: false,
  characteristics: ['vacuum-pair-offset'],
  feeds: {
    log: {
      needs: ['supply_vacuum', 'control_vacuum'],
      uses: [],
      leastRows: 20,
    },
    live: {
      startsFrom: 'vented',
      guide: () => [rest(1), compareVacuumGauges],
      bands: (context) => {
        const vacuum = vacuumNow(context);
        const band = [vacuum - 2_000, vacuum + 2_000] as const;
        return { supply_vacuum: band, control_vacuum: band };
      },
    },
    dials: entryFromOnce<ServoUnit>(
      ['vacuum-pair-offset'],
      () => [
        onGauge('supply-shows', 'supply_vacuum', 'Supply gauge, on the tee'),
        onGauge('control-shows', 'control_vacuum', 'Control gauge, on the tee'),
      ],
      (read) => ({ 'vacuum-pair-offset': read['control-shows'] - read['supply-shows'] }),
      { 'vacuum-pair-offset': ['control-shows', '−', 'supply-shows'] },
    ),
  },
  analyse: (trace, context) => analyseVacuumPair(trace, context, teeLimit(context).value),
  limits: (_analysis, context) => {
    const { value, source } = teeLimit(context);
    return [{ characteristic: 'vacuum-pair-offset', low: -value, high: value, expected: 0, standard: 0, source }];
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'control_vacuum'] }],
};

const holds = pressureHoldSteps<ServoUnit>({
  held: { channel: 'input_pressure', decay: 'input-decay-rate' },
  why: 'Held at full assist: what the input loses goes past the control piston or out of the control unit.',
  withInputCreep: false,
  outputBand: () => ({}),
});

const release = releaseStep<ServoUnit>({
  channel: 'rod_force',
  residual: 'servo-residual',
  output: { output: { channel: 'rod_force', residual: 'servo-residual' } },
  why: 'The pull must let go at once and wholly: what stays drags the brakes.',
  limit: residualLimit,
});

const vacuum = remoteVacuumSteps<ServoUnit>(['fluid-jet', 'moving-lever']);

/** Bench order: the control unit's seals, then the vacuum, then the pull. */
export const servoCylinderSteps: readonly StepDefinition<ServoUnit>[] = [
  lookOver,
  stopLampSwitch,
  holds.low,
  vacuumPair,
  vacuum.draw,
  vacuum.holdAtRest,
  boostCurve,
  vacuum.holdApplied,
  holds.high,
  leakLook,
  release,
];
