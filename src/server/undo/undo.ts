import { findAct, listActs, markUndone, recordAct, type Act } from '@/data/acts';
import { moveJob, places, setTakenOut, type Job, type Place } from '@/data/jobs';
import { listRepairs, undoRepair } from '@/data/repairs';
import { findRun, listEveryRun, listRuns, setRunState, strikeOutRun } from '@/data/runs';
import { RequestRefused } from '../http/refused';
import { jobNamed, sheetOf, stillOpen } from '../jobs/job-context';
import { refuseStranger } from '../people';
import { reviewRelease } from '../release/review-release';
import { dayAgo } from './day-ago';

/** Something that was done within the day and can be taken back. */
export interface Undoable {
  readonly act: number;
  readonly what: 'discarded' | 'struck-out' | 'moved' | 'taken-out' | 'repaired';
  /** Step of the run, or the place that the job was moved to; null for the job itself. */
  readonly of: { readonly id: string; readonly title: string } | null;
  readonly person: string;
  readonly at: string;
}

const placeWords: Readonly<Record<Place, string>> = {
  waiting: 'waiting for the bench',
  'on-bench': 'on the bench',
  'waiting-parts': 'waiting for parts',
  ready: 'ready',
  gone: 'fetched',
};

const isPlace = (text: string | null): text is Place => places.some((place) => place === text);

/** What was done to a job within the day and can be taken back, latest first. Of moves only the last one can. */
export async function undoableOf(job: Job): Promise<readonly Undoable[]> {
  const since = dayAgo();
  const acts = (await listActs(job.id)).filter((act) => act.at >= since && act.undoneAt === null).reverse();
  const moved = acts.find((act) => act.act === 'moved');
  const found: Undoable[] = [];
  for (const act of acts) {
    const of = await undoableAct(act, job, moved);
    if (of) found.push(of);
  }
  return found;
}

async function undoableAct(act: Act, job: Job, lastMove: Act | undefined): Promise<Undoable | null> {
  const { person, at } = act;
  switch (act.act) {
    case 'discarded':
    case 'struck-out': {
      const run = act.subject === null ? undefined : await findRun(act.subject);
      if (!run) return null;
      const stands =
        act.act === 'discarded' ? run.state === 'discarded' && act.before !== null : run.struckOut !== null;
      const title = sheetOf(job).kind.steps.find((step) => step.id === run.step)?.title ?? run.step;
      return stands ? { act: act.id, what: act.act, of: { id: run.step, title }, person, at } : null;
    }
    case 'moved': {
      const { detail } = act;
      return act === lastMove && isPlace(act.before) && isPlace(detail) && job.place === detail
        ? { act: act.id, what: 'moved', of: { id: detail, title: placeWords[detail] }, person, at }
        : null;
    }
    case 'repaired': {
      const last = (await listRepairs(job.id)).at(-1);
      const since = (await listEveryRun(job.id)).some(
        (run) => !last?.runsBefore.includes(run.id) && run.state !== 'discarded',
      );
      const of = { id: act.subject ?? '', title: act.detail ?? '' };
      return last?.id === act.subject && !since ? { act: act.id, what: 'repaired', of, person, at } : null;
    }
    case 'taken-out':
      return job.takenOutAt === null ? null : { act: act.id, what: 'taken-out', of: null, person, at };
    default:
      return null;
  }
}

/** Takes an act back, once: whoever comes second is told. */
export async function undoAct(id: number, person: string): Promise<void> {
  const act = await findAct(id);
  if (!act) throw new RequestRefused(404, 'This is not on record.');
  await refuseStranger(person);
  const job = await jobNamed(act.jobId);
  const undoable = (await undoableOf(job)).find((each) => each.act === id);
  if (!undoable) throw new RequestRefused(409, 'This cannot be taken back any more: something else was done since.');
  if (undoable.what === 'discarded') await refuseWhileOpen(job);
  if (!(await markUndone(id, new Date().toISOString())))
    throw new RequestRefused(409, 'This has been taken back already.');
  await restore(act, undoable.what);
  await recordAct({ jobId: job.id, subject: act.subject, act: 'brought-back', person, detail: undoable.what });
  if (undoable.what === 'struck-out' || undoable.what === 'taken-out') await reviewRelease(job.id, { person });
}

/** One run at a time a job: what comes back is finished and waits to be kept. */
async function refuseWhileOpen(job: Job): Promise<void> {
  const open = (await listRuns(job.id)).find((run) => run.state === 'recording' || run.state === 'complete');
  if (open) throw stillOpen(job, open.step);
}

async function restore(act: Act, what: Undoable['what']): Promise<void> {
  switch (what) {
    case 'discarded':
      return setRunState(act.subject ?? '', 'complete');
    case 'struck-out':
      return strikeOutRun(act.subject ?? '', null);
    case 'moved':
      return moveJob(act.jobId, act.before as Place);
    case 'repaired':
      return undoRepair(act.subject ?? '', new Date().toISOString());
    case 'taken-out':
      return setTakenOut(act.jobId, null);
  }
}
