import type { MeasuredStep } from '../../../procedure/step-definition';
import type { StepContext } from '../../../procedure/step-context';
import { analyseGaugeAgreement } from '../steps/gauge-agreement-analysis';
import type { GuidePhase } from '../../../procedure/guide-phase';
import { pullInput } from '../unit/control-valve';
import type { InLineUnit } from './geometry';
import { gaugeAgreementEntry } from './gauge-agreement-entry';
import { outputAt } from './quasi-static';
import { compareVacuumGauges, pairLimit, rest, vacuumNow } from '../steps/step-parts';

/** Levels of the gauge comparison: up to what the boost curve will ask of the output gauge. */
function agreementLevels(context: StepContext<InLineUnit>): number[] {
  const vacuum = vacuumNow(context);
  const top = outputAt(context.unit, pullInput(context.unit, vacuum), vacuum);
  return [0.2, 0.45, 0.7, 0.95].map((part) => Math.round((part * top) / 1e5) * 1e5);
}

export const gaugeAgreement: MeasuredStep<InLineUnit> = {
  id: 'gauge-agreement',
  kind: 'measured',
  title: 'Gauge agreement',
  why: 'With the vacuum off, fluid passes straight through: what the two gauges differ by is the bench’s error, or a blocked bypass.',
  minutes: 4,
  cautions: ['brake-fluid', 'never-loosen'],
  optional: false,
  characteristics: ['pair-offset', 'pair-gain'],
  feeds: {
    log: {
      needs: ['input_pressure', 'output_pressure'],
      uses: ['supply_vacuum', 'control_vacuum'],
      leastRows: 60,
    },
    live: {
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
          compareVacuumGauges,
        ];
      },
      bands: () => ({}),
    },
    dials: gaugeAgreementEntry(agreementLevels),
  },
  analyse: (trace, context) => {
    const { value: fraction } = pairLimit(context);
    return analyseGaugeAgreement(trace, context, { fraction, floor: context.workshopLimits.pairErrorFloor });
  },
  limits: (analysis, context) => {
    const pair = analysis.corrections?.pair;
    const limit = pairLimit(context);
    // A gain that was typed by itself is judged without the offset beside it.
    const [low, high] = pair?.allowedGain ?? [1 - limit.value, 1 + limit.value];
    return [{ characteristic: 'pair-gain', low, high, expected: 1, standard: 0, source: limit.source }];
  },
  pictures: [{ kind: 'over-time', channels: ['input_pressure', 'output_pressure'] }],
};
