import { jobsActedOn } from '@/data/acts';
import { listJobs, type Job } from '@/data/jobs';
import { dayAgo } from '../undo/day-ago';
import { undoableOf, type Undoable } from '../undo/undo';
import { ledgerOr } from '../diagnosis/job-ledger';
import { evaluateJob, evaluationOnRecord, type JobEvaluation } from './evaluate-job';
import { sheetOf, siteNow } from './job-context';
import { behindOf } from './behind';
import { blockingOf } from './blocking';
import { conclusionOf, likeliestOf, openRunOf, overdueOf, type JobView, type StepView } from './job-view';
import { keptFace, type Face } from './unit-face';
import { judgeAnew, judgingAnew, type JudgingAnew } from './judge-anew';

/** What the floor shows of a job, and no more: it is there at once for every unit in the house. */
export interface FloorCard extends Pick<
  JobView,
  'verdict' | 'openRun' | 'conclusion' | 'blocking' | 'overdue' | 'likeliest'
> {
  readonly job: Pick<Job, 'id' | 'serial' | 'vehicle' | 'complaint' | 'promisedAt' | 'place'> & {
    readonly sheet: Pick<Job['sheet'], 'name'>;
  };
  readonly face: Face;
  readonly steps: readonly (Pick<StepView, 'id' | 'title'> & {
    readonly evaluation: Pick<StepView['evaluation'], 'verdict'>;
  })[];
}

/** A job that cannot be shown, with what is wrong with it. */
export interface BrokenJob {
  readonly id: string;
  readonly number: number | null;
  readonly serial: string;
  readonly why: string;
}

/** A job that has left the floor within the day, by a move or by being taken out, and can be brought back. */
export interface LeftJob {
  readonly id: string;
  readonly number: number;
  readonly serial: string;
  readonly undoable: Undoable;
}

export interface FloorView {
  readonly jobs: readonly FloorCard[];
  readonly broken: readonly BrokenJob[];
  readonly left: readonly LeftJob[];
  /** Jobs that another method is judging anew in the background; null where none is. */
  readonly judging: JudgingAnew | null;
}

/** Jobs that have left the floor within the day, latest first. */
async function leftToday(jobs: readonly Job[]): Promise<LeftJob[]> {
  const left: LeftJob[] = [];
  const touched = await jobsActedOn(dayAgo());
  for (const job of jobs.filter(({ id }) => touched.has(id))) {
    const undoable = (await undoableOf(job).catch((): Undoable[] => [])).find(
      ({ what }) => what === (job.takenOutAt === null ? 'moved' : 'taken-out'),
    );
    if (undoable) left.push({ id: job.id, number: job.number, serial: job.serial, undoable });
  }
  return left.sort((p, q) => q.undoable.at.localeCompare(p.undoable.at));
}

export const onFloor = (job: Job) => job.place !== 'gone' && job.takenOutAt === null;

async function cardFrom(
  job: Job,
  evaluated: JobEvaluation,
  site: Awaited<ReturnType<typeof siteNow>>,
): Promise<FloorCard> {
  const { kind } = sheetOf(job);
  const { evaluation, runs } = evaluated;
  const steps = evaluation.steps.map((step) => ({
    id: step.step,
    title: kind.steps.find((each) => each.id === step.step)?.title ?? step.step,
    evaluation: step,
  }));
  const { id, serial, vehicle, complaint, promisedAt, place, sheet } = job;
  return {
    job: { id, serial, vehicle, complaint, promisedAt, place, sheet: { name: sheet.name } },
    verdict: evaluation.verdict,
    steps: steps.map(({ evaluation: { verdict }, ...step }) => ({ ...step, evaluation: { verdict } })),
    openRun: openRunOf(runs),
    conclusion: conclusionOf(job, evaluation),
    face: await keptFace(job, evaluated),
    likeliest: likeliestOf(job, evaluated, (await ledgerOr(job, evaluated)).ledger),
    blocking: blockingOf(job, steps, evaluation, await behindOf(job)),
    overdue: overdueOf(job, site, evaluation),
  };
}

/** A job's card: what is on record of it, by whichever method, rather than nothing for as long as another method takes. */
async function cardOf(job: Job, site: Awaited<ReturnType<typeof siteNow>>): Promise<FloorCard> {
  const known = await evaluationOnRecord(job);
  if (known && !known.former) return cardFrom(job, known, site);
  if (known && judgeAnew(job, known.inputs)) {
    // What another method wrote may not be what this one reads.
    const card = await cardFrom(job, known, site).catch(() => null);
    if (card) return card;
  }
  return cardFrom(job, await evaluateJob(job), site);
}

/** All jobs that are still in the house, and those that cannot be read: one of them is a card that says so, the others stand. */
export async function floorView(): Promise<FloorView> {
  const [{ jobs, unreadable }, site] = await Promise.all([listJobs(), siteNow()]);
  const broken: BrokenJob[] = unreadable.map(({ fields, ...job }) => ({
    ...job,
    why: `Its record is damaged (${fields.join(', ').replaceAll('_', ' ')}).`,
  }));
  const cards = await Promise.all(
    jobs.filter(onFloor).map((job) =>
      cardOf(job, site).catch((error: unknown): null => {
        console.error(`job ${job.number}`, error);
        const { id, number, serial } = job;
        broken.push({ id, number, serial, why: 'Its sheet or one of its runs cannot be read.' });
        return null;
      }),
    ),
  );
  return {
    jobs: cards.filter((card) => card !== null),
    broken,
    left: await leftToday(jobs.filter((job) => !onFloor(job))),
    judging: judgingAnew(),
  };
}
