'use client';
import Link from 'next/link';
import type { JobView } from '@/server/views/job-view';
import { Tag } from '@/ui/parts/tag';
import { ShellControls } from '@/ui/shell/key-map';
import styles from './bench.module.css';

/** Whose unit this is, in what air. */
export function BenchHead({ view, air }: { readonly view: JobView; readonly air: string }) {
  const { job } = view;
  return (
    <header className={styles.head}>
      <Link href={`/jobs/${job.id}`} aria-label={`Back to the job of ${job.serial}`}>
        <Tag serial={job.serial} />
      </Link>
      <strong>{job.sheet.name}</strong>
      <span>{job.vehicle}</span>
      <div className={styles.spring} />
      <span>{air}</span>
      <ShellControls />
    </header>
  );
}
