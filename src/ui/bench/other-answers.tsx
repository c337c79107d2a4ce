import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import type { StepEvaluation } from '@/core/judging/evaluate-unit';
import type { JobView } from '@/server/views/job-view';
import { VerdictMark } from '@/ui/parts/verdict-mark';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly others: readonly StepEvaluation[];
}

/** What a log says to the other steps that it answers, so that nobody brings it twice. */
export function OtherAnswers({ view, others }: Props) {
  if (others.length === 0) return null;
  return (
    <div className={styles.results}>
      <h2>It answers these too</h2>
      <List className={styles.others}>
        {others.map(({ step, verdict }) => (
          <ListItem key={step}>
            <b>{view.steps.find(({ id }) => id === step)?.title ?? step}</b>
            <VerdictMark verdict={verdict} />
          </ListItem>
        ))}
      </List>
    </div>
  );
}
