'use client';
import { useHotkeys } from 'react-hotkeys-hook';
import { useKeysBack } from '@/ui/shell/give-keys-back';

/** Whether Enter or Space already means something where the focus is. */
function focusActs(): boolean {
  const tag = document.activeElement?.tagName;
  return tag === 'BUTTON' || tag === 'A' || tag === 'SELECT' || tag === 'TEXTAREA';
}

interface Actions {
  readonly primary: (() => void) | null;
  readonly secondary: (() => void) | null;
  readonly again: (() => void) | null;
  readonly stop: (() => void) | null;
  readonly discard?: (() => void) | null;
  readonly back: () => void;
}

/** The bench's keys. Each has a visible control too. */
export function useKeyActions(actions: Actions): void {
  useKeysBack();
  const when = (action: (() => void) | null) => (event: KeyboardEvent) => {
    if (!action || focusActs()) return;
    event.preventDefault();
    action();
  };
  const options = { enableOnFormTags: ['input' as const] };
  useHotkeys('enter', when(actions.primary), options, [actions.primary]);
  useHotkeys('space', when(actions.secondary), options, [actions.secondary]);
  useHotkeys('r', () => actions.again?.(), [actions.again]);
  useHotkeys('s', () => actions.stop?.(), [actions.stop]);
  useHotkeys('x', () => actions.discard?.(), [actions.discard]);
  useHotkeys('escape', actions.back, [actions.back]);
}
