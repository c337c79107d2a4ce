import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Link from 'next/link';
import type { JobView, StepView } from '@/server/views/job-view';
import { VerdictShape } from '@/ui/parts/verdict-mark';
import { verdictWords } from '@/core/wording/verdict-words';
import styles from './bench.module.css';

function under(step: StepView): string {
  if (step.evaluation.verdict === 'not-run') return step.shut ? 'shut' : `${step.minutes} min`;
  const counted = step.runs.filter((run) => run.ofThisRound).length;
  const repeats = counted > 1 ? `, ${counted} runs` : '';
  return `${verdictWords[step.evaluation.verdict].toLowerCase()}${repeats}`;
}

/** The run sheet beside the bench. */
export function StepList({ view, current }: { readonly view: JobView; readonly current: string }) {
  return (
    <nav aria-label="Run sheet" style={{ display: 'contents' }}>
      <List className={styles.steps}>
        {view.steps.map((step) => (
          <ListItem key={step.id}>
            <Link
              href={`/jobs/${view.job.id}/bench/${step.id}`}
              aria-current={step.id === current ? 'step' : undefined}
            >
              <VerdictShape verdict={step.evaluation.verdict} />
              <span>
                {step.title}
                <small>{under(step)}</small>
              </span>
            </Link>
          </ListItem>
        ))}
      </List>
    </nav>
  );
}
