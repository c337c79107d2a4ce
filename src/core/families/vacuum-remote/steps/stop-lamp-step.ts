import { atMost, limitFrom } from '../../../procedure/limit';
import { analyseStopLampSwitch } from '../../../toolboxes/analysis/switch-analysis';
import { rest, type Measured } from './step-parts';

const switchTop = 1_000_000;

const worked = {
  by: 'input_pressure',
  closes: 'switch-close-pressure',
  opens: 'switch-open-pressure',
  closedAtRest: 'says-nothing',
} as const;

/** Stop-lamp switch, before there is any assist. */
export const stopLampSwitch: Measured = {
  id: 'stop-lamp-switch',
  kind: 'measured',
  title: 'Stop-lamp switch',
  why: 'Before the vacuum is on, so that assist does not hurry the pressure past the switch.',
  minutes: 2,
  cautions: ['brake-fluid'],
  optional: false,
  characteristics: ['switch-close-pressure', 'switch-open-pressure'],
  feeds: {
    log: {
      needs: ['input_pressure', 'stop_switch'],
      uses: [],
      leastRows: 40,
    },
    live: {
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
      bands: ({ unit: { spec }, workshopLimits: shop }) => ({
        input_pressure: [
          (spec.switchCloseMinKpa ?? shop.switchCloseMin / 1e3) * 1e3,
          (spec.switchCloseMaxKpa ?? shop.switchCloseMax / 1e3) * 1e3,
        ],
      }),
    },
  },
  analyse: (trace, context) => analyseStopLampSwitch(worked, trace, context),
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
  pictures: [{ kind: 'over-time', channels: ['input_pressure', 'stop_switch'] }],
};
