import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import * as z from 'zod';
import { partActions, type PartWork } from '@/core/judging/verification';
import { database } from './database';

const workSchema = z.array(z.object({ part: z.string(), action: z.enum(partActions), with: z.string() }));

const rowSchema = z.object({
  id: z.string(),
  job_id: z.string(),
  at: z.string(),
  person: z.string(),
  work: z.string().transform((text) => workSchema.parse(JSON.parse(text))),
  after_run: z.number(),
  note: z.string(),
  undone_at: z.string().nullable(),
});

/** What was done to a unit between two rounds of testing. */
export interface Repair {
  readonly id: string;
  readonly jobId: string;
  readonly at: string;
  readonly person: string;
  readonly work: readonly PartWork[];
  /** Sequence of the last run that the job had by then, 0 where it had none: later ones are of the next round. */
  readonly afterRun: number;
  readonly note: string;
}

/** The repairs of a job that stand, oldest first. */
export async function listRepairs(jobId: string): Promise<readonly Repair[]> {
  const rows: unknown[] = await (
    await database()
  )('repairs')
    .where({ job_id: jobId, undone_at: null })
    .orderBy('rowid');
  return rows.map(repairFromRow);
}

/** A row as a repair; throws where it is damaged. */
export function repairFromRow(row: unknown): Repair {
  const { id, job_id, at, person, work, after_run, note } = rowSchema.parse(row);
  return { id, jobId: job_id, at, person, work, afterRun: after_run, note };
}

export async function insertRepair(repair: Omit<Repair, 'id'>): Promise<string> {
  const id = randomUUID();
  await insertRepairRow(await database(), { id, ...repair });
  return id;
}

export async function insertRepairRow(trx: Knex, repair: Repair): Promise<void> {
  await trx('repairs').insert({
    id: repair.id,
    job_id: repair.jobId,
    at: repair.at,
    person: repair.person,
    work: JSON.stringify(workSchema.parse(repair.work)),
    after_run: repair.afterRun,
    note: repair.note,
  });
}

/** Takes a repair back; it stays on record. */
export async function undoRepair(id: string, at: string): Promise<void> {
  await (await database())('repairs').where({ id }).update({ undone_at: at });
}
