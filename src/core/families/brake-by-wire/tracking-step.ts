import { trackingEntry } from './tracking-entry';
import { wait } from '../../procedure/guide-phase';
import { around, atMost, type Limit } from '../../procedure/limit';
import { saying } from '../../procedure/question';
import { weakSupplyIn } from '../../toolboxes/electrical/weak-supply';
import { forceForShare, wheels } from './geometry';
import { keyOn, letGo, lever, provedSafe, restAwake, stampAndHold, wake, type Measured } from './step-parts';
import { analyseTracking, trackingIds } from './tracking-analysis';

/** Steps as shares of hard braking, each held so long, s, and a ramp after them. */
const steps = [0.4, 0.15, 0.8, 0.3, 1] as const;
const holds = 2.2;
const rampSeconds = 6;

const channels = wheels.flatMap((wheel) => [`target_pressure_${wheel}`, `wheel_pressure_${wheel}`]);

export const tracking: Measured = {
  id: 'tracking',
  kind: 'measured',
  title: 'Wheels behind their targets',
  why: 'What is asked of each wheel against what it gets, in steps and a ramp: how much, how late, how steady.',
  minutes: 6,
  cautions: ['fluid-jet', 'wakes-by-itself'],
  optional: false,
  characteristics: wheels.flatMap((wheel) => trackingIds(wheel)),
  ...provedSafe,
  feeds: {
    log: {
      needs: [],
      uses: [...channels, lever, 'supply_voltage'],
      leastRows: 40,
      leastRate: 50,
    },
    live: {
      startsFrom: 'charged',
      guide: (context) => {
        const top = forceForShare(context.unit, 0.9);
        return [
          wake(3),
          ...steps.flatMap((share) => stampAndHold(context, share, holds)),
          letGo,
          restAwake(holds),
          {
            instruction: { code: 'pull-slowly-past', channel: lever, level: top },
            controls: keyOn,
            lever: { to: top * 1.02, seconds: rampSeconds },
            end: { kind: 'input-above', level: top },
          },
          wait({ code: 'hold-there', seconds: 1 }, keyOn, 1, top),
          {
            instruction: { code: 'let-back-slowly', channel: lever },
            controls: keyOn,
            lever: { to: 0, seconds: rampSeconds },
            end: { kind: 'input-below', level: 8 },
          },
          restAwake(1.5),
        ];
      },
      bands: ({ unit }, readings) =>
        Object.fromEntries(
          wheels.flatMap((wheel) => {
            const asked = readings[`target_pressure_${wheel}`];
            if (asked === undefined) return [];
            const reach = unit.spec.steadyErrorMaxKpa * 1e3;
            return [[`wheel_pressure_${wheel}`, [Math.max(0, asked - reach), asked + reach]] as const];
          }),
        ),
    },
    dials: trackingEntry,
  },
  analyse: (trace, context) =>
    saying(analyseTracking(trace, context), [
      { code: 'one-clock-assumed' },
      ...weakSupplyIn(trace, context.unit.ratedVoltage),
    ]),
  limits: (_analysis, { unit: { spec } }): Limit[] =>
    wheels.flatMap((wheel) => {
      const [gain, steady, deadTime, lag, overshoot] = trackingIds(wheel);
      const sheet = (field: string, value: number) => ({ value, source: { kind: 'sheet', field } as const });
      return [
        around(gain, 1, sheet('trackingGainTolerancePercent', spec.trackingGainTolerancePercent / 100)),
        atMost(steady, sheet('steadyErrorMaxKpa', spec.steadyErrorMaxKpa * 1e3), { expected: 0 }),
        atMost(deadTime, sheet('deadTimeMaxS', spec.deadTimeMaxS)),
        atMost(lag, sheet('lagMaxS', spec.lagMaxS), { expected: spec.responseTimeConstantS }),
        atMost(overshoot, sheet('overshootMaxPercent', spec.overshootMaxPercent / 100), { expected: 0 }),
      ];
    }),
  pictures: [
    {
      kind: 'over-time',
      channels: [...wheels.map((wheel) => `wheel_pressure_${wheel}`), 'target_pressure_fl', 'target_pressure_rl'],
    },
  ],
};
