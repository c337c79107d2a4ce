import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Link from 'next/link';
import type { JudgedStep } from '@/core/judging/evaluate-unit';
import type { JobView } from '@/server/views/job-view';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: JudgedStep;
  readonly current: 'live' | 'log' | 'dial';
}

/** The ways a step can be fed: live, from a log file, or read by hand. All lead to the same judgement. */
export function WaysToFeed({ view, step, current }: Props) {
  if (step.kind === 'typed') return null;
  const base = `/jobs/${view.job.id}/bench/${step.id}`;
  const ways = [
    ...(step.feeds.live ? [{ id: 'live', title: 'Live', href: base }] : []),
    { id: 'log', title: 'Log file', href: `${base}?by=log` },
    { id: 'dial', title: 'By hand', href: `${base}?by=dial` },
  ];
  return (
    <Tabs className={styles.ways} variant="fullWidth" value={current} aria-label="How this step is read">
      {ways.map((way) => (
        <Tab key={way.id} value={way.id} label={way.title} component={Link} href={way.href} />
      ))}
    </Tabs>
  );
}
