'use client';
import List from '@mui/material/List';
import ListItem from '@mui/material/ListItem';
import { Bullets } from '@/ui/parts/bullets';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { remarksOf } from '@/core/judging/evaluate-unit';
import { analysisProblemText } from '@/core/wording/problem-text';
import { hypothesisTitle, nextTestText, probabilityText } from '@/core/wording/ledger-text';
import { verdictWords } from '@/core/wording/verdict-words';
import type { JobView, RunSummary, StepView } from '@/server/views/job-view';
import { Tag } from '@/ui/parts/tag';
import { UndoList } from '@/ui/parts/undo-list';
import { facePaths } from '@/core/pictures/face-paths';
import { UnitFace } from '@/ui/parts/unit-face';
import { useWhen } from '@/ui/parts/when';
import { VerdictMark, VerdictShape } from '@/ui/parts/verdict-mark';
import { send } from '@/ui/shell/request';
import { useShop } from '@/ui/shell/shop-context';
import { OverdueNote } from '@/ui/parts/overdue-note';
import { RecordNotices } from './record-notices';
import { JobPlaces } from './job-places';
import { CheckTable } from './check-table';
import { optionTitle, writtenKey } from '@/core/procedure/look-step';
import { kindOfSheet } from '@/core/families/registry';
import { inSentence } from '@/core/wording/in-sentence';
import styles from './job.module.css';

function RunLine({ run }: { readonly run: RunSummary }) {
  const when = useWhen();
  const router = useRouter();
  const { person } = useShop();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const [trouble, setTrouble] = useState('');
  const strike = async () => {
    try {
      await send(`/api/runs/${run.id}`, { action: 'strike-out', reason, person });
      setAsking(false);
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div className={styles.run}>
      <span className={run.struckOut === null ? undefined : styles.struck}>
        {when(run.startedAt, 'moment')}, {run.person}
        {run.ofThisRound ? '' : `, round ${run.round}: before the repair`}
      </span>
      {run.keptBy !== null && run.keptBy !== run.person && <span>kept by {run.keptBy}</span>}
      {run.struckOut !== null && (
        <span>
          struck out{run.struckOutBy ? ` by ${run.struckOutBy}` : ''}: {run.struckOut}
        </span>
      )}
      {run.struckOut === null && !asking && (
        <Button size="small" variant="text" onClick={() => setAsking(true)}>
          strike out
        </Button>
      )}
      {asking && (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void strike();
          }}
        >
          <TextField
            label="Why it does not count"
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            error={trouble !== ''}
            helperText={trouble}
            autoFocus
          />
          <Button type="submit">Strike out</Button>
          <Button onClick={() => setAsking(false)}>Leave it</Button>
        </form>
      )}
    </div>
  );
}

function Findings({ view, step }: { readonly view: JobView; readonly step: StepView }) {
  const definition = kindOfSheet(view.job.sheet)?.steps.find((each) => each.id === step.id);
  if (definition?.kind !== 'look' || !step.evaluation.findings) return null;
  const { findings } = step.evaluation;
  return (
    <Bullets>
      {definition.feeds.look.points.map((point) => (
        <ListItem key={point.id}>
          {point.title}:{' '}
          {definition.feeds.look.options
            .filter((option) => option.id === findings[point.id])
            .map((option) => optionTitle(point, option).toLowerCase())}
          {findings[writtenKey(point.id)] ? `: ${findings[writtenKey(point.id)]}` : ''}
        </ListItem>
      ))}
    </Bullets>
  );
}

function StepRow({ view, step, at }: { readonly view: JobView; readonly step: StepView; readonly at: number }) {
  const { units } = useShop();
  const { verdict, characteristics } = step.evaluation;
  const done = verdict !== 'not-run';
  const notes = remarksOf(step.evaluation);
  return (
    <ListItem className={view.nextStep === step.id ? styles.next : undefined}>
      <details open={verdict === 'fail' || verdict === 'undecided'}>
        <summary>
          <b>{at + 1}</b>
          <VerdictShape verdict={verdict} />
          <span>
            <strong>{step.title}</strong>
            {done ? verdictWords[verdict] : step.shut ? 'Shut' : `${step.minutes} min`}
          </span>
        </summary>
        <div className={styles.detail}>
          <p>{step.why}</p>
          {step.shut && <p>{step.shut.why}</p>}
          {characteristics.length > 0 && <CheckTable evaluation={step.evaluation} units={units} />}
          <Findings view={view} step={step} />
          {notes.map((note, i) => (
            <p key={`${note.code}${i}`}>{analysisProblemText(note, units)}</p>
          ))}
          {step.kind !== 'look' && step.runs.map((run) => <RunLine key={run.id} run={run} />)}
        </div>
      </details>
      <Link
        className={styles.toBench}
        href={`/jobs/${view.job.id}/bench/${step.id}`}
        aria-label={`${step.title}: ${done ? 'look at it' : 'do it'}`}
      >
        {done ? 'Look at it' : 'Do it'}
      </Link>
    </ListItem>
  );
}

/** What it most likely is, and what would tell more, in two lines. */
function FindingsPanel({ view }: { readonly view: JobView }) {
  const kind = kindOfSheet(view.job.sheet);
  if (!view.ledger || !kind) return null;
  const [head] = view.ledger.rows;
  const { order, why } = nextTestText(kind, view.ledger.next, view.ledger);
  return (
    <section className={styles.panel} aria-label="Findings">
      <h2>Findings</h2>
      <p>
        {view.ledger.findings === 0 ? (
          'Nothing was measured, looked at or said yet.'
        ) : (
          <b>
            {hypothesisTitle(kind, head.hypothesis)}: {probabilityText(head.probability, view.ledger)}
          </b>
        )}
      </p>
      <p>
        {order}. {why}
      </p>
      <Link href={`/jobs/${view.job.id}/findings`}>What speaks for it and against it</Link>
    </section>
  );
}

function behindTitle({ state }: NonNullable<JobView['behind']>): string {
  switch (state.kind) {
    case 'concluded':
      return `Behind it: ${inSentence(state.title)}`;
    case 'open':
      return 'What is behind it is being looked through';
    case 'unreadable':
      return 'What was found behind it cannot be read';
  }
}

/** Where an inquiry goes on that was handed on; null where it was not, or what is behind is found good. */
function handedOn({ behind }: JobView): { readonly title: string; readonly href: string } | null {
  if (!behind || (behind.state.kind === 'concluded' && behind.state.clears)) return null;
  return { title: 'To what is behind it', href: `/jobs/${behind.id}` };
}

/** One unit's story: run sheet, face, paper. */
export function JobPage({ view }: { readonly view: JobView }) {
  const when = useWhen();
  const router = useRouter();
  const { person } = useShop();
  const { job } = view;
  const noticed = (kindOfSheet(job.sheet)?.symptoms ?? []).flatMap(({ id, title }) =>
    job.symptoms.includes(id) ? [title] : [],
  );
  const inBook = job.takenOutAt === null;
  // Nothing is to be done to a job that is out of the book but to bring it back.
  const wanted = inBook ? view.steps.find((step) => step.id === view.nextStep) : undefined;
  // Once it is none of this unit’s, the inquiry goes on behind it.
  const handOn = inBook && !view.openRun ? handedOn(view) : null;
  const next = handOn ? undefined : wanted;
  const [trouble, setTrouble] = useState('');
  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble('');
    try {
      await work();
      router.refresh();
    } catch (error) {
      setTrouble(error instanceof Error ? error.message : String(error));
    }
  };
  const move = (place: string) => attempt(() => send(`/api/jobs/${job.id}/place`, { place, person }, 'PUT'));
  const takeOut = () =>
    attempt(async () => {
      await send(`/api/jobs/${job.id}`, { person }, 'DELETE');
      router.push('/');
    });
  const notMended = inBook && !next && view.verification.kind === 'not-verified';
  const paperFirst = inBook && !next && !handOn && !notMended && job.place !== 'ready';
  return (
    <>
      <header className={styles.head}>
        <Tag serial={job.serial} />
        <div>
          <h1>{job.sheet.name}</h1>
          <p>
            {view.familyTitle} from {job.vehicle}, job {job.number}
            {view.round > 1 ? `, round ${view.round}` : ''}
            {job.promisedAt ? `, promised ${when(job.promisedAt, 'weekday-moment')}` : ''}
          </p>
        </div>
        <div className={styles.spring} />
        <VerdictMark verdict={view.verdict} />
        {next && (
          <Button component={Link} href={`/jobs/${job.id}/bench/${next.id}`} variant="contained" color="primary">
            {view.openRun ? 'Go on with' : job.plan === 'vehicle' ? 'To the vehicle:' : 'To the bench:'}{' '}
            {next.title.toLowerCase()}
          </Button>
        )}
        {handOn && (
          <Button component={Link} href={handOn.href} variant="contained" color="primary">
            {handOn.title}
          </Button>
        )}
        {paperFirst && (
          <Button component={Link} href={`/jobs/${job.id}/release`} variant="contained" color="primary">
            {view.blocking.length === 0 ? 'Release it' : 'Issue the findings'}
          </Button>
        )}
        {notMended && (
          <Button component={Link} href={`/jobs/${job.id}/findings`} variant="contained" color="primary">
            What is left: the findings
          </Button>
        )}
      </header>
      <JobPlaces jobId={job.id} at="sheet" />
      {job.takenOutAt !== null && (
        <p className={styles.conclusion} role="status">
          This job was taken out of the book {when(job.takenOutAt, 'moment')}. Nothing can be added to it until it is
          brought back.
        </p>
      )}
      {view.conclusion && (
        <section className={styles.conclusion} aria-label="Where the inquiry ends">
          <h2>{view.conclusion.title}</h2>
          <p>{view.conclusion.advice}</p>
          {view.conclusion.handsTo && !view.behind && inBook && (
            <p>
              <Link href={`/book-in?behind=${job.id}`}>Look behind it</Link>: the same vehicle, in the same inquiry.
            </p>
          )}
        </section>
      )}
      {view.behind && (
        <section className={styles.conclusion} aria-label="Behind the unit">
          <h2>{behindTitle(view.behind)}</h2>
          <p>
            {view.behind.state.kind === 'concluded' && view.behind.state.advice}{' '}
            <Link href={`/jobs/${view.behind.id}`}>Job {view.behind.number}</Link>
          </p>
        </section>
      )}
      {view.inFront && (
        <p className={styles.conclusion}>
          This looks behind <Link href={`/jobs/${view.inFront.id}`}>job {view.inFront.number}</Link> (
          {view.inFront.serial}); what it finds is said there too.
        </p>
      )}
      <div className={styles.layout}>
        <section aria-label="Run sheet">
          <OverdueNote overdue={view.overdue} />
          <RecordNotices view={view} />
          {view.rejudged.map(({ by, at, what }) => (
            <p key={at} className={styles.rejudged}>
              {by} judged this job anew, {when(at, 'moment')}: {what}. Papers that were issued stay as they are.
            </p>
          ))}
          {view.corrected.map(({ by, at, what }) => (
            <p key={at} className={styles.rejudged}>
              {by} corrected what was booked, {when(at, 'moment')}: {what}.
            </p>
          ))}
          {job.orderedBy === 'worth' && (
            <p className={styles.rejudged}>
              {view.ledger?.next.kind === 'test'
                ? 'In the order of what each step would tell, by the '
                : 'In the plan’s own order: no step would tell more, by the '}
              <Link href={`/jobs/${job.id}/findings`}>findings</Link>. Papers keep the order of the plan.
            </p>
          )}
          <List component="ol" className={styles.sheet}>
            {view.steps.map((step, at) => (
              <StepRow key={step.id} view={view} step={step} at={at} />
            ))}
          </List>
        </section>
        <aside className={styles.side}>
          <section className={`${styles.panel} ${styles.face}`} aria-label="Face">
            <UnitFace face={facePaths(view.face, { width: 308, height: 200 }, view.cameBack?.face)} />
            {view.cameBack && (
              <p>
                It was here before: <Link href={`/jobs/${view.cameBack.id}`}>job {view.cameBack.number}</Link>,{' '}
                {when(view.cameBack.at, 'day')}, {verdictWords[view.cameBack.verdict].toLowerCase()}.
                {view.cameBack.face && ' Dotted: what it drew then.'}
              </p>
            )}
            <p>{job.complaint || 'No complaint stated.'}</p>
            {noticed.length > 0 && <p>Noticed: {noticed.join(', ').toLowerCase()}.</p>}
          </section>
          <FindingsPanel view={view} />
          <section className={styles.panel}>
            <h2>Paper</h2>
            {view.blocking.length > 0 ? (
              <p>
                A release waits for:{' '}
                {view.blocking
                  .map(({ title, verdict }) => (verdict ? `${title} (${verdictWords[verdict].toLowerCase()})` : title))
                  .join(', ')}
                .
              </p>
            ) : (
              <p>Every required step is done. The unit can be released.</p>
            )}
            {view.releases.length > 0 && (
              <Bullets>
                {view.releases.map((release) => (
                  <ListItem key={release.id}>
                    <a href={`/api/releases/${release.id}/pdf`}>
                      {release.kind === 'released' ? 'Release' : 'Findings'}, {when(release.issuedAt, 'moment')}
                    </a>
                    , {release.person}
                    {release.withdrawn && ` (withdrawn ${when(release.withdrawn.at, 'moment')})`}
                  </ListItem>
                ))}
              </Bullets>
            )}
            {!paperFirst && (
              <Button component={Link} href={`/jobs/${job.id}/release`}>
                Release or findings
              </Button>
            )}
          </section>
          <section className={styles.panel}>
            <h2>Where it is</h2>
            <TextField
              select
              label="Place"
              value={job.place}
              onChange={(event) => void move(event.target.value)}
              slotProps={{ select: { native: true } }}
            >
              <option value="waiting">Waiting for the bench</option>
              <option value="on-bench">On the bench</option>
              <option value="waiting-parts">Waiting for parts</option>
              <option value="ready">Ready</option>
              <option value="gone">Fetched</option>
            </TextField>
            {trouble && <p role="alert">{trouble}</p>}
            {inBook && (
              <Button component={Link} href={`/jobs/${job.id}/booking`}>
                Correct what was booked
              </Button>
            )}
            {inBook && view.openRun === null && (
              <Button onClick={() => void takeOut()}>Booked in by mistake: take it out</Button>
            )}
          </section>
          {view.undoable.length > 0 && (
            <section className={styles.panel}>
              <h2>Done within the day</h2>
              <UndoList undoable={view.undoable} />
            </section>
          )}
        </aside>
      </div>
    </>
  );
}
