import { analyseGaugeAgreement } from '../common/gauge-agreement-analysis';
import { analysePressureHold } from '../common/hold-analysis';
import { atMost, limitFrom } from '../common/limits';
import { analyseRelease } from '../common/release-analysis';
import { analyseStopLampSwitch } from '../common/switch-analysis';
import type { GuidePhase } from '../guide-phase';
import { outputAt, pullInput } from './quasi-static';
import {
  appliedInput,
  decayLimits,
  decayWatch,
  home,
  letBack,
  pairLimit,
  pullAndShut,
  releaseLimit,
  rest,
  supplyOn,
  vacuumNow,
  waitShut,
} from './step-parts';
import type { Context, Measured } from './step-parts';

/** Pressure of the low-pressure leak hold, Pa: lip seals that seal at high pressure may weep here. */
const lowPressure = 400_000;

const lowHoldSeconds = 30;

const highHoldSeconds = 60;

const switchTop = 1_000_000;

export const stopLampSwitch: Measured = {
  id: 'stop-lamp-switch',
  kind: 'measured',
  title: 'Stop-lamp switch',
  why: 'Before the vacuum is on, so that assist does not hurry the pressure past the switch.',
  minutes: 2,
  cautions: ['brake-fluid'],
  optional: false,
  characteristics: ['switch-close-pressure', 'switch-open-pressure'],
  needs: ['input_pressure', 'stop_switch'],
  uses: ['output_pressure'],
  leastRows: 40,
  picture: { kind: 'over-time', channels: ['input_pressure', 'stop_switch'] },
  startsFrom: 'vented',
  guide: (context) => {
    const top = Math.max(switchTop, (context.unit.spec.switchCloseMaxKpa ?? 0) * 1e3 * 1.2);
    return [
      rest(1.5),
      {
        instruction: { code: 'pull-slowly-past', channel: 'input_pressure', level: top },
        controls: {},
        lever: { to: top * 1.06, seconds: 10 },
        end: { kind: 'input-above', level: top },
      },
      {
        instruction: { code: 'let-back-slowly', channel: 'input_pressure' },
        controls: {},
        lever: { to: 0, seconds: 8 },
        end: { kind: 'input-below', level: 30_000 },
      },
      rest(1),
    ];
  },
  analyse: analyseStopLampSwitch,
  limits: (_analysis, { unit: { spec }, workshopLimits: shop }) => {
    const low = limitFrom(
      {
        field: 'switchCloseMinKpa',
        value: spec.switchCloseMinKpa === undefined ? undefined : spec.switchCloseMinKpa * 1e3,
      },
      { key: 'switchCloseMin', value: shop.switchCloseMin },
    );
    const high = limitFrom(
      {
        field: 'switchCloseMaxKpa',
        value: spec.switchCloseMaxKpa === undefined ? undefined : spec.switchCloseMaxKpa * 1e3,
      },
      { key: 'switchCloseMax', value: shop.switchCloseMax },
    );
    return [atMost('switch-close-pressure', high, { low: low.value, expected: (low.value + high.value) / 2 })];
  },
  bands: ({ unit: { spec }, workshopLimits: shop }) => ({
    input_pressure: [
      (spec.switchCloseMinKpa ?? shop.switchCloseMin / 1e3) * 1e3,
      (spec.switchCloseMaxKpa ?? shop.switchCloseMax / 1e3) * 1e3,
    ],
  }),
};

/** Levels of the gauge comparison: up to what the boost curve will ask of the output gauge. */
function agreementLevels(context: Context): number[] {
  const vacuum = vacuumNow(context);
  const top = outputAt(context.unit, pullInput(context.unit, vacuum), vacuum);
  return [0.2, 0.45, 0.7, 0.95].map((part) => Math.round((part * top) / 1e5) * 1e5);
}

export const gaugeAgreement: Measured = {
  id: 'gauge-agreement',
  kind: 'measured',
  title: 'Gauge agreement',
  why: 'With the vacuum off, fluid passes straight through: what the two gauges differ by is the bench’s error, or a blocked bypass.',
  minutes: 4,
  cautions: ['brake-fluid', 'never-loosen'],
  optional: false,
  characteristics: ['pair-offset', 'pair-gain'],
  needs: ['input_pressure', 'output_pressure'],
  uses: ['supply_vacuum', 'control_vacuum'],
  leastRows: 60,
  picture: { kind: 'over-time', channels: ['input_pressure', 'output_pressure'] },
  startsFrom: 'vented',
  guide: (context) => {
    const up = agreementLevels(context);
    const hold = (pressure: number, easing: boolean): GuidePhase => ({
      instruction: {
        code: easing ? 'ease-to-hold' : 'pull-to-hold',
        channel: 'input_pressure',
        level: pressure,
        seconds: 2,
      },
      controls: {},
      lever: { to: pressure, seconds: 2 },
      end: {
        kind: 'input-held',
        level: pressure,
        tolerance: Math.max(150_000, 0.04 * up[up.length - 1]),
        seconds: 2.4,
      },
    });
    return [
      rest(2),
      ...up.map((pressure) => hold(pressure, false)),
      ...up
        .slice(0, -1)
        .reverse()
        .map((pressure) => hold(pressure, true)),
      {
        instruction: { code: 'let-back-slowly', channel: 'input_pressure' },
        controls: {},
        lever: { to: 0, seconds: 2 },
        end: { kind: 'input-below', level: 30_000 },
      },
      rest(2),
      {
        instruction: { code: 'compare-vacuum-gauges', seconds: 5 },
        controls: { ...supplyOn, 'unit-shut': 1 },
        lever: home,
        end: { kind: 'seconds', seconds: 5 },
      },
    ];
  },
  analyse: (trace, context) => {
    const { value: fraction } = pairLimit(context);
    return analyseGaugeAgreement(trace, context, { fraction, floor: context.workshopLimits.pairErrorFloor });
  },
  limits: (analysis, context) => {
    const pair = analysis.corrections?.pair;
    if (!pair) return [];
    const [low, high] = pair.allowedGain;
    return [{ characteristic: 'pair-gain', low, high, expected: 1, standard: 0, source: pairLimit(context).source }];
  },
  bands: () => ({}),
};

export const lowPressureHold: Measured = {
  id: 'low-pressure-hold',
  kind: 'measured',
  title: 'Low-pressure hold',
  why: 'Lip seals that seal at high pressure may weep at low.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen'],
  optional: false,
  characteristics: ['output-decay-rate'],
  needs: ['output_pressure', 'input_pressure'],
  uses: [],
  leastRows: 40,
  picture: { kind: 'over-time', channels: ['output_pressure', 'input_pressure'] },
  startsFrom: 'vented',
  guide: () => [rest(1.5), pullAndShut(lowPressure, 2, {}), waitShut(lowPressure, lowHoldSeconds, {}), letBack({})],
  analyse: (trace, context) => analysePressureHold(trace, context, { seconds: lowHoldSeconds, withInputCreep: false }),
  watch: (context) => decayWatch(context, lowHoldSeconds),
  limits: decayLimits,
  bands: () => ({ output_pressure: [300_000, 500_000], input_pressure: [300_000, 500_000] }),
};

export const pressureHold: Measured = {
  id: 'pressure-hold',
  kind: 'measured',
  title: 'Pressure hold',
  why: 'Held at full assist: falling output is a leak, rising input a seal that lets fluid back.',
  minutes: 2,
  cautions: ['fluid-jet', 'never-loosen'],
  optional: false,
  characteristics: ['output-decay-rate', 'input-creep'],
  needs: ['output_pressure', 'input_pressure'],
  uses: ['supply_vacuum'],
  leastRows: 40,
  picture: { kind: 'over-time', channels: ['output_pressure', 'input_pressure'] },
  startsFrom: 'evacuated',
  guide: (context) => {
    const pressure = appliedInput(context);
    return [
      rest(1.5, supplyOn),
      pullAndShut(pressure, 5, supplyOn),
      waitShut(pressure, highHoldSeconds, supplyOn),
      letBack(supplyOn),
    ];
  },
  analyse: (trace, context) => analysePressureHold(trace, context, { seconds: highHoldSeconds, withInputCreep: true }),
  watch: (context) => decayWatch(context, highHoldSeconds),
  limits: decayLimits,
  bands: (context) => {
    const input = appliedInput(context);
    const output = outputAt(context.unit, input, vacuumNow(context));
    return { output_pressure: [output * 0.9, output * 1.1], input_pressure: [input * 0.95, input * 1.05] };
  },
};

export const release: Measured = {
  id: 'release',
  kind: 'measured',
  title: 'Release and drain',
  why: 'The pressure must fall at once and to nothing: what stays drags the brakes.',
  minutes: 2,
  cautions: ['brake-fluid', 'stored-vacuum'],
  optional: false,
  characteristics: ['release-time', 'residual-output'],
  needs: ['output_pressure', 'input_pressure'],
  uses: ['supply_vacuum'],
  leastRows: 30,
  picture: { kind: 'over-time', channels: ['output_pressure', 'input_pressure'] },
  startsFrom: 'evacuated',
  guide: (context) => {
    const pressure = appliedInput(context);
    return [
      rest(1.5, supplyOn),
      pullAndShut(pressure, 4, supplyOn),
      {
        instruction: { code: 'let-go', channel: 'input_pressure' },
        controls: supplyOn,
        lever: { to: 0, seconds: 0 },
        end: { kind: 'input-below', level: 30_000 },
      },
      rest(5, supplyOn),
    ];
  },
  analyse: (trace, context) =>
    analyseRelease(trace, context, { lever: 'input_pressure', residualLimit: releaseLimit(context).value }),
  limits: (_analysis, context) => {
    const time = limitFrom(
      { field: 'releaseTimeMaxS', value: context.unit.spec.releaseTimeMaxS },
      { key: 'releaseTime', value: context.workshopLimits.releaseTime },
    );
    return [atMost('release-time', time), atMost('residual-output', releaseLimit(context), { expected: 0 })];
  },
  bands: (context) => ({ output_pressure: [-10_000, releaseLimit(context).value] }),
};
