import { type GuidePhase, home, wait } from '../../procedure/guide-phase';
import { goneOnce } from '../../procedure/interlock';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import type { ServoSetup } from '../../toolboxes/servo/pressure-servo';
import { assistForce, pushForce, type MotorBoostUnit } from './geometry';

export type Context = StepContext<MotorBoostUnit>;
export type Measured = MeasuredStep<MotorBoostUnit>;

export const lever = 'rod_force';

/** Feed joined and the key on; the key off; nothing joined at all. */
export const keyOn: GuidePhase['controls'] = { power: 1, ignition: 1 };
export const keyOff: GuidePhase['controls'] = { power: 1 };
export const unplugged: GuidePhase['controls'] = {};

/** Nothing opens before the unit was proved asleep once. */
export const provedSafe = { interlock: goneOnce('motion'), brings: ['motion'] } as const;

/** What a foot asks for where everything the motor has is wanted, N at the rod. */
export const pushTop = ({ unit }: Context) => pushForce(unit, unit.ratedVoltage);

/** The key is turned on and nothing moved for a moment. */
export const wake = (seconds: number): GuidePhase => wait({ code: 'key-on', seconds }, keyOn, seconds);

export const letGo: GuidePhase = {
  instruction: { code: 'let-go', channel: lever },
  controls: keyOn,
  lever: { to: 0, seconds: 0.1 },
  end: { kind: 'input-below', level: 10 },
};

export const restAwake = (seconds: number): GuidePhase => wait({ code: 'rest', seconds }, keyOn, seconds);

export const motorServo: ServoSetup<MotorBoostUnit> = {
  lever,
  leverage: () => 1,
  feed: 'supply_voltage',
  feedShows: 'supply',
  supply: ({ unit }) => unit.ratedVoltage,
  assist: assistForce,
  controls: keyOn,
  feedAtTop: true,
  feedOff: {
    instruction: { code: 'feed-off' },
    controls: unplugged,
    lever: home,
    end: { kind: 'seconds', seconds: 3 },
  },
  startsFrom: 'charged',
  cautions: ['wakes-by-itself'],
  guards: { powered: goneOnce('motion'), unpowered: goneOnce('motion'), brings: ['motion'] },
};
