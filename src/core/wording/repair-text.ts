import type { AnyKind } from '../contract/kind';
import type { DueBecause, PartAction, PartWork } from '../judging/verification';
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
};

/** "Vacuum valve: replaced (VK-118)". */
export function workText(kind: AnyKind, { part, action, with: used }: PartWork): string {
  const title = kind.parts.find((each) => each.id === part)?.title ?? part;
  return `${title}: ${inSentence(actionWords[action])}${used === '' ? '' : ` (${used})`}`;
}
