import { cautions } from '@/core/wording/cautions';
import type { CautionId } from '@/core/vocabulary/caution-id';
import styles from './bench.module.css';

/** Cautions of a step that nobody has acknowledged for this job yet. */
export function CautionList({ ids }: { readonly ids: readonly CautionId[] }) {
  return (
    <div className={styles.cautions}>
      <ul>
        {ids.map((id) => (
          <li key={id}>{cautions[id]}</li>
        ))}
      </ul>
      <p>Your name and the time are recorded with them.</p>
    </div>
  );
}
