import { restLeakEntry } from './rest-leak-entry';
import { checkValveEntry } from '../../toolboxes/vacuum/check-valve-entry';
import { analyseCheckValve } from '../../toolboxes/vacuum/check-valve-analysis';
import { heldWait, wait } from '../../procedure/guide-phase';
import { type Limit, atMost, limitFrom } from '../../procedure/limit';
import { analyseRestLeak } from './pump-analyses';

import { off, on, type Measured } from './step-parts';

/** Time the reservoir is watched for a leak, s. */
export const restSeconds = 60;

export const restLeak: Measured = {
  id: 'rest-leak',
  kind: 'measured',
  title: 'Leak at rest',
  why: 'Nobody on the pedal: how long the vacuum lasts between two runs, and what flow that is.',
  minutes: 3,
  cautions: ['stored-vacuum'],
  optional: false,
  characteristics: ['rest-time', 'leak-flow'],
  feeds: {
    log: {
      needs: ['supply_vacuum'],
      uses: ['pump_on', 'reservoir_vacuum'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: (context) => [
        // A driven source stops with its engine; an electric pump waits for its switch.
        wait({ code: 'watch-pump', seconds: restSeconds }, context.unit.electric ? on : off, restSeconds),
      ],
      bands: () => ({}),
    },
    dials: restLeakEntry,
  },
  analyse: analyseRestLeak,
  limits: (_analysis, context): Limit[] => {
    const { spec } = context.unit;
    const limits: Limit[] = [];
    if (spec.restTimeMinS !== undefined && context.unit.electric)
      limits.push({
        characteristic: 'rest-time',
        low: spec.restTimeMinS,
        high: null,
        expected: null,
        standard: 0,
        source: { kind: 'sheet', field: 'restTimeMinS' },
      });
    const flow = spec.leakFlowMaxCm3PerMin;
    limits.push(
      atMost(
        'leak-flow',
        limitFrom(
          { field: 'leakFlowMaxCm3PerMin', value: flow === undefined ? undefined : (flow * 1e-6) / 60 },
          { key: 'supplyLeakFlow', value: context.workshopLimits.supplyLeakFlow },
        ),
        { expected: 0 },
      ),
    );
    return limits;
  },
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'pump_on'] }],
};

export const checkSeconds = 15;

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
      uses: ['source_vacuum', 'pump_on'],
      leastRows: 20,
    },
    live: {
      startsFrom: 'evacuated',
      guide: () => [
        wait({ code: 'rest', seconds: 1 }, { isolated: 1 }, 1),
        heldWait({ code: 'stop-engine-clamped', seconds: checkSeconds }, { isolated: 1 }, checkSeconds),
        heldWait({ code: 'open-clamp', seconds: checkSeconds }, off, checkSeconds),
      ],
      bands: () => ({}),
    },
    dials: checkValveEntry(() => checkSeconds),
  },
  analyse: (trace, context) => analyseCheckValve(trace, context, checkSeconds),
  limits: (_analysis, { unit: { spec }, workshopLimits }) => [
    atMost(
      'reverse-leak',
      limitFrom(
        {
          field: 'reverseLeakMaxKpa',
          value: spec.reverseLeakMaxKpa === undefined ? undefined : spec.reverseLeakMaxKpa * 1e3,
        },
        { key: 'reverseLeak', value: workshopLimits.reverseLeak },
      ),
      { expected: 0 },
    ),
  ],
  pictures: [{ kind: 'over-time', channels: ['supply_vacuum', 'source_vacuum'] }],
};
