'use client';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import ListItem from '@mui/material/ListItem';
import List from '@mui/material/List';
import Switch from '@mui/material/Switch';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { planOf, type AnyKind } from '@/core/contract/kind';
import type { Ledger } from '@/core/diagnosis/ledger';
import { beginsWith, type NextTest } from '@/core/diagnosis/next-test';
import { kindOfSheet } from '@/core/families/registry';
import { inSentence } from '@/core/wording/in-sentence';
import { nextTestText } from '@/core/wording/ledger-text';
import type { JobView } from '@/server/views/job-view';
import { JobPlaces } from '@/ui/job/job-places';
import jobStyles from '@/ui/job/job.module.css';
import { Tag } from '@/ui/parts/tag';
import { VerdictMark } from '@/ui/parts/verdict-mark';
import { send } from '@/ui/shell/request';
import { LedgerRows } from './ledger-rows';
import styles from './findings.module.css';

/** Where the yellow action leads: to the step, or to what is done once no more step is worth it. */
function actionOf(jobId: string, next: NextTest): { readonly href: string; readonly title: string } {
  switch (next.kind) {
    case 'test':
      return { href: `/jobs/${jobId}/bench/${beginsWith(next.worth)}`, title: 'Do this next' };
    case 'finish-plan':
      return { href: `/jobs/${jobId}/bench/${next.step}`, title: 'Do this next' };
    case 'certain':
      return next.hypothesis.kind === 'no-fault'
        ? { href: `/jobs/${jobId}/release`, title: 'To the paper' }
        : { href: `/jobs/${jobId}/repair`, title: 'Say what was done' };
    case 'open-it':
      return { href: `/jobs/${jobId}/repair`, title: 'Say what was done' };
  }
}

function NextBest({ view, kind, ledger }: { readonly view: JobView; readonly kind: AnyKind; readonly ledger: Ledger }) {
  const { order, why } = nextTestText(kind, ledger.next, ledger);
  const { href, title } = actionOf(view.job.id, ledger.next);
  const others = ledger.next.kind === 'test' ? ledger.next.others.slice(0, 4) : [];
  return (
    <section className={styles.next} aria-label="Do next">
      <div>
        <h2>{order}</h2>
        <p>{why}</p>
        {others.length > 0 && (
          <p>
            Or:{' '}
            {others.map((other, at) => (
              <span key={other.step}>
                {at > 0 && ', '}
                <Link href={`/jobs/${view.job.id}/bench/${beginsWith(other)}`}>
                  {inSentence(kind.steps.find((each) => each.id === other.step)?.title ?? other.step)}
                </Link>{' '}
                ({other.minutes} min)
              </span>
            ))}
            .
          </p>
        )}
      </div>
      <Button component={Link} href={href} variant="contained" color="primary">
        {title}
      </Button>
    </section>
  );
}

/** Whether the run sheet goes by what tells most. */
function OrderSwitch({ view }: { readonly view: JobView }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState('');
  const [worth, setWorth] = useState(view.job.orderedBy === 'worth');
  const change = async (asked: boolean) => {
    setTrouble('');
    setWorth(asked);
    try {
      await send(`/api/jobs/${view.job.id}/order`, { orderedBy: asked ? 'worth' : 'plan' }, 'PUT');
      router.refresh();
    } catch (error) {
      setWorth(!asked);
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <FormControlLabel
        control={<Switch checked={worth} onChange={(event) => void change(event.target.checked)} />}
        label="The run sheet goes by what tells most"
      />
      <p>
        Off, it keeps the order of the plan, where one step prepares another. Steps for safety come first in either.
      </p>
      {trouble && <p role="alert">{trouble}</p>}
    </>
  );
}

/** What may be the matter with a unit, what speaks for and against it, and what to do next. */
export function FindingsPage({ view }: { readonly view: JobView }) {
  const { job, ledger } = view;
  const kind = kindOfSheet(job.sheet);
  return (
    <>
      <header className={jobStyles.head}>
        <Tag serial={job.serial} />
        <div>
          <h1>Findings</h1>
          <p>
            {job.sheet.name}, job {job.number}
            {view.round > 1 ? `, round ${view.round}` : ''}
          </p>
        </div>
        <div className={jobStyles.spring} />
        <VerdictMark verdict={view.verdict} />
      </header>
      <JobPlaces jobId={job.id} at="findings" />
      {!ledger || !kind ? (
        <p role="status">
          {view.ledgerTrouble === 'broken'
            ? 'The ranking broke; the server’s log says why. Steps and verdicts are not touched by it.'
            : 'Nobody has worked out yet what the faults of this kind of unit do, so that none can be ranked.'}
        </p>
      ) : (
        <div className={styles.layout}>
          <div className={styles.main}>
            <section aria-label="Fault ledger">
              <LedgerRows view={view} kind={kind} ledger={ledger} />
            </section>
            <NextBest view={view} kind={kind} ledger={ledger} />
          </div>
          <aside className={jobStyles.side}>
            <section className={jobStyles.panel}>
              <h2>What it rests on</h2>
              <p>
                {ledger.findings === 0
                  ? 'Nothing was measured, looked at or said yet: the list shows how common each fault is.'
                  : `${ledger.findings} findings: steps, points that were looked at, and what the driver noticed or did not.`}
              </p>
              {!ledger.borneOut && (
                <p>
                  How sure the ranking of this plan is was held against units of its own models only: what comes first
                  leads, and is not certain. Measure what would settle it, and look before you replace.
                </p>
              )}
              {ledger.pairsTried && <p>No single fault explains them well, so that two at once were tried as well.</p>}
              {ledger.unseen.length > 0 && (
                <>
                  <p>No step of this plan would show these, whatever it found:</p>
                  <List className={styles.unseen}>
                    {ledger.unseen.map((id) => (
                      <ListItem key={id}>{kind.model.faults.find((fault) => fault.id === id)?.title ?? id}</ListItem>
                    ))}
                  </List>
                </>
              )}
              <p>
                It begins with <Link href="/settings/prevalence">how common each fault is</Link> in this workshop.
              </p>
              <p>
                A ranking is no verdict: the limits decide what passes, the maker’s data win, and what is opened is
                looked at before it is replaced.
              </p>
            </section>
            {!planOf(kind, job.plan).oneLog && (
              <section className={jobStyles.panel}>
                <h2>Order of the run sheet</h2>
                <OrderSwitch view={view} />
              </section>
            )}
          </aside>
        </div>
      )}
    </>
  );
}
