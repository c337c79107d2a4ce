import type { ServoSetup } from '../../toolboxes/servo/pressure-servo';
import { type GuidePhase, wait } from '../../procedure/guide-phase';
import type { StepContext } from '../../procedure/step-context';
import { assistForce, type HydraulicBoostUnit } from './geometry';

type Context = StepContext<HydraulicBoostUnit>;

export const lever = 'pedal_force';

export const engineOn = { engine: 1 } as const;

export const off = {} as const;

export const hydraulicServo: ServoSetup<HydraulicBoostUnit> = {
  lever,
  leverage: (unit) => unit.pedalRatio,
  feed: 'boost_pressure',
  feedShows: 'boost',
  supply: ({ unit }) => unit.relief,
  assist: assistForce,
  controls: engineOn,
  startsFrom: 'charged',
  cautions: ['running-engine'],
};

export const stroke = (level: number, number: number): GuidePhase[] => {
  const instruction = { code: 'stroke', channel: lever, level, number } as const;
  return [
    {
      instruction,
      controls: off,
      lever: { to: level, seconds: 0.6 },
      end: { kind: 'input-held', level, tolerance: 0.1 * level, seconds: 1.2 },
    },
    { instruction, controls: off, lever: { to: 0, seconds: 0.3 }, end: { kind: 'input-below', level: 8 } },
    wait(instruction, off, 1.2),
  ];
};

export const airOf = (context: Context) => ({ ambient: context.ambient.pressure, environment: context.airTemperature });
