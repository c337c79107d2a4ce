import type { Instruction } from '../vocabulary/instruction';
import type { BenchControls } from '../physics/bench-controls';

/** When a phase of a step is over; levels of `input-…` are of the lever's channel, others of the channel named, SI. */
export type PhaseEnd =
  | { readonly kind: 'seconds'; readonly seconds: number }
  | { readonly kind: 'input-above'; readonly level: number }
  | { readonly kind: 'input-below'; readonly level: number }
  | { readonly kind: 'input-held'; readonly level: number; readonly tolerance: number; readonly seconds: number }
  /** The lever's channel has gone to a level and come back so many times, one about every so many seconds; it waits for the hand. */
  | { readonly kind: 'strokes'; readonly level: number; readonly times: number; readonly every: number }
  /** A reading passes a level, or this long has gone by. */
  | {
      readonly kind: 'reading';
      readonly channel: string;
      readonly side: 'above' | 'below';
      readonly level: number;
      readonly atMost: number;
    }
  /** A 0/1 channel has gone `to` this many times, or this long has gone by. */
  | {
      readonly kind: 'switched';
      readonly channel: string;
      readonly to: 0 | 1;
      readonly times: number;
      readonly atMost: number;
    };

/** What must not go on for longer than this: a motor that runs, a pump against its dead end. */
export interface DutyLimit {
  readonly of: 'motor' | 'dead-head';
  /** 0/1 channel that says that it is going on. */
  readonly channel: string;
  readonly seconds: number;
}

/** One instruction of a step, what the bench is set to for it, and when it is done. */
export interface GuidePhase {
  readonly instruction: Instruction;
  readonly controls: Partial<BenchControls>;
  /**
   * What the rig does with the lever when it pulls by itself: moves to `to` over `seconds`; with `every` it strokes
   * from rest to there and back, one stroke each so many seconds.
   */
  readonly lever: { readonly to: number; readonly seconds: number; readonly every?: number };
  readonly end: PhaseEnd;
  /** Something is held while it lasts: a screen counts it down, or watches it as well for a call before its time. */
  readonly hold?: 'counted' | 'watched';
  /** Counted while the phase lasts; once it is used up everything is switched off and the step ends. */
  readonly duty?: DutyLimit;
}

/** The lever at home. */
export const home = { to: 0, seconds: 0 } as const;

/** A phase that lasts its time with the lever where `to` says (SI of its channel), at home unless told otherwise. */
export function wait(
  instruction: GuidePhase['instruction'],
  controls: GuidePhase['controls'],
  seconds: number,
  to = 0,
): GuidePhase {
  return { instruction, controls, lever: { to, seconds: 0 }, end: { kind: 'seconds', seconds } };
}

/** A wait with something held, which a screen counts down. */
export function heldWait(
  instruction: GuidePhase['instruction'],
  controls: GuidePhase['controls'],
  seconds: number,
): GuidePhase {
  return { ...wait(instruction, controls, seconds), hold: 'counted' };
}
