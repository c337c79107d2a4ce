import type { CharacteristicId } from '../quantities/characteristics';
import type { CautionId } from '../vocabulary/caution-id';
import type { GuardedStep } from './interlock';

/** What every step is, however it is fed. */
export interface StepCommon extends GuardedStep {
  readonly title: string;
  /** Why the step is there, and there in the order. */
  readonly why: string;
  /** Bench time with set-up, minutes. */
  readonly minutes: number;
  readonly cautions: readonly CautionId[];
  readonly optional: boolean;
  readonly characteristics: readonly CharacteristicId[];
  /** Which of several runs are judged: their mean, or where the state of a moment is proved, the last. */
  readonly repeats?: 'last';
}
