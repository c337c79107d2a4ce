import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { useRouter } from 'next/navigation';
import type { JobView, StepView } from '@/server/views/job-view';
import styles from './bench.module.css';

/** What keeps a step shut, said where its picture or its grid would be. */
export function ShutNotice({ shut }: { readonly shut: NonNullable<StepView['shut']> }) {
  return (
    <div className={styles.cautions} role="status">
      <List>
        <ListItem>{shut.why}</ListItem>
      </List>
      <p>The interlock holds on the server too: no other way of feeding the step opens it.</p>
    </div>
  );
}

/** Why the step at hand is shut, and the way to what opens it; null when it is open. */
export function useShut(view: JobView, stepId: string) {
  const router = useRouter();
  const shut = view.steps.find((each) => each.id === stepId)?.shut ?? null;
  if (!shut) return null;
  const title = view.steps.find((each) => each.id === shut.opener)?.title ?? shut.opener;
  return {
    shut,
    action: {
      title: `Go to ${title.toLowerCase()}`,
      key: 'Enter',
      run: () => router.push(`/jobs/${view.job.id}/bench/${shut.opener}`),
    },
  };
}
