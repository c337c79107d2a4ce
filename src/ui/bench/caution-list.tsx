import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { cautions } from '@/core/wording/cautions';
import type { CautionId } from '@/core/vocabulary/caution-id';
import styles from './bench.module.css';

/** Cautions of a step that nobody has acknowledged for this job yet. */
export function CautionList({ ids }: { readonly ids: readonly CautionId[] }) {
  return (
    <div className={styles.cautions}>
      <List>
        {ids.map((id) => (
          <ListItem key={id}>{cautions[id]}</ListItem>
        ))}
      </List>
      <p>Your name and the time are recorded with them.</p>
    </div>
  );
}
