import styles from './parts.module.css';

/** A serial as a metal tag: ruled box with a hole. */
export function Tag({ serial }: { readonly serial: string }) {
  return (
    <span className={styles.tag}>
      <span className={styles.tagHole} aria-hidden="true" />
      {serial}
    </span>
  );
}
