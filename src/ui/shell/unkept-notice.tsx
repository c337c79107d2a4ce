'use client';
import { useSyncExternalStore } from 'react';
import { onStoreChange, somethingUnkept } from './browser-store';
import styles from './shell.module.css';

/** Says so when this browser cannot keep drafts: what is typed must not be lost without a word. */
export function UnkeptNotice() {
  const unkept = useSyncExternalStore(onStoreChange, somethingUnkept, () => false);
  if (!unkept) return null;
  return (
    <p role="alert" data-notice className={styles.unkept}>
      This browser’s store is full or barred: what you type stays on this page, but a reload would lose it.
    </p>
  );
}
