'use client';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect } from 'react';
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
          : view.conclusion !== null
            ? view.conclusion
            : done === 0
              ? 'Not begun'
              : `Step ${Math.min(done + 1, of)} of ${of}`,
  };
}

/** What a row says of its unit: serial, sheet and vehicle, and the promise. */
function RowHead({ job }: { readonly job: FloorJob }) {
  const when = useWhen();
  return (
    <>
      <h3>
        <b>{job.serial}</b> {`${job.sheet.name}, ${job.vehicle}`}
      </h3>
      {job.promisedAt && (
        <p className={styles.promise}>
          <span className={styles.unseen}>promised </span>
          {when(job.promisedAt, 'weekday-moment')}
        </p>
      )}
    </>
  );
}

/** A unit in its place, in two lines: who it is, and where it stands. */
function Row({ view, onEnd }: { readonly view: FloorCard; readonly onEnd: () => void }) {
  const { verdict, line } = standing(view);
  const { job, openRun } = view;
  const hold = openRun?.kind === 'recording' ? openRun.hold : null;
  const held = openRun?.title ?? '';
  const state = hold ? held : (view.likeliest ?? line);
  return (
    <li>
      <Link href={`/jobs/${job.id}`} className={styles.row}>
        {hold ? (
          <HoldRing title={`${job.serial}, ${held}`} seconds={hold.seconds} endsAt={hold.endsAt} onEnd={onEnd} />
        ) : (
          <UnitFace face={view.face} />
        )}
        <RowHead job={job} />
        <p className={styles.state}>
          <VerdictMark verdict={verdict} /> {state}
        </p>
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
      <Link href={`/jobs/${job.id}`} className={styles.row}>
        <CircularProgress size={26} aria-label="Being judged" className={styles.atWork} />
        <RowHead job={job} />
        <p className={styles.state}>What was measured is being judged.</p>
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

/** Everything that needs a person now, most urgent first. */
function Needs({ views }: { readonly views: readonly FloorCard[] }) {
  const needs = needsNow(views);
  return (
    <section className={styles.now} aria-label="Needs a person now">
      <h2>
        Needs somebody <span>{needs.length}</span>
      </h2>
      {needs.length === 0 ? (
        <p className={styles.empty}>
          <strong>Nothing needs you now</strong>
          <br />
          Book in a unit, or open one that waits.
        </p>
      ) : (
        <ul>
          {needs.map((item) => (
            <li key={`${item.href} ${item.title}`}>
              <Link href={item.href}>
                <strong>{item.title}</strong>
                <span>{item.detail}</span>
                <Going />
              </Link>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

interface Props {
  readonly floor: FloorView;
  /** Today's air, already in words, and the day. */
  readonly air: string;
  readonly today: string;
}

/** The day on one screen: what needs a person now, and every unit in its place. */
export function Floor({ floor, air, today }: Props) {
  const { shopName } = useShop();
  const { jobs: views, beingJudged, broken, left, judging } = floor;
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
        <p className={styles.air}>{air}</p>
      </PageHead>
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
      <div className={styles.board}>
        <Needs views={views} />
        <div className={styles.places}>
          {columns.map(({ place, title, empty }) => {
            const here = views.filter((view) => view.job.place === place);
            const pending = beingJudged.filter((job) => job.place === place);
            const count = here.length + pending.length;
            return (
              <section key={place} className={styles.place} aria-label={title}>
                <h2>
                  {title} <span>{count}</span>
                </h2>
                {count === 0 ? (
                  <p className={styles.empty}>{empty}</p>
                ) : (
                  <ul>
                    {here.map((view) => (
                      <Row key={view.job.id} view={view} onEnd={refresh} />
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
