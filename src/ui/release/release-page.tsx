'use client';
import ListItem from '@mui/material/ListItem';
import { Bullets } from '@/ui/parts/bullets';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { verdictWords } from '@/core/wording/verdict-words';
import type { JobView } from '@/server/views/job-view';
import { JobPlaces } from '@/ui/job/job-places';
import { useWhen } from '@/ui/parts/when';
import { Tag } from '@/ui/parts/tag';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import styles from './release.module.css';

/** Issues the paper of a unit, and shows what has been issued or would be. */
export function ReleasePage({ view }: { readonly view: JobView }) {
  const router = useRouter();
  const { person, units } = useShop();
  const when = useWhen();
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const { job, blocking } = view;
  const latest = view.releases.at(-1);
  const releasable = blocking.length === 0;
  const released = view.releases.some((each) => each.kind === 'released' && each.withdrawn === null);
  const withdrawn = view.releases.findLast((each) => each.withdrawn !== null)?.withdrawn;
  const issue = async (kind: 'released' | 'findings-only') => {
    setBusy(true);
    setTrouble('');
    try {
      await send(`/api/jobs/${job.id}/releases`, { kind, person, units: units.id });
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
    setBusy(false);
  };
  const shown = latest
    ? `/api/releases/${latest.id}/html`
    : `/api/jobs/${job.id}/preview?units=${units.id}&person=${encodeURIComponent(person)}`;
  return (
    <>
      <header className={styles.head}>
        <Link href={`/jobs/${job.id}`} aria-label={`Back to the job of ${job.serial}`}>
          <Tag serial={job.serial} />
        </Link>
        <h1>{latest ? 'Paper of this unit' : 'Paper, not issued yet'}</h1>
      </header>
      <JobPlaces jobId={job.id} at="paper" />
      <div className={styles.layout}>
        <iframe
          key={shown}
          className={styles.paper}
          src={shown}
          title={latest ? 'Issued paper' : 'Preview of the paper'}
          suppressHydrationWarning
        />
        <aside className={styles.side} aria-label="Issue">
          {releasable ? (
            <>
              <h2>{released ? 'It is released' : 'It can be released'}</h2>
              <p>
                Every required step passed or is recorded, and none failed.{' '}
                {released ? 'A qualified person signs.' : `${person} issues it; a qualified person signs.`}
              </p>
              {!released && (
                <Button variant="contained" color="primary" disabled={busy} onClick={() => void issue('released')}>
                  Issue the release
                </Button>
              )}
            </>
          ) : (
            <>
              <h2>It cannot be released</h2>
              <p>These stand in the way:</p>
              <Bullets>
                {blocking.map(({ job: of, step, title, verdict }) => (
                  <ListItem key={`${step} ${title}`}>
                    <Link href={step === null ? `/jobs/${of}` : `/jobs/${of}/bench/${step}`}>{title}</Link>
                    {verdict && `: ${verdictWords[verdict].toLowerCase()}`}
                  </ListItem>
                ))}
              </Bullets>
              <Button variant="contained" color="primary" disabled={busy} onClick={() => void issue('findings-only')}>
                Issue findings only
              </Button>
            </>
          )}
          {withdrawn && !released && (
            <p className={styles.error}>The release of before no longer stands. {withdrawn.why}</p>
          )}
          {trouble && (
            <p className={styles.error} role="alert">
              {trouble}
            </p>
          )}
          {view.releases.length > 0 && <h2>Issued</h2>}
          {view.releases.map((release) => (
            <div key={release.id}>
              <p>
                {release.kind === 'released' ? 'Release' : 'Not released, findings only'},{' '}
                {when(release.issuedAt, 'paper')}, {release.person}
                {release.withdrawn && `. Withdrawn ${when(release.withdrawn.at, 'paper')}`}
              </p>
              <div className={styles.row}>
                <Button component="a" href={`/api/releases/${release.id}/pdf`}>
                  PDF
                </Button>
                <Button component="a" href={`/api/releases/${release.id}/html`}>
                  HTML
                </Button>
              </div>
            </div>
          ))}
        </aside>
      </div>
    </>
  );
}
