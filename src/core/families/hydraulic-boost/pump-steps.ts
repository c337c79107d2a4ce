import { entryFromOnce } from '../../dials/from-readings';
import { byWatch, inVessel, onGauge } from '../../dials/asked';
import { analyseSteadyReading } from '../../toolboxes/analysis/steady-reading';
import { around, atMost, limitFrom } from '../../procedure/limit';
import type { MeasuredStep } from '../../procedure/step-definition';
import { assistForce, type HydraulicBoostUnit } from './geometry';
import { analyseRelief, analyseSteering, longestDeadHead } from './pump-analyses';
import { wait } from '../../procedure/guide-phase';
import { lever, engineOn, off } from './step-parts';

type Measured = MeasuredStep<HydraulicBoostUnit>;

const idleSeconds = 5;

/** The line is shut for this long: clear of the five seconds that no pump may stand against its dead end. */
const deadHeadSeconds = 3;

export const pumpRelief: Measured = {
  id: 'pump-relief',
  kind: 'measured',
  title: 'Pump relief and flow',
  why: 'What the pump can do: flow at idle through the meter, then its relief pressure against a dead end, for seconds only.',
  minutes: 6,
  cautions: ['dead-head', 'fluid-jet', 'running-engine'],
  optional: false,
  characteristics: ['relief-pressure', 'pump-flow'],
  interlock: { kind: 'steps-clear', steps: ['fluid-look', 'hose-look'] },
  feeds: {
    log: {
      needs: ['pump_pressure', 'flow'],
      uses: ['pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'charged',
      guide: () => [
        wait({ code: 'start-engine', seconds: 2 }, engineOn, 2),
        wait({ code: 'flow-at-idle', seconds: idleSeconds }, engineOn, idleSeconds),
        {
          ...wait({ code: 'dead-head', seconds: longestDeadHead }, { ...engineOn, 'dead-head': 1 }, deadHeadSeconds),
          duty: { of: 'dead-head', channel: 'pump_on', seconds: longestDeadHead },
        },
        wait({ code: 'open-dead-head' }, engineOn, 3),
      ],
      bands: ({ unit }) => ({
        pump_pressure: [unit.relief * 0.9, unit.relief * 1.1],
        flow: [unit.pumpFlow * 0.8, unit.pumpFlow * 1.2],
      }),
    },
    dials: entryFromOnce<HydraulicBoostUnit>(
      ['relief-pressure', 'pump-flow'],
      () => [
        onGauge('meter', 'flow', 'Flow meter at idle', { optional: true }),
        inVessel('caught', 'Or caught in a vessel', { optional: true }),
        byWatch('caught-in', 'Caught in', { optional: true, plausible: [1, 600] }),
        onGauge('relief', 'pump_pressure', 'Needle against the dead end', {
          hint: `Shut for no more than ${longestDeadHead} s; count aloud`,
        }),
      ],
      (read) => ({
        'relief-pressure': read.relief,
        'pump-flow': read.meter ?? read.caught / read['caught-in'],
      }),
    ),
  },
  analyse: analyseRelief,
  limits: (_analysis, { unit, workshopLimits }) => {
    const percent = unit.spec.reliefTolerancePercent;
    const from = limitFrom(
      { field: 'reliefTolerancePercent', value: percent === undefined ? undefined : percent / 100 },
      { key: 'boostRatioTolerance', value: workshopLimits.boostRatioTolerance },
    );
    const least = {
      value: unit.pumpFlow * (1 - workshopLimits.pumpSpeedTolerance),
      key: 'pumpSpeedTolerance',
    } as const;
    return [
      around('relief-pressure', unit.relief, from),
      {
        characteristic: 'pump-flow',
        low: least.value,
        high: null,
        expected: unit.pumpFlow,
        standard: 0,
        source: { kind: 'workshop', key: least.key },
      },
    ];
  },
  pictures: [{ kind: 'over-time', channels: ['pump_pressure', 'flow'] }],
};

export const returnPressure: Measured = {
  id: 'return-pressure',
  kind: 'measured',
  title: 'Return-line pressure',
  why: 'Back pressure in the return line stays in the booster and drags the brakes.',
  minutes: 3,
  cautions: ['running-engine', 'fluid-jet'],
  optional: false,
  characteristics: ['return-pressure'],
  feeds: {
    log: {
      needs: ['return_pressure'],
      uses: ['engine_on'],
      leastRows: 10,
    },
    live: {
      startsFrom: 'charged',
      guide: () => [
        wait({ code: 'rest', seconds: 2 }, off, 2),
        wait({ code: 'start-engine', seconds: 8 }, engineOn, 8),
      ],
      bands: ({ workshopLimits }) => ({ return_pressure: [0, workshopLimits.returnPressure] }),
    },
  },
  analyse: (trace, context) =>
    analyseSteadyReading(trace, context, {
      id: 'return-pressure',
      channel: 'return_pressure',
      seconds: 4,
      while: 'engine_on',
    }),
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'return-pressure',
      limitFrom(
        {
          field: 'returnPressureMaxKpa',
          value: unit.spec.returnPressureMaxKpa === undefined ? undefined : unit.spec.returnPressureMaxKpa * 1e3,
        },
        { key: 'returnPressure', value: workshopLimits.returnPressure },
      ),
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['return_pressure'] }],
};

export const steeringShare: Measured = {
  id: 'steering-share',
  kind: 'measured',
  title: 'Steering and brake together',
  why: 'At idle neither may starve the other: foot held, wheel turned hard over, and the boost must stand.',
  minutes: 3,
  cautions: ['running-engine', 'vehicle-still'],
  optional: false,
  characteristics: ['boost-sag'],
  feeds: {
    log: {
      needs: ['boost_pressure', lever],
      uses: ['pump_pressure', 'output_pressure'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'charged',
      guide: ({ unit }) => {
        const level = holdForce(unit);
        return [
          wait({ code: 'start-engine', seconds: 2 }, engineOn, 2),
          {
            instruction: { code: 'pull-to-hold', channel: lever, level, seconds: 1 },
            controls: engineOn,
            lever: { to: level, seconds: 1.5 },
            end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.5 },
          },
          wait({ code: 'steer-and-hold', seconds: 4 }, { ...engineOn, steer: 1 }, 4, level),
          wait({ code: 'hold-there', seconds: 1 }, engineOn, 1, level),
          {
            instruction: { code: 'let-go', channel: lever },
            controls: engineOn,
            lever: { to: 0, seconds: 0.5 },
            end: { kind: 'input-below', level: 8 },
          },
        ];
      },
      bands: ({ unit }) => ({ boost_pressure: [unit.relief * 0.6, unit.relief] }),
    },
    dials: entryFromOnce<HydraulicBoostUnit>(
      ['boost-sag'],
      () => [
        onGauge('foot-held', 'boost_pressure', 'Boost with the foot held'),
        onGauge('steered', 'boost_pressure', 'Lowest while the wheel is hard over'),
      ],
      (read) => ({ 'boost-sag': read['foot-held'] - read.steered }),
      { 'boost-sag': ['foot-held', '−', 'steered'] },
    ),
  },
  analyse: analyseSteering,
  limits: (_analysis, { unit, workshopLimits }) => [
    atMost(
      'boost-sag',
      { value: workshopLimits.boostSag * unit.relief, source: { kind: 'workshop', key: 'boostSag' } },
      { expected: 0 },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['boost_pressure', 'output_pressure'] }],
};

/** Pedal force that asks for nearly all the pump can give, so that a starved pump shows, N. */
export function holdForce(unit: HydraulicBoostUnit): number {
  const assist = assistForce(unit, unit.relief * 0.97);
  const knee = (assist - unit.jumpInForce + unit.servoRatio * unit.cutInForce) / (unit.servoRatio - 1);
  return knee / unit.pedalRatio;
}
