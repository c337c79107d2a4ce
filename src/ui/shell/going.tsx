'use client';
import { useLinkStatus } from 'next/link';
import styles from './shell.module.css';

/**
 * Inside of a link: a line that runs along it while its page is on its way, once that takes long enough to be noticed. Pages come
 * whole, so that the one that is left stays until the next is there.
 */
export function Going() {
  const { pending } = useLinkStatus();
  return pending && <span className={styles.going} aria-hidden />;
}
