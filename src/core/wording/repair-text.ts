import type { AnyKind } from '../contract/kind';
import type { DueBecause, PartAction, PartWork, VerificationState } from '../judging/verification';
import { inSentence } from './in-sentence';

/** What was done to a part, as it stands in a list. */
export const actionWords: Readonly<Record<PartAction, string>> = {
  replaced: 'Replaced',
  cleaned: 'Cleaned',
  adjusted: 'Adjusted',
  reused: 'Reused: it cannot be had',
  left: 'Left alone',
};

/** Why a step is done again. */
export const dueWords: Readonly<Record<DueBecause, string>> = {
  failed: 'it failed or could not be decided',
  affected: 'the work can change it',
  closing: 'it closes every repair',
  'still-due': 'an earlier repair made it due, and it was not done since',
  'same-log': 'the log that proves the repair answers it too',
};

/** "Vacuum valve: replaced (VK-118)". */
export function workText(kind: AnyKind, { part, action, with: used }: PartWork): string {
  const title = kind.parts.find((each) => each.id === part)?.title ?? part;
  return `${title}: ${inSentence(actionWords[action])}${used === '' ? '' : ` (${used})`}`;
}

/** How far a repair is proved, in one sentence; nothing where nothing was repaired. */
export function proofText(state: VerificationState, titleOf: (step: string) => string): string {
  const named = (steps: readonly string[]) => steps.map(titleOf).join(', ');
  switch (state.kind) {
    case 'nothing-repaired':
      return '';
    case 'to-do':
      return `Not proved yet: still to be done again: ${named(state.left.map((each) => each.step))}.`;
    case 'not-verified':
      return `Not mended: these failed since the repair: ${named(state.failed)}.`;
    case 'undecided':
      return `Not proved: these could not be decided since the repair: ${named(state.steps)}.`;
    case 'worse-instruments':
      return `Not proved: read with worse instruments than before: ${named(state.steps)}.`;
    case 'verified':
      return 'Verified: every step that was due since the repair passed, with instruments no worse than before.';
  }
}
