import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import * as z from 'zod';
import type { PlanId } from '@/core/procedure/step-context';
import { database } from './database';
import { insertStandIn, type StandIn } from './stand-ins';

/** Places a unit can be in the shop. */
export const places = ['waiting', 'on-bench', 'waiting-parts', 'ready', 'gone'] as const;
export type Place = (typeof places)[number];

/** In which order a run sheet shows its steps: as the plan has them, or by what they tell. */
export const orders = ['plan', 'worth'] as const;
export type Order = (typeof orders)[number];

const json = <T extends z.ZodType>(schema: T) =>
  z.string().transform((text) => schema.parse(JSON.parse(text)) as z.infer<T>);

const sheetSchema = z.object({ family: z.string(), name: z.string(), spec: z.unknown() });
const rowSchema = z.object({
  id: z.string(),
  number: z.number(),
  serial: z.string(),
  vehicle: z.string(),
  complaint: z.string(),
  symptoms: json(z.array(z.string())),
  place: z.enum(places),
  booked_at: z.string(),
  booked_by: z.string(),
  promised_at: z.string().nullable(),
  plan: z.enum(['bench', 'vehicle']),
  ordered_by: z.enum(orders),
  sheet: json(sheetSchema),
  taken_out_at: z.string().nullable(),
  behind_of: z.string().nullable(),
  version: z.number(),
});

export interface Job {
  readonly id: string;
  readonly number: number;
  readonly serial: string;
  readonly vehicle: string;
  readonly complaint: string;
  /** What of its kind's symptoms the driver noticed, by id; the complaint stays as it was said. */
  readonly symptoms: readonly string[];
  readonly place: Place;
  readonly bookedAt: string;
  readonly bookedBy: string;
  readonly promisedAt: string | null;
  /** Where the unit is tested, and what it is judged on. */
  readonly plan: PlanId;
  readonly orderedBy: Order;
  readonly sheet: z.infer<typeof sheetSchema>;
  /** When it was taken out of the book; null while it is in it. */
  readonly takenOutAt: string | null;
  /** Job whose unit this one looks behind; null where it is a job of its own. */
  readonly behindOf: string | null;
  /** How often it has been changed: a page that shows another number shows what it was before. */
  readonly version: number;
}

/** What was said of a unit when it was booked in, and can be corrected. */
export type Booked = Pick<Job, 'serial' | 'vehicle' | 'complaint' | 'symptoms' | 'promisedAt' | 'sheet'>;

/** The same as it stands in the row of its job. */
export function bookedRow({
  promisedAt,
  symptoms,
  sheet,
  ...texts
}: Partial<Booked>): Readonly<Record<string, unknown>> {
  return {
    ...texts,
    ...(promisedAt === undefined ? {} : { promised_at: promisedAt }),
    ...(symptoms === undefined ? {} : { symptoms: JSON.stringify(symptoms) }),
    ...(sheet === undefined ? {} : { sheet: JSON.stringify(sheet) }),
  };
}

/** A row of the book as a job; throws where it is damaged. */
export function jobFromRow(row: unknown): Job {
  const { booked_at, booked_by, promised_at, taken_out_at, ordered_by, behind_of, ...rest } = rowSchema.parse(row);
  return {
    ...rest,
    bookedAt: booked_at,
    bookedBy: booked_by,
    promisedAt: promised_at,
    takenOutAt: taken_out_at,
    orderedBy: ordered_by,
    behindOf: behind_of,
  };
}

/** A job whose record is damaged: as much of it as can be told, and why no more. */
export interface UnreadableJob {
  readonly id: string;
  readonly number: number | null;
  readonly serial: string;
  /** Fields of the record that make no sense. */
  readonly fields: readonly string[];
}

/** All jobs of the book by number, those taken out too, and those that cannot be read: a defect in one record stays that record's. */
export async function listJobs(): Promise<{
  readonly jobs: readonly Job[];
  readonly unreadable: readonly UnreadableJob[];
}> {
  const rows: Record<string, unknown>[] = await (await database())('jobs').orderBy('number');
  const jobs: Job[] = [];
  const unreadable: UnreadableJob[] = [];
  for (const row of rows) {
    const fields = damageOf(row);
    if (fields.length === 0) jobs.push(jobFromRow(row));
    else
      unreadable.push({
        id: String(row.id),
        number: typeof row.number === 'number' ? row.number : null,
        serial: typeof row.serial === 'string' ? row.serial : '',
        fields,
      });
  }
  return { jobs, unreadable };
}

/** Fields of a row that cannot be read. */
function damageOf(row: Record<string, unknown>): string[] {
  return Object.entries(rowSchema.shape).flatMap(([field, schema]) => {
    try {
      return schema.safeParse(row[field]).success ? [] : [field];
    } catch {
      // A text that is no JSON at all.
      return [field];
    }
  });
}

/** A job as its row stands in the book. */
export type JobInBook =
  | { readonly kind: 'none' }
  | { readonly kind: 'there'; readonly job: Job }
  | { readonly kind: 'unreadable'; readonly fields: readonly string[] };

/** Looks a job up, whose row may be damaged. */
export async function lookUpJob(id: string): Promise<JobInBook> {
  const row = (await (await database())('jobs').where({ id }).first()) as Record<string, unknown> | undefined;
  if (!row) return { kind: 'none' };
  const fields = damageOf(row);
  return fields.length === 0 ? { kind: 'there', job: jobFromRow(row) } : { kind: 'unreadable', fields };
}

export async function findJob(id: string): Promise<Job | undefined> {
  const row: unknown = await (await database())('jobs').where({ id }).first();
  return row === undefined ? undefined : jobFromRow(row);
}

/** Jobs in the book of a serial that were booked before one of that number, in the order they were booked; damaged ones are left out. */
export async function jobsOfSerial(serial: string, before: number): Promise<Job[]> {
  const rows: Record<string, unknown>[] = await (
    await database()
  )('jobs')
    .where({ serial, taken_out_at: null })
    .where('number', '<', before)
    .orderBy('number');
  return rows.flatMap((row) => (damageOf(row).length === 0 ? [jobFromRow(row)] : []));
}

/** Which job a job looks behind; null where it is one of its own, undefined where it is not in the book. */
export async function frontOf(id: string): Promise<string | null | undefined> {
  const row = (await (await database())('jobs').where({ id }).first('behind_of')) as
    { behind_of: string | null } | undefined;
  return row && row.behind_of;
}

/** How often a job has been changed; undefined where it is not in the book. */
export async function versionOfJob(id: string): Promise<number | undefined> {
  const row = (await (await database())('jobs').where({ id }).first('version')) as { version: number } | undefined;
  return row?.version;
}

/** Books a job under the next number, with what the stand-in mounts for it. */
export async function insertJob(job: NewJob, mounted: StandIn, id: string = randomUUID()): Promise<Job> {
  const db = await database();
  await db.transaction((trx) => insertJobRow(trx, id, job, mounted));
  const stored = await findJob(id);
  if (!stored) throw new Error(`job ${id} was not stored`);
  return stored;
}

export type NewJob = Omit<Job, 'id' | 'number' | 'takenOutAt' | 'orderedBy' | 'version'>;

/** Writes a new job's rows within a transaction. */
export async function insertJobRow(trx: Knex, id: string, job: NewJob, mounted: StandIn): Promise<void> {
  const last = (await trx('jobs').max('number as last').first()) as { last: number | null } | undefined;
  await trx('jobs').insert({
    id,
    number: (last?.last ?? 2600) + 1,
    serial: job.serial,
    vehicle: job.vehicle,
    complaint: job.complaint,
    symptoms: JSON.stringify(job.symptoms),
    place: job.place,
    booked_at: job.bookedAt,
    booked_by: job.bookedBy,
    promised_at: job.promisedAt,
    plan: job.plan,
    sheet: JSON.stringify(job.sheet),
    behind_of: job.behindOf,
  });
  await insertStandIn(trx, id, mounted);
}

export async function moveJob(id: string, place: Place): Promise<void> {
  await (await database())('jobs').where({ id }).update({ place });
}

export async function setOrder(id: string, orderedBy: Order): Promise<void> {
  await (await database())('jobs').where({ id }).update({ ordered_by: orderedBy });
}

/** Takes a job out of the book, or puts it back (null). */
export async function setTakenOut(id: string, at: string | null): Promise<void> {
  await (await database())('jobs').where({ id }).update({ taken_out_at: at });
}

const cautionSchema = z.object({ caution: z.string(), person: z.string(), at: z.string() });
export type AcknowledgedCaution = z.infer<typeof cautionSchema>;

export async function listCautions(jobId: string): Promise<AcknowledgedCaution[]> {
  const rows: unknown[] = await (await database())('cautions').where({ job_id: jobId }).orderBy('id');
  return rows.map(cautionFromRow);
}

/** A row as an acknowledged caution; throws where it is damaged. */
export const cautionFromRow = (row: unknown): AcknowledgedCaution => cautionSchema.parse(row);

/** Records who acknowledged a caution and when; the first acknowledgement stands. */
export async function acknowledgeCaution(jobId: string, caution: string, person: string, at: string): Promise<void> {
  await (
    await database()
  )('cautions')
    .insert({ job_id: jobId, caution, person, at })
    .onConflict(['job_id', 'caution'])
    .ignore();
}
