import { home, wait, type GuidePhase } from '../../procedure/guide-phase';
import type { Hazard } from '../../procedure/interlock';
import type { StepContext } from '../../procedure/step-context';
import type { MeasuredStep } from '../../procedure/step-definition';
import { forceForShare, type ByWireUnit } from './geometry';

export type Context = StepContext<ByWireUnit>;
export type Measured = MeasuredStep<ByWireUnit>;

export const lever = 'pedal_force';

/** Feed joined and the key on; the key off; nothing joined at all. */
export const keyOn: GuidePhase['controls'] = { power: 1, ignition: 1 };
export const keyOff: GuidePhase['controls'] = { power: 1 };
export const unplugged: GuidePhase['controls'] = {};

/** What a unit that is awake may do, and must have been proved not to before anything of it opens. */
export const electricHazards = ['motion', 'charge'] as const satisfies readonly Hazard[];

/** Nothing opens before the unit was proved asleep and its bank discharged; awake, both are back. */
export const provedSafe = {
  interlock: { kind: 'gone', once: electricHazards, now: [] },
  brings: electricHazards,
} as const;

/** Hands go in: it is asleep and its bank discharged now. */
export const handsIn = { interlock: { kind: 'gone', once: [], now: electricHazards } } as const;

/** The key is turned on and nothing moved for a moment. */
export const wake = (seconds: number): GuidePhase => wait({ code: 'key-on', seconds }, keyOn, seconds);

export const restAwake = (seconds: number): GuidePhase => wait({ code: 'rest', seconds }, keyOn, seconds);

export const letGo: GuidePhase = {
  instruction: { code: 'let-go', channel: lever },
  controls: keyOn,
  lever: { to: 0, seconds: 0.1 },
  end: { kind: 'input-below', level: 8 },
};

/** The pedal stamped to where a share of the hardest braking is asked for, and held there. */
export function stampAndHold(context: Context, share: number, seconds: number, foot = 0.05): readonly GuidePhase[] {
  const level = forceForShare(context.unit, share);
  return [
    {
      instruction: { code: 'stamp', channel: lever, level },
      controls: keyOn,
      lever: { to: level, seconds: foot },
      end: { kind: 'input-above', level: 0.9 * level },
    },
    wait({ code: 'hold-there', seconds }, keyOn, seconds, level),
  ];
}

/** The feed is taken off before anything else. */
export const feedOff: GuidePhase = {
  instruction: { code: 'feed-off' },
  controls: unplugged,
  lever: home,
  end: { kind: 'seconds', seconds: 3 },
};
