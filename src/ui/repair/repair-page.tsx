'use client';
import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import Link from 'next/link';
import type { AnyKind } from '@/core/contract/kind';
import { kindOfSheet } from '@/core/families/registry';
import { dueWords, workText } from '@/core/wording/repair-text';
import type { JobView } from '@/server/views/job-view';
import { JobPlaces } from '@/ui/job/job-places';
import jobStyles from '@/ui/job/job.module.css';
import { Bullets } from '@/ui/parts/bullets';
import { Tag } from '@/ui/parts/tag';
import { VerdictMark, VerdictShape } from '@/ui/parts/verdict-mark';
import { useWhen } from '@/ui/parts/when';
import { BeforeAfter } from './before-after';
import { RepairForm } from './repair-form';
import styles from './repair.module.css';

function titleOf(kind: AnyKind, step: string): string {
  return kind.steps.find((each) => each.id === step)?.title ?? step;
}

/** How far the proof has come, in one sentence, and what is done next. */
function Standing({ view, kind }: { readonly view: JobView; readonly kind: AnyKind }) {
  const { verification, job } = view;
  const bench = (step: string) => `/jobs/${job.id}/bench/${step}`;
  const names = (steps: readonly string[]) => steps.map((step) => titleOf(kind, step)).join(', ');
  const said = (title: string, text: string, action?: ReactNode) => (
    <section className={styles.standing} aria-label="Proof of the repair">
      <div>
        <h2>{title}</h2>
        <p>{text}</p>
      </div>
      {action}
    </section>
  );
  const primary = (href: string, label: string) => (
    <Button component={Link} href={href} variant="contained" color="primary">
      {label}
    </Button>
  );
  switch (verification.kind) {
    case 'nothing-repaired':
      return null;
    case 'to-do': {
      const first = view.nextStep ?? verification.left[0].step;
      return said(
        `Prove it: ${verification.left.length} ${verification.left.length === 1 ? 'step' : 'steps'}, about ${verification.minutes} min`,
        'What failed, what the work can change, and what closes every repair is done again. Everything else stands.',
        primary(bench(first), `To the bench: ${titleOf(kind, first).toLowerCase()}`),
      );
    }
    case 'not-verified':
      return said(
        'Not mended',
        `Since the repair these failed: ${names(verification.failed)}. The findings name what is left.`,
        primary(`/jobs/${job.id}/findings`, 'To the findings'),
      );
    case 'undecided':
      return said(
        'Not proved: not decided',
        `Nothing failed, but these cannot be told from their limits yet: ${names(verification.steps)}.`,
        primary(bench(verification.steps[0]), `Again: ${titleOf(kind, verification.steps[0]).toLowerCase()}`),
      );
    case 'worse-instruments':
      return said(
        'Passed, but read with worse instruments than before',
        `${names(verification.steps)}: do it again with what it was read with before, or better. Until then nothing is proved.`,
        primary(bench(verification.steps[0]), `Again: ${titleOf(kind, verification.steps[0]).toLowerCase()}`),
      );
    case 'verified':
      return said(
        'Verified',
        'Every step that was due since the repair passed, with instruments no worse than before.',
        primary(`/jobs/${job.id}/release`, 'To the paper'),
      );
  }
}

/** What the last repair made due, step by step. */
function Due({ view, kind }: { readonly view: JobView; readonly kind: AnyKind }) {
  if (view.due.length === 0) return null;
  return (
    <section aria-label="What is done again">
      <h2>What is done again, round {view.round}</h2>
      <List component="ol" className={jobStyles.sheet}>
        {view.due.map(({ step, because }) => {
          const row = view.steps.find((each) => each.id === step);
          const verdict = row?.evaluation.verdict ?? 'not-run';
          return (
            <ListItem key={step} className={styles.due}>
              <VerdictShape verdict={verdict} />
              <span>
                <strong>{titleOf(kind, step)}</strong>
                <small>
                  {dueWords[because]}
                  {verdict === 'not-run' && row ? `, ${row.minutes} min` : ''}
                </small>
              </span>
              <Link href={`/jobs/${view.job.id}/bench/${step}`}>{verdict === 'not-run' ? 'Do it' : 'Look at it'}</Link>
            </ListItem>
          );
        })}
      </List>
    </section>
  );
}

/** What was done to a unit, what has to be done again to prove it, and what it changed. */
export function RepairPage({ view }: { readonly view: JobView }) {
  const when = useWhen();
  const { job } = view;
  const kind = kindOfSheet(job.sheet);
  if (!kind) return null;
  return (
    <>
      <header className={jobStyles.head}>
        <Tag serial={job.serial} />
        <div>
          <h1>Repair and proof</h1>
          <p>
            {job.sheet.name}, job {job.number}, round {view.round}
          </p>
        </div>
        <div className={jobStyles.spring} />
        <VerdictMark verdict={view.verdict} />
      </header>
      <JobPlaces jobId={job.id} at="repair" />
      <div className={styles.layout}>
        <Standing view={view} kind={kind} />
        <Due view={view} kind={kind} />
        <BeforeAfter view={view} />
        {view.repairs.length > 0 && (
          <section aria-label="What was done">
            <h2>What was done</h2>
            {view.repairs.map((repair, at) => (
              <div key={repair.id} className={jobStyles.panel}>
                <p>
                  After round {at + 1}: {repair.person}, {when(repair.at, 'moment')}
                </p>
                <Bullets>
                  {repair.work.map((work) => (
                    <ListItem key={work.part}>{workText(kind, work)}</ListItem>
                  ))}
                </Bullets>
                {repair.note !== '' && <p>{repair.note}</p>}
              </div>
            ))}
          </section>
        )}
        {job.takenOutAt === null && <RepairForm key={view.repairs.length} view={view} kind={kind} />}
      </div>
    </>
  );
}
