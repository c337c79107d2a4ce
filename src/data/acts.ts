import { z } from 'zod';
import { database } from './database';

/** What is put on record with who did it. */
export const actKinds = ['kept', 'discarded', 'struck-out', 'issued', 'withdrawn', 'moved'] as const;

const rowSchema = z.object({
  job_id: z.string(),
  subject: z.string().nullable(),
  act: z.enum(actKinds),
  person: z.string(),
  at: z.string(),
  detail: z.string().nullable(),
});

export interface Act {
  readonly jobId: string;
  /** Run or release that it was done to; null for the job itself. */
  readonly subject: string | null;
  readonly act: (typeof actKinds)[number];
  readonly person: string;
  readonly at: string;
  /** Reason, place, or what else there is to say of it. */
  readonly detail: string | null;
}

export async function recordAct(act: Omit<Act, 'at'>, at = new Date().toISOString()): Promise<void> {
  await (
    await database()
  )('acts').insert({
    job_id: act.jobId,
    subject: act.subject,
    act: act.act,
    person: act.person,
    at,
    detail: act.detail,
  });
}

/** Everything on record of a job, oldest first. */
export async function listActs(jobId: string): Promise<Act[]> {
  const rows: unknown[] = await (await database())('acts').where({ job_id: jobId }).orderBy('id');
  return rows.map((row) => {
    const { job_id, ...rest } = rowSchema.parse(row);
    return { ...rest, jobId: job_id };
  });
}
