import Link from 'next/link';
import styles from './job.module.css';

const places = [
  { id: 'sheet', title: 'Run sheet', path: '' },
  { id: 'findings', title: 'Findings', path: '/findings' },
  { id: 'repair', title: 'Repair and proof', path: '/repair' },
  { id: 'paper', title: 'Paper', path: '/release' },
] as const;

export type JobPlace = (typeof places)[number]['id'];

/** The places of one job: what is to be done, what it comes to, what was mended, and what is issued. */
export function JobPlaces({ jobId, at }: { readonly jobId: string; readonly at: JobPlace }) {
  return (
    <nav className={styles.places} aria-label="Places of this job">
      {places.map(({ id, title, path }) => (
        <Link key={id} href={`/jobs/${jobId}${path}`} aria-current={id === at ? 'page' : undefined}>
          {title}
        </Link>
      ))}
    </nav>
  );
}
