'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { JobView } from '@/server/views/job-view';
import { Key } from '@/ui/parts/key';
import { useShop } from '@/ui/shell/shop-context';
import { BenchHead } from './bench-head';
import { StepList } from './step-list';
import { StepResults } from './step-results';
import { useKeyActions } from './use-key-actions';
import styles from './bench.module.css';

interface Props {
  readonly view: JobView;
  readonly step: string;
  readonly air: string;
}

/** What the sheet alone says: nothing is measured or typed, it is there from the first moment on. */
export function WorkedOutBench({ view, step: stepId, air }: Props) {
  const router = useRouter();
  const { units } = useShop();
  const own = view.steps.find(({ id }) => id === stepId);
  const job = `/jobs/${view.job.id}`;
  useKeyActions({
    primary: () => router.push(job),
    secondary: null,
    again: null,
    stop: null,
    back: () => router.push(job),
  });
  return (
    <div className={styles.bench}>
      <BenchHead view={view} air={air} />
      <StepList view={view} current={stepId} />
      <main className={styles.work}>
        <h1>{own?.title}: worked out of the sheet</h1>
        <p className={styles.why}>{own?.why}</p>
        <div className={styles.workedOut}>
          {own && <StepResults result={own.evaluation} units={units} heading="The calculation" />}
          <p>
            Other figures are tried at <Link href="/bore">Bore</Link>, with the master cylinders that would hold; this
            job’s own change with its sheet.
          </p>
        </div>
      </main>
      <footer className={styles.foot}>
        <Link className={styles.primaryLink} href={job}>
          Back to the run sheet <Key>Enter</Key>
        </Link>
      </footer>
    </div>
  );
}
