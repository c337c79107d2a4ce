'use client';
import { useEffect } from 'react';

/** What takes the keys for itself while it has the focus, though nobody types into it. */
const controls = 'button, a, summary, select';

/**
 * Gives the keys back to the screen after every click: a button that was clicked, or a list that was chosen from, would else keep Enter
 * and Space for itself. Who tabs to a control still works it by its own keys.
 */
export function useKeysBack(): void {
  useEffect(() => {
    // Who goes through a list by its arrows is still at it; a click, or Enter, has chosen.
    let byKeys = false;
    const leave = () => (document.activeElement as HTMLElement | null)?.blur();
    const pressed = (event: MouseEvent) => {
      byKeys = false;
      const control = (event.target as Element | null)?.closest?.(controls);
      if (!control || control.tagName === 'SELECT' || control.closest('[role="dialog"]')) return;
      event.preventDefault();
      leave();
    };
    const chosen = (event: Event) => {
      if ((event.target as Element | null)?.tagName === 'SELECT' && !byKeys) leave();
    };
    const key = (event: KeyboardEvent) => {
      byKeys = true;
      if (event.key !== 'Enter' || document.activeElement?.tagName !== 'SELECT') return;
      event.preventDefault();
      event.stopPropagation();
      leave();
    };
    document.addEventListener('mousedown', pressed);
    document.addEventListener('change', chosen);
    document.addEventListener('keydown', key, true);
    return () => {
      document.removeEventListener('mousedown', pressed);
      document.removeEventListener('change', chosen);
      document.removeEventListener('keydown', key, true);
    };
  }, []);
}
