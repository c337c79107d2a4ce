'use client';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import type { Place } from '@/data/jobs';
import type { BrokenJob, FloorCard, FloorJob, FloorView } from '@/server/views/floor-view';
import { Key } from '@/ui/parts/key';
import { UnitFace } from '@/ui/parts/unit-face';
import { useWhen } from '@/ui/parts/when';
import { VerdictMark, type ShownVerdict } from '@/ui/parts/verdict-mark';
import { PageHead } from '@/ui/shell/frame';
import { Going } from '@/ui/shell/going';
import { ShellControls } from '@/ui/shell/key-map';
import { useShop } from '@/ui/shell/shop-context';
import { HoldRing } from './hold-ring';
import { needsNow } from './needs-now';
import styles from './floor.module.css';

// Seldom there: a floor that needs none of them does not wait for them.
const LinearProgress = dynamic(() => import('@mui/material/LinearProgress'));
const UndoList = dynamic(async () => (await import('@/ui/parts/undo-list')).UndoList);
const AskZone = dynamic(async () => (await import('./ask-zone')).AskZone);
const FloorNotices = dynamic(async () => (await import('./floor-notices')).FloorNotices);

const columns: readonly { readonly place: Place; readonly title: string; readonly empty: string }[] = [
  { place: 'waiting', title: 'Waiting for the bench', empty: 'Nothing waits. A unit booked in stands here.' },
  { place: 'on-bench', title: 'On the bench', empty: 'The bench is free. Open a waiting unit to mount it.' },
  { place: 'waiting-parts', title: 'Waiting for parts', empty: 'No unit waits for parts.' },
  { place: 'ready', title: 'Ready', empty: 'Released units stand here until they are fetched.' },
];

/** One line that says where the unit stands. */
function standing(view: FloorCard): { verdict: ShownVerdict; line: string } {
  const { done, of } = view.steps;
  if (view.failed !== null) return { verdict: 'fail', line: view.failed };
  return {
    verdict: view.verdict,
    line:
      done === of
        ? 'Every step done'
        : view.openRun
          ? view.openRun.title
          : done === 0
            ? 'Not begun'
            : `Step ${Math.min(done + 1, of)} of ${of}`,
  };
}

function Card({ view, onEnd }: { readonly view: FloorCard; readonly onEnd: () => void }) {
  const { verdict, line } = standing(view);
  const { job, openRun } = view;
  const hold = openRun?.kind === 'recording' ? openRun.hold : null;
  const held = openRun?.title ?? '';
  const when = useWhen();
  return (
    <li>
      <Link href={`/jobs/${job.id}`} className={styles.card}>
        {hold ? (
          <HoldRing title={`${job.serial}, ${held}`} seconds={hold.seconds} endsAt={hold.endsAt} onEnd={onEnd} />
        ) : (
          <UnitFace face={view.face} />
        )}
        <div>
          <h3>
            {job.serial} · {job.sheet.name}
          </h3>
          <p>
            {job.vehicle}
            {job.complaint ? `. ${job.complaint}` : ''}
            {job.promisedAt ? `. Promised ${when(job.promisedAt, 'weekday-moment')}` : ''}
          </p>
          <VerdictMark verdict={verdict} />
          <p className={styles.line}>{hold ? held : line}</p>
          {view.likeliest !== null && <p className={styles.likeliest}>{view.likeliest}</p>}
        </div>
        <Going />
      </Link>
    </li>
  );
}

/** The floor is looked at anew every few seconds while anything is being recorded, and sooner while it is judged anew, ms. */
const lookEvery = 5000;
const lookEveryJudging = 1000;

function useWhileChanging({ jobs, judging, beingJudged }: FloorView, router: ReturnType<typeof useRouter>): void {
  const recording = jobs.some((view) => view.openRun?.kind === 'recording');
  const every = judging || beingJudged.length > 0 ? lookEveryJudging : recording ? lookEvery : null;
  useEffect(() => {
    if (every === null) return;
    const timer = setInterval(() => router.refresh(), every);
    return () => clearInterval(timer);
  }, [every, router]);
}

/** A unit that is being judged: what was brought may be a log of an hour. The floor does not wait for it. */
function BeingJudged({ job }: { readonly job: FloorJob }) {
  return (
    <li>
      <Link href={`/jobs/${job.id}`} className={styles.card}>
        <CircularProgress size={40} aria-label="Being judged" className={styles.atWork} />
        <div>
          <h3>
            {job.serial} · {job.sheet.name}
          </h3>
          <p>{job.vehicle}</p>
          <p className={styles.line}>What was measured is being judged.</p>
        </div>
        <Going />
      </Link>
    </li>
  );
}

/** A job that cannot be read: said in its place, so that nobody looks for it in vain. */
function BrokenCard({ job }: { readonly job: BrokenJob }) {
  return (
    <li className={styles.broken}>
      <h3>
        {job.number === null ? 'A job' : `Job ${job.number}`}
        {job.serial && ` · ${job.serial}`}
      </h3>
      <p>It cannot be shown. {job.why} The others are not touched by it.</p>
    </li>
  );
}

/** So many needs fit the strip at once; the rest is behind a word that counts them. */
const inTheStrip = 3;

interface Props {
  readonly floor: FloorView;
  /** Today's air, already in words, and the day. */
  readonly air: string;
  readonly today: string;
}

/** The day: what needs a person now, then the places a unit can be. */
export function Floor({ floor, air, today }: Props) {
  const { shopName } = useShop();
  const { jobs: views, beingJudged, broken, left, judging } = floor;
  const everything = needsNow(views);
  const [whole, setWhole] = useState(false);
  const now = whole ? everything : everything.slice(0, inTheStrip);
  const more = everything.length - inTheStrip;
  const router = useRouter();
  // A moment later, so that the recorder has closed the run.
  const refresh = useCallback(() => void setTimeout(() => router.refresh(), 1200), [router]);
  useWhileChanging(floor, router);
  return (
    <>
      <PageHead
        title={`${shopName}, ${today}`}
        actions={
          <>
            <ShellControls />
            <Button component={Link} href="/book-in" variant="contained" color="primary">
              Book in a unit <Key>B</Key>
            </Button>
          </>
        }
      >
        <p>{air}</p>
      </PageHead>
      <section className={styles.now} aria-label="Needs a person now">
        {now.length === 0 ? (
          <div>
            <strong>Nothing needs you now</strong>
            <span>Book in a unit, or open one below.</span>
          </div>
        ) : (
          now.map((item) => (
            <Link key={`${item.href} ${item.title}`} href={item.href}>
              <strong>{item.title}</strong>
              <span>{item.detail}</span>
              <Going />
            </Link>
          ))
        )}
      </section>
      {more > 0 && (
        <Button size="small" className={styles.more} aria-expanded={whole} onClick={() => setWhole(!whole)}>
          {whole ? 'Show the three most urgent' : `${more} more ${more === 1 ? 'needs' : 'need'} somebody`}
        </Button>
      )}
      {(floor.unreadable.length > 0 || floor.clockRanBack.length > 0) && (
        <FloorNotices unreadable={floor.unreadable} clockRanBack={floor.clockRanBack} />
      )}
      {!floor.zoneSet && <AskZone />}
      {judging && (
        <section className={styles.judging} aria-label="Judged anew">
          <p role="status">
            Another method than before judges here now: {judging.done} of {judging.of} units are judged anew, the others
            stand as they were until then. Papers that were issued stay as they are.
          </p>
          <LinearProgress
            variant="determinate"
            value={(100 * judging.done) / judging.of}
            aria-label="Judged anew so far"
          />
        </section>
      )}
      {broken.length > 0 && (
        <section aria-label="Cannot be read" className={styles.brokenList}>
          <ul>
            {broken.map((job) => (
              <BrokenCard key={job.id} job={job} />
            ))}
          </ul>
        </section>
      )}
      <div className={styles.columns}>
        {columns.map(({ place, title, empty }) => {
          const here = views.filter((view) => view.job.place === place);
          const pending = beingJudged.filter((job) => job.place === place);
          const count = here.length + pending.length;
          return (
            <section key={place} className={styles.column} aria-label={title}>
              <h2>
                {title} <span>{count}</span>
              </h2>
              {count === 0 ? (
                <p className={styles.empty}>{empty}</p>
              ) : (
                <ul>
                  {here.map((view) => (
                    <Card key={view.job.id} view={view} onEnd={refresh} />
                  ))}
                  {pending.map((job) => (
                    <BeingJudged key={job.id} job={job} />
                  ))}
                </ul>
              )}
            </section>
          );
        })}
      </div>
      {left.length > 0 && (
        <section className={styles.left} aria-label="Left the floor within the day">
          <h2>Left the floor within the day</h2>
          <UndoList
            undoable={left.map((each) => each.undoable)}
            of={left.map(({ number, serial }) => `Job ${number}, ${serial}`)}
          />
        </section>
      )}
    </>
  );
}
