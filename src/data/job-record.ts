import * as z from 'zod';
import { actFromRow, type Act } from './acts';
import { database } from './database';
import { cautionFromRow, jobFromRow, type AcknowledgedCaution, type Job } from './jobs';
import { releaseHeadColumns, releaseHeadFromRow, type ReleaseHead } from './releases';
import { repairFromRow, type Repair } from './repairs';
import { runFromRow, type Run } from './runs';

/** A row of a job that cannot be read: it is said on the job, and takes nothing else with it. */
export interface BrokenRow {
  readonly of: 'run' | 'repair' | 'act' | 'caution' | 'release';
  readonly id: string;
}

/** All that is on record of one job, as it stood when it was loaded. */
export interface JobRecord {
  readonly job: Job;
  /** Every run in the order in which they were begun, those thrown away too. */
  readonly runs: readonly Run[];
  /** Repairs that stand, oldest first. */
  readonly repairs: readonly Repair[];
  readonly acts: readonly Act[];
  readonly cautions: readonly AcknowledgedCaution[];
  /** In the order in which they were issued, without what is printed on them. */
  readonly releases: readonly ReleaseHead[];
  /** Jobs in the book that look behind its unit, in the order they were booked. */
  readonly behind: readonly Pick<Job, 'id' | 'number'>[];
  readonly broken: readonly BrokenRow[];
}

/** Runs of a job, oldest first, without those thrown away. */
export const runsOf = ({ runs }: Pick<JobRecord, 'runs'>): readonly Run[] =>
  runs.filter((run) => run.state !== 'discarded');

/** The run of a job that is recorded or waits to be kept: there is one at most. */
export const openRun = ({ runs }: Pick<JobRecord, 'runs'>): Run | undefined =>
  runs.find((run) => run.state === 'recording' || run.state === 'complete');

/** The release that stands; undefined where none does. */
export const standing = ({ releases }: Pick<JobRecord, 'releases'>): ReleaseHead | undefined =>
  releases.find((each) => each.kind === 'released' && each.withdrawn === null);

const behindSchema = z.array(z.object({ id: z.string(), number: z.number() }));

/** Loads a job with all that is on record of it; undefined where there is none. Throws where the job's own row is damaged. */
export async function loadJobRecord(id: string): Promise<JobRecord | undefined> {
  const db = await database();
  const row: unknown = await db('jobs').where({ id }).first();
  if (row === undefined) return undefined;
  const job = jobFromRow(row);
  const broken: BrokenRow[] = [];
  const read = <T>(of: BrokenRow['of'], rows: readonly unknown[], from: (row: unknown) => T): T[] =>
    rows.flatMap((each) => {
      try {
        return [from(each)];
      } catch (error) {
        console.error(`job ${job.number}, a ${of}`, error);
        broken.push({ of, id: String((each as { id: unknown }).id) });
        return [];
      }
    });
  const of = (table: string) => db(table).where({ job_id: id });
  const [runs, repairs, acts, cautions, releases, behind] = (await Promise.all([
    of('runs').orderBy('sequence'),
    of('repairs').where({ undone_at: null }).orderBy('rowid'),
    of('acts').orderBy('id'),
    of('cautions').orderBy('id'),
    of('releases').orderBy('rowid').select(releaseHeadColumns),
    db('jobs').where({ behind_of: id, taken_out_at: null }).orderBy('number').select('id', 'number'),
  ])) as unknown[][];
  return {
    job,
    runs: read('run', runs, runFromRow),
    repairs: read('repair', repairs, repairFromRow),
    acts: read('act', acts, actFromRow),
    cautions: read('caution', cautions, cautionFromRow),
    releases: read('release', releases, releaseHeadFromRow),
    behind: behindSchema.parse(behind),
    broken,
  };
}

/** The same for the job that a run belongs to. */
export async function loadRecordOfRun(runId: string): Promise<JobRecord | undefined> {
  const row = (await (await database())('runs').where({ id: runId }).first('job_id')) as { job_id: string } | undefined;
  return row && loadJobRecord(row.job_id);
}
