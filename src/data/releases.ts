import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import * as z from 'zod';
import { database } from './database';

const rowSchema = z.object({
  id: z.string(),
  job_id: z.string(),
  kind: z.enum(['released', 'findings-only']),
  issued_at: z.string(),
  person: z.string(),
  report: z.string().transform((text) => JSON.parse(text) as unknown),
  withdrawn_at: z.string().nullable(),
  withdrawn_why: z.string().nullable(),
});

const headSchema = rowSchema.omit({ report: true }).extend({ reviewed_at_version: z.number().nullable() });

export interface StoredRelease {
  readonly id: string;
  readonly jobId: string;
  readonly kind: 'released' | 'findings-only';
  readonly issuedAt: string;
  readonly person: string;
  /** The report as it was issued, so that it prints the same for ever. */
  readonly report: unknown;
  /** When and why it no longer stands; null while it does. */
  readonly withdrawn: { readonly at: string; readonly why: string } | null;
}

/** A row as a release; throws where it is damaged. */
export function releaseFromRow(row: unknown): StoredRelease {
  const { job_id, issued_at, withdrawn_at, withdrawn_why, ...rest } = rowSchema.parse(row);
  const withdrawn = withdrawn_at === null ? null : { at: withdrawn_at, why: withdrawn_why ?? '' };
  return { ...rest, jobId: job_id, issuedAt: issued_at, withdrawn };
}

/** Columns of a release without what is printed on it, which is large. */
export const releaseHeadColumns = Object.keys(headSchema.shape);

/** A release without what is printed on it. */
export interface ReleaseHead extends Omit<StoredRelease, 'report'> {
  /** Version of the job at which it was last seen to stand; null where it was not looked at since it was issued. */
  readonly reviewedAtVersion: number | null;
}

/** A row as a release without its paper; throws where it is damaged. */
export function releaseHeadFromRow(row: unknown): ReleaseHead {
  const { job_id, issued_at, withdrawn_at, withdrawn_why, reviewed_at_version, ...rest } = headSchema.parse(row);
  const withdrawn = withdrawn_at === null ? null : { at: withdrawn_at, why: withdrawn_why ?? '' };
  return { ...rest, jobId: job_id, issuedAt: issued_at, withdrawn, reviewedAtVersion: reviewed_at_version };
}

export async function insertRelease(release: Omit<StoredRelease, 'id' | 'withdrawn'>): Promise<string> {
  const id = randomUUID();
  await insertReleaseRow(await database(), { id, ...release });
  return id;
}

export async function insertReleaseRow(trx: Knex, release: Omit<StoredRelease, 'withdrawn'>): Promise<void> {
  await trx('releases').insert({
    id: release.id,
    job_id: release.jobId,
    kind: release.kind,
    issued_at: release.issuedAt,
    person: release.person,
    report: JSON.stringify(release.report),
  });
}

/** The release of a job that stands; undefined where none does. */
export async function standingRelease(jobId: string): Promise<StoredRelease | undefined> {
  return (await listReleases(jobId)).find((each) => each.kind === 'released' && each.withdrawn === null);
}

/** Jobs whose release stands and was not looked at since they were changed last; those that are on the floor first. */
export async function releasesToReview(): Promise<readonly string[]> {
  return (await (
    await database()
  )('releases')
    .join('jobs', 'jobs.id', 'releases.job_id')
    .whereRaw(`releases.kind = 'released' and releases.withdrawn_at is null`)
    .whereRaw('coalesce(releases.reviewed_at_version, -1) < jobs.version')
    .orderByRaw(`jobs.place = 'gone', jobs.number`)
    .pluck('releases.job_id')) as string[];
}

/** Marks a release as no longer standing. */
export async function withdrawRelease(id: string, at: string, why: string): Promise<void> {
  await (await database())('releases').where({ id }).update({ withdrawn_at: at, withdrawn_why: why });
}

export async function findRelease(id: string): Promise<StoredRelease | undefined> {
  const row: unknown = await (await database())('releases').where({ id }).first();
  return row === undefined ? undefined : releaseFromRow(row);
}

export async function listReleases(jobId: string): Promise<StoredRelease[]> {
  const rows: unknown[] = await (await database())('releases').where({ job_id: jobId }).orderBy('rowid');
  return rows.map(releaseFromRow);
}
