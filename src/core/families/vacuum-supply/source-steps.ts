import { sourceVacuumEntry } from '../../toolboxes/vacuum/source-vacuum-entry';
import { entryFromOnce } from '../../dials/from-readings';
import { counted, onGauge } from '../../dials/asked';
import { analyseSourceVacuum, leastVacuumLimits } from '../../toolboxes/vacuum/source-vacuum-analysis';
import { wait } from '../../procedure/guide-phase';
import { type Limit, atMost } from '../../procedure/limit';
import { settledVacuum, type VacuumSupplyUnit } from './geometry';
import { analyseDemand } from './pump-analyses';

import { off, on, pedal, settlingSeconds, stroke, strokeForce, type Measured } from './step-parts';

export const sourceVacuum: Measured = {
  id: 'source-vacuum',
  kind: 'measured',
  title: 'Source vacuum',
  why: 'Engine idling or pump running: enough at rest, and after two strokes still enough while the pedal is held.',
  minutes: 3,
  cautions: ['running-engine'],
  optional: false,
  characteristics: ['idle-vacuum', 'held-vacuum'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: [pedal, 'reservoir_vacuum', 'pump_on'],
      leastRows: 10,
    },
    live: {
      startsFrom: 'vented',
      guide: (context) => [
        wait({ code: 'start-engine', seconds: settlingSeconds(context) }, on, settlingSeconds(context)),
        ...stroke(1, on),
        ...stroke(2, on),
        {
          instruction: { code: 'pull-to-hold', channel: pedal, level: strokeForce, seconds: 1 },
          controls: on,
          lever: { to: strokeForce, seconds: 0.6 },
          end: { kind: 'input-held', level: strokeForce, tolerance: 0.15 * strokeForce, seconds: 1 },
        },
        {
          instruction: { code: 'hold-there', seconds: settlingSeconds(context) },
          controls: on,
          lever: { to: strokeForce, seconds: 0 },
          end: { kind: 'seconds', seconds: settlingSeconds(context) },
        },
        {
          instruction: { code: 'let-back-slowly', channel: pedal },
          controls: on,
          lever: { to: 0, seconds: 0.5 },
          end: { kind: 'input-below', level: 10 },
        },
        wait({ code: 'rest', seconds: 1 }, on, 1),
      ],
      bands: (context) => {
        const [{ low }] = leastVacuumLimits(['idle-vacuum'], context.unit.spec.sourceKind, context);
        return { supply_vacuum: [low ?? 0, settledVacuum(context.unit, context.ambient) * 1.03] };
      },
    },
    dials: sourceVacuumEntry((context) => leastVacuumLimits(['idle-vacuum'], context.unit.spec.sourceKind, context)),
  },
  analyse: (trace, context) => analyseSourceVacuum(trace, context, pedal),
  limits: (_analysis, context) =>
    leastVacuumLimits(['idle-vacuum', 'held-vacuum'], context.unit.spec.sourceKind, context),
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'reservoir_vacuum'] }],
};

/** A needle stands so long after a stroke: the air let in has cooled, s. */
const standsAfter = 4;

export const demand: Measured = {
  id: 'demand',
  kind: 'measured',
  title: 'Demand of a stroke',
  why: 'What one stroke costs: a booster that leaks while applied, or takes too much air, shows here.',
  minutes: 2,
  cautions: ['running-engine'],
  optional: true,
  characteristics: ['vacuum-per-application'],
  feeds: {
    log: {
      needs: ['supply_vacuum', pedal],
      uses: ['pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: () => [
        wait({ code: 'rest', seconds: 2 }, off, 2),
        ...stroke(1, off, standsAfter),
        ...stroke(2, off, standsAfter),
      ],
      bands: () => ({}),
    },
    dials: entryFromOnce<VacuumSupplyUnit>(
      ['vacuum-per-application'],
      () => [
        onGauge('before', 'supply_vacuum', 'Vacuum before the strokes', {
          hint: 'Engine off, so that nothing draws it back',
        }),
        counted('strokes', 'Strokes made', { expected: { low: 1, high: 3 } }),
        onGauge('after', 'supply_vacuum', 'Vacuum after them, once it stands'),
      ],
      ({ before, after, strokes }) => ({ 'vacuum-per-application': (before - after) / strokes }),
      { 'vacuum-per-application': ['(', 'before', '−', 'after', ')', '÷', 'strokes'] },
    ),
  },
  analyse: analyseDemand,
  limits: (_analysis, context): Limit[] => {
    const most = context.unit.spec.vacuumPerApplicationMaxKpa;
    return most === undefined
      ? []
      : [
          atMost('vacuum-per-application', {
            value: most * 1e3,
            source: { kind: 'sheet', field: 'vacuumPerApplicationMaxKpa' },
          }),
        ];
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', pedal] }],
};
