'use client';
import { useEffect } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';

/** What a half-filled form of this name held when it was last left; null when there is none. */
export function readDraft<T>(name: string): Partial<T> | null {
  if (typeof window === 'undefined') return null;
  try {
    const text = window.localStorage.getItem(`hard-pedal-draft-${name}`);
    return text === null ? null : (JSON.parse(text) as Partial<T>);
  } catch {
    return null;
  }
}

export function dropDraft(name: string): void {
  window.localStorage.removeItem(`hard-pedal-draft-${name}`);
}

/** Keeps a form's values in this browser while they are typed, and puts them back after a reload or a crash. */
export function useDraft<T extends FieldValues>(name: string, form: UseFormReturn<T>): void {
  useEffect(() => {
    const draft = readDraft<T>(name);
    if (draft) form.reset({ ...form.getValues(), ...draft });
    const { unsubscribe } = form.watch((values) =>
      window.localStorage.setItem(`hard-pedal-draft-${name}`, JSON.stringify(values)),
    );
    return unsubscribe;
  }, [name, form]);
}
