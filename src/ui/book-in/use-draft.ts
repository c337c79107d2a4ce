'use client';
import { useEffect } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { dropText, keepText, keptText, textsByName } from '@/ui/shell/browser-store';

const keyOf = (name: string) => `hard-pedal-draft-${name}`;

export function dropDraft(name: string): void {
  dropText(keyOf(name));
}

/**
 * Keeps a form's values in this browser while they are typed, and puts them back after a reload or a crash. `read` makes values of what was
 * kept, where they are no texts; it must be the same each time.
 */
export function useDraft<T extends FieldValues>(
  name: string,
  form: UseFormReturn<T>,
  read: (kept: string | null) => object = textsByName,
): void {
  useEffect(() => {
    const draft = read(keptText(keyOf(name)));
    if (Object.keys(draft).length > 0) form.reset({ ...form.getValues(), ...draft });
    const { unsubscribe } = form.watch((values) => keepText(keyOf(name), JSON.stringify(values)));
    return unsubscribe;
  }, [name, form, read]);
}
