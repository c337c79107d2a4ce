import { failedAssistStop } from '../../calculators/failed-assist-stop';
import { systematic } from '../../instruments/uncertainty';
import { absent, measured } from '../../procedure/analysis-result';
import type { TypedStep } from '../../procedure/step-definition';
import type { FoundationCondition } from './faults';
import type { FoundationUnit } from './geometry';

/** Friction, radii and areas of a sheet are the vehicle's to about this: standard uncertainty of a brake force, as a share. */
const sheetShare = 0.04;

const ids = ['deceleration', 'stopping-distance', 'pedal-force-needed'] as const;

/** What the sheet alone says of a stop with the assist gone: a calculation, and it says so. */
export const failedAssist: TypedStep<FoundationUnit, FoundationCondition> = {
  id: 'failed-assist-stop',
  kind: 'typed',
  workedOut: true,
  title: 'A stop with the assist gone',
  why: 'Worked out of the sheet: pedal, bore, pistons, friction, tyre and mass. It is a calculation and no approval; the road, the load and the local code decide.',
  minutes: 1,
  cautions: [],
  optional: false,
  characteristics: ids,
  feeds: {
    dials: {
      fields: () => [],
      analyse: (_values, { unit }) => {
        const { vehicle, master, rule } = unit;
        const stop = failedAssistStop(vehicle, master, rule);
        const { deceleration, stoppingDistance, pedalForceNeeded, limitedBy } = stop;
        const share = (value: number) => [systematic('model', sheetShare * value)];
        const braked = stoppingDistance === null ? null : stoppingDistance - rule.speed * rule.buildUp;
        return {
          characteristics: [
            measured('deceleration', deceleration, share(deceleration)),
            stoppingDistance === null || braked === null
              ? absent('stopping-distance', { code: 'never-stops' })
              : measured('stopping-distance', stoppingDistance, share(braked)),
            measured('pedal-force-needed', pedalForceNeeded, share(pedalForceNeeded)),
          ],
          events: [],
          notes: [
            { code: 'calculation-only', source: rule.source },
            ...(limitedBy === 'road' ? [{ code: 'road-limits', deceleration } as const] : []),
          ],
        };
      },
    },
    standIn: () => ({}),
  },
  limits: (_analysis, { unit: { rule } }) => {
    const light = rule.category === 'light';
    const source = (field: string) => ({ kind: 'sheet', field: light ? 'category' : field }) as const;
    return [
      {
        characteristic: 'deceleration',
        low: rule.decelerationLeast,
        high: null,
        expected: null,
        standard: 0,
        source: source('ownDecelerationMinMPerS2'),
      },
      {
        characteristic: 'stopping-distance',
        low: null,
        high: rule.buildUp * rule.speed + rule.perSpeedSquared * rule.speed ** 2,
        expected: null,
        standard: 0,
        source: source('ownDistanceB'),
      },
      {
        characteristic: 'pedal-force-needed',
        low: null,
        high: rule.pedalForceMost,
        expected: null,
        standard: 0,
        source: source('ownPedalForceMaxN'),
      },
    ];
  },
};
