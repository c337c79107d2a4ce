import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { partActions, type PartWork } from '@/core/judging/verification';
import { database } from './database';

const workSchema = z.array(z.object({ part: z.string(), action: z.enum(partActions), with: z.string() }));

const rowSchema = z.object({
  id: z.string(),
  job_id: z.string(),
  at: z.string(),
  person: z.string(),
  work: z.string().transform((text) => workSchema.parse(JSON.parse(text))),
  runs_before: z.string().transform((text) => z.array(z.string()).parse(JSON.parse(text))),
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
  /** Runs of the job that had been made by then. */
  readonly runsBefore: readonly string[];
  readonly note: string;
}

/** The repairs of a job that stand, oldest first. */
export async function listRepairs(jobId: string): Promise<readonly Repair[]> {
  const rows: unknown[] = await (
    await database()
  )('repairs')
    .where({ job_id: jobId, undone_at: null })
    .orderBy('rowid');
  return rows.map((row) => {
    const { id, job_id, at, person, work, runs_before, note } = rowSchema.parse(row);
    return { id, jobId: job_id, at, person, work, runsBefore: runs_before, note };
  });
}

export async function insertRepair(repair: Omit<Repair, 'id'>): Promise<string> {
  const id = randomUUID();
  await (
    await database()
  )('repairs').insert({
    id,
    job_id: repair.jobId,
    at: repair.at,
    person: repair.person,
    work: JSON.stringify(workSchema.parse(repair.work)),
    runs_before: JSON.stringify(repair.runsBefore),
    note: repair.note,
  });
  return id;
}

/** Takes a repair back; it stays on record. */
export async function undoRepair(id: string, at: string): Promise<void> {
  await (await database())('repairs').where({ id }).update({ undone_at: at });
}
