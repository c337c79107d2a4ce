import type { Knex } from 'knex';
import * as z from 'zod';
import { database } from './database';

/** What is put on record with who did it. */
export const actKinds = [
  'begun',
  'kept',
  'discarded',
  'struck-out',
  'issued',
  'withdrawn',
  'moved',
  'repaired',
  'taken-out',
  'corrected',
  'brought-back',
  'rejudged',
  'cautions-read',
  'ordered',
  'booked',
  'clock-ran-back',
] as const;

const rowSchema = z.object({
  id: z.number(),
  job_id: z.string(),
  subject: z.string().nullable(),
  act: z.enum(actKinds),
  person: z.string(),
  at: z.string(),
  detail: z.string().nullable(),
  before: z.string().nullable(),
  undone_at: z.string().nullable(),
  version: z.number().nullable(),
});

export interface Act {
  readonly id: number;
  readonly jobId: string;
  /** Run or release that it was done to; null for the job itself. */
  readonly subject: string | null;
  readonly act: (typeof actKinds)[number];
  readonly person: string;
  readonly at: string;
  /** Reason, place, or what else there is to say of it. */
  readonly detail: string | null;
  /** What stood before it: a place, the state of a run. */
  readonly before: string | null;
  /** When it was taken back; null where it stands. */
  readonly undoneAt: string | null;
  /** Number of the change of its job that it belongs to; null where it was put on record beside one, or before changes were counted. */
  readonly version: number | null;
}

export type NewAct = Pick<Act, 'jobId' | 'subject' | 'act' | 'person' | 'detail'> & { readonly before?: string };

export async function recordAct(act: NewAct, at = new Date().toISOString()): Promise<void> {
  await insertActRow(await database(), act, at, null);
}

export async function insertActRow(trx: Knex, act: NewAct, at: string, version: number | null): Promise<void> {
  await trx('acts').insert({
    job_id: act.jobId,
    subject: act.subject,
    act: act.act,
    person: act.person,
    at,
    detail: act.detail,
    before: act.before ?? null,
    version,
  });
}

/** A row as an act; throws where it is damaged. */
export function actFromRow(row: unknown): Act {
  const { job_id, undone_at, ...rest } = rowSchema.parse(row);
  return { ...rest, jobId: job_id, undoneAt: undone_at };
}

/** Everything on record of a job, oldest first. */
export async function listActs(jobId: string): Promise<Act[]> {
  const rows: unknown[] = await (await database())('acts').where({ job_id: jobId }).orderBy('id');
  return rows.map(actFromRow);
}

/** Jobs that something was done to since a moment. */
export async function jobsActedOn(since: string): Promise<ReadonlySet<string>> {
  const ids = (await (await database())('acts').where('at', '>=', since).distinct().pluck('job_id')) as string[];
  return new Set(ids);
}

export async function findAct(id: number): Promise<Act | undefined> {
  const row: unknown = await (await database())('acts').where({ id }).first();
  return row === undefined ? undefined : actFromRow(row);
}

/** Marks an act as taken back; says whether it still stood, so that it is taken back once. */
export async function markUndone(id: number, at: string): Promise<boolean> {
  const changed = await (await database())('acts').where({ id, undone_at: null }).update({ undone_at: at });
  return changed === 1;
}
