'use client';
import { useEffect } from 'react';

/** Version of the record (a job, the settings) that the page shows; null where it shows none that is changed as one. */
let shown: number | null = null;

export const shownVersion = (): number | null => shown;

/** What an answer says of the record's version is what this page has seen from now on. */
export function sawVersion(version: number): void {
  if (shown !== null) shown = Math.max(shown, version);
}

/** Said to the page once it was told that what it shows has changed: it loads anew, and keeps what was typed. */
export const changedElsewhere = 'record-changed-elsewhere';

/** Tells the server, with whatever this page changes, which version of its record somebody has decided on. */
export function ShownVersion({ version }: { readonly version: number }) {
  useEffect(() => {
    shown = version;
    return () => {
      shown = null;
    };
  }, [version]);
  return null;
}
