import { randomUUID } from 'node:crypto';
import { commit, RecordChanged, type JobChange } from '@/data/commit';
import { withEdits, type JobEdit } from '@/data/job-edits';
import { loadJobRecord, standing, type JobRecord } from '@/data/job-record';
import { frontOf, versionOfJob, type NewJob } from '@/data/jobs';
import type { StandIn } from '@/data/stand-ins';
import { versionSeen } from '../http/asked-version';
import { RequestRefused } from '../http/refused';
import { refuseStranger } from '../shop/people';
import { loadShop, type Shop } from '../shop/shop-now';
import { oneAtATime } from '../shop/one-at-a-time';
import { reviewRelease, type ReviewedFor } from './review-release';
import { whatChanged } from './what-changed';

/** A job as it lies on the desk while somebody decides on it: loaded once, with the shop as it is. */
export interface Desk {
  readonly record: JobRecord;
  readonly shop: Shop;
  /** Moment of the change, ISO. */
  readonly at: string;
}

/** What a use case has decided: what is to be written, and what it answers. */
export interface Decision<T> {
  readonly edits: readonly JobEdit[];
  readonly result: T;
  /** Why a release that stands is withdrawn by it, in words; where nothing is said it is judged anew where it may be touched. */
  readonly withdraws?: string;
}

export interface UseCase<T> {
  /** Who does it; refused where nobody of that name is of the shop. Null for what no person does. */
  readonly person: string | null;
  /** The same was done already, by whoever asks: what it answered then. */
  readonly already?: (record: JobRecord) => T | undefined;
  /** Whether it makes no difference what was done since the page was loaded. */
  readonly anyVersion?: boolean;
  readonly decide: (desk: Desk) => Promise<Decision<T>> | Decision<T>;
}

const notInTheBook = () => new RequestRefused(404, 'This job is not in the book.');

/** Jobs that look behind one another are changed under one name: what is found behind a unit speaks of its release as well. */
async function stackOf(jobId: string): Promise<string> {
  let root = jobId;
  for (let front = await frontOf(root); front !== null; front = await frontOf(root)) {
    if (front === undefined) throw notInTheBook();
    root = front;
  }
  return root;
}

/** Tries again where something else, a recorder that came to its end, was quicker than the decision. */
const mostTries = 4;

/**
 * Does a use case on a job: loads its record once, decides on that, looks at every release that it touches, and writes all of it or
 * nothing, one after another for each job. Somebody who decided on another version than there is, is told what was done since (409), and
 * nothing is written.
 */
export async function changeJob<T extends object>(
  jobId: string,
  useCase: UseCase<T>,
): Promise<T & { version: number }> {
  // Whoever does not say what he has seen has seen what there was when he asked.
  const [root, now] = await Promise.all([stackOf(jobId), versionOfJob(jobId)]);
  const seen = versionSeen() ?? now;
  return oneAtATime(root, async () => {
    for (let tries = 1; ; tries++) {
      try {
        return await once(jobId, useCase, seen ?? 0);
      } catch (error) {
        if (!(error instanceof RecordChanged) || tries === mostTries) throw error;
      }
    }
  });
}

async function loaded(jobId: string): Promise<JobRecord> {
  const record = await loadJobRecord(jobId);
  if (!record) throw notInTheBook();
  return record;
}

async function once<T extends object>(
  jobId: string,
  useCase: UseCase<T>,
  seen: number,
): Promise<T & { version: number }> {
  const [record, shop] = await Promise.all([loaded(jobId), loadShop()]);
  if (useCase.person !== null) refuseStranger(shop.people, useCase.person);
  const done = useCase.already?.(record);
  if (done) return { ...done, version: record.job.version };
  const { version } = record.job;
  if (!useCase.anyVersion && seen < version)
    throw new RequestRefused(409, `${whatChanged(record, seen)} Look again, then decide.`, {}, { version });
  const at = new Date().toISOString();
  const { edits, result, withdraws } = await useCase.decide({ record, shop, at });
  if (edits.length === 0) return { ...result, version };
  const reviewed: ReviewedFor = {
    person: useCase.person ?? 'Hard Pedal',
    at,
    ...(withdraws === undefined ? {} : { withdraws }),
  };
  const versions = await commit(await withReviews({ record, edits }, shop, reviewed), { at });
  return { ...result, version: versions[0] };
}

/** Whether these edits can turn what a release stands on. */
const bears = (edits: readonly JobEdit[]): boolean =>
  edits.some(({ kind }) =>
    ['run-begun', 'run-state', 'run-struck', 'repaired', 'repair-undone', 'taken-out', 'corrected'].includes(kind),
  );

/** A change with what becomes of the releases that it touches: the job's own, and those of the jobs in front of it. */
async function withReviews(change: JobChange, shop: Shop, reviewed: ReviewedFor): Promise<readonly JobChange[]> {
  const { record, edits } = change;
  const { at } = reviewed;
  if (!bears(edits)) return [change];
  const will = withEdits(record, edits, at);
  // What was just issued was just judged.
  const own = standing(record) ? await reviewRelease(will, shop, reviewed) : [];
  return [{ record, edits: [...edits, ...own] }, ...(await reviewsInFront(withEdits(will, own, at), shop, reviewed))];
}

/** What becomes of releases of units that a job looks behind, as it will be. */
async function reviewsInFront(
  behind: JobRecord,
  shop: Shop,
  { person, at }: ReviewedFor,
): Promise<readonly JobChange[]> {
  const frontId = behind.job.behindOf;
  const front = frontId === null ? undefined : await loadJobRecord(frontId);
  if (!front) return [];
  const edits = await reviewRelease(front, shop, { person, at, behind });
  const rest = await reviewsInFront(withEdits(front, edits, at), shop, { person, at });
  return edits.length === 0 ? rest : [{ record: front, edits }, ...rest];
}

/** Books a job, with what becomes of a release of the unit that it looks behind. `check` refuses with the front's record at hand. */
export async function bookJob(
  job: NewJob,
  how: {
    readonly standIn: StandIn;
    readonly person: string;
    readonly shop: Shop;
    readonly check: (front: JobRecord) => Promise<void>;
  },
): Promise<string> {
  const id = randomUUID();
  const at = new Date().toISOString();
  const { standIn, person, shop } = how;
  const booked = { id, job, standIn, person };
  const { behindOf } = job;
  if (behindOf === null) {
    await commit([], { at, booked });
    return id;
  }
  const root = await stackOf(behindOf).catch(() => {
    throw new RequestRefused(422, 'The job that this one looks behind is not in the book.');
  });
  return oneAtATime(root, async () => {
    const front = await loaded(behindOf);
    await how.check(front);
    // What is behind the unit is open from now on.
    const open: JobRecord = {
      job: { ...job, id, number: 0, takenOutAt: null, orderedBy: 'plan', version: 0 },
      runs: [],
      repairs: [],
      acts: [],
      cautions: [],
      releases: [],
      behind: [],
      broken: [],
    };
    const will = { ...front, behind: [...front.behind, { id, number: 0 }] };
    const edits = await reviewRelease(will, shop, { person, at, behind: open });
    const rest = await reviewsInFront(withEdits(will, edits, at), shop, { person, at });
    await commit([...(edits.length > 0 ? [{ record: front, edits }] : []), ...rest], { at, booked });
    return id;
  });
}
