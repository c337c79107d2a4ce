import type { ReactNode } from 'react';
import styles from './parts.module.css';

/** A key of the keyboard, drawn. */
export function Key({ children }: { readonly children: ReactNode }) {
  return (
    <kbd className={styles.key} aria-hidden="true">
      {children}
    </kbd>
  );
}
