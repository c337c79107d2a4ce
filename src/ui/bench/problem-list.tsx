import styles from './bench.module.css';

/** What is wrong with a log, line by line. */
export function ProblemList({ texts }: { readonly texts: readonly string[] }) {
  return (
    <ul className={styles.problems} role="alert">
      {texts.map((text) => (
        <li key={text}>{text}</li>
      ))}
    </ul>
  );
}
