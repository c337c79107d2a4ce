import type { Knex } from 'knex';
import { insertActRow } from './acts';
import { clockSeen } from './clock';
import { rememberMappingRow } from './column-mappings';
import { database, dataFolder } from './database';
import type { JobEdit } from './job-edits';
import type { JobRecord } from './job-record';
import { bookedRow, insertJobRow, type NewJob } from './jobs';
import { insertReleaseRow } from './releases';
import { insertRepairRow } from './repairs';
import { insertRunRow } from './runs';
import type { StandIn } from './stand-ins';
import { markEntries } from './unusable';

/** What was decided on has changed meanwhile: nothing was written, and it is to be decided anew. */
export class RecordChanged extends Error {}

/** What changes on one job. */
export interface JobChange {
  readonly record: JobRecord;
  readonly edits: readonly JobEdit[];
}

/** A job that is not in the book yet. */
export interface BookedChange {
  readonly id: string;
  readonly job: NewJob;
  readonly standIn: StandIn;
  readonly person: string;
}

const changedOne = (count: number): void => {
  if (count !== 1) throw new RecordChanged();
};

async function write(trx: Knex, jobId: string, version: number, edit: JobEdit, at: string): Promise<void> {
  switch (edit.kind) {
    case 'run-begun':
      return insertRunRow(trx, edit.id, edit.run);
    case 'run-state': {
      const ended = edit.endedAt === undefined ? {} : { ended_at: edit.endedAt };
      return changedOne(
        await trx('runs')
          .where({ id: edit.id, state: edit.from })
          .update({ state: edit.to, ...ended }),
      );
    }
    case 'run-struck':
      return changedOne(await trx('runs').where({ id: edit.id }).update({ struck_out: edit.reason }));
    case 'repaired':
      return insertRepairRow(trx, edit.repair);
    case 'repair-undone':
      return changedOne(await trx('repairs').where({ id: edit.id, undone_at: null }).update({ undone_at: edit.at }));
    case 'caution-read': {
      const { caution, person } = edit;
      const row = { job_id: jobId, caution, person, at: edit.at };
      await trx('cautions').insert(row).onConflict(['job_id', 'caution']).ignore();
      return;
    }
    case 'placed':
      return changedOne(await trx('jobs').where({ id: jobId }).update({ place: edit.place }));
    case 'ordered':
      return changedOne(await trx('jobs').where({ id: jobId }).update({ ordered_by: edit.by }));
    case 'corrected':
      return changedOne(await trx('jobs').where({ id: jobId }).update(bookedRow(edit.to)));
    case 'taken-out':
      return changedOne(await trx('jobs').where({ id: jobId }).update({ taken_out_at: edit.at }));
    case 'issued':
      await insertReleaseRow(trx, edit.release);
      // It was judged as it was issued.
      await trx('releases').where({ id: edit.release.id }).update({ reviewed_at_version: version });
      return;
    case 'withdrawn':
      return changedOne(
        await trx('releases')
          .where({ id: edit.id, withdrawn_at: null })
          .update({ withdrawn_at: edit.at, withdrawn_why: edit.why }),
      );
    case 'reviewed':
      return changedOne(await trx('releases').where({ id: edit.id }).update({ reviewed_at_version: version }));
    case 'act':
      return insertActRow(trx, edit.act, at, version);
    case 'act-undone':
      return changedOne(await trx('acts').where({ id: edit.id, undone_at: null }).update({ undone_at: edit.at }));
    case 'mapping-remembered':
      return rememberMappingRow(trx, edit.fingerprint, edit.mapping, at);
  }
}

/**
 * Writes what a use case has decided, all of it or nothing, and returns the new version of each job. The first statement counts the job's
 * version up and takes the database for this connection alone; `RecordChanged` is thrown where a job is not what was decided on any more.
 */
export async function commit(
  changes: readonly JobChange[],
  { at, booked }: { readonly at: string; readonly booked?: BookedChange },
): Promise<readonly number[]> {
  const db = await database();
  const written = await db.transaction(async (trx) => {
    const versions: number[] = [];
    for (const { record, edits } of changes) {
      const { id, version } = record.job;
      changedOne(
        await trx('jobs')
          .where({ id, version })
          .update({ version: version + 1 }),
      );
      for (const edit of edits) await write(trx, id, version + 1, edit, at);
      versions.push(version + 1);
    }
    if (booked) {
      await insertJobRow(trx, booked.id, booked.job, booked.standIn);
      const act = { jobId: booked.id, subject: null, act: 'booked', person: booked.person, detail: null } as const;
      await insertActRow(trx, act, at, 0);
    }
    const jobId = booked?.id ?? changes[0]?.record.job.id;
    if (jobId !== undefined) await clockSeen(trx, at, jobId, versions[0] ?? 0);
    return versions;
  });
  await markEntries(db, dataFolder());
  return written;
}
