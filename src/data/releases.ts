import { randomUUID } from 'node:crypto';
import { z } from 'zod';
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

function fromRow(row: unknown): StoredRelease {
  const { job_id, issued_at, withdrawn_at, withdrawn_why, ...rest } = rowSchema.parse(row);
  const withdrawn = withdrawn_at === null ? null : { at: withdrawn_at, why: withdrawn_why ?? '' };
  return { ...rest, jobId: job_id, issuedAt: issued_at, withdrawn };
}

export async function insertRelease(release: Omit<StoredRelease, 'id' | 'withdrawn'>): Promise<string> {
  const id = randomUUID();
  await (
    await database()
  )('releases').insert({
    id,
    job_id: release.jobId,
    kind: release.kind,
    issued_at: release.issuedAt,
    person: release.person,
    report: JSON.stringify(release.report),
  });
  return id;
}

/** The release of a job that stands; undefined where none does. */
export async function standingRelease(jobId: string): Promise<StoredRelease | undefined> {
  return (await listReleases(jobId)).find((each) => each.kind === 'released' && each.withdrawn === null);
}

/** Marks a release as no longer standing. */
export async function withdrawRelease(id: string, at: string, why: string): Promise<void> {
  await (await database())('releases').where({ id }).update({ withdrawn_at: at, withdrawn_why: why });
}

export async function findRelease(id: string): Promise<StoredRelease | undefined> {
  const row: unknown = await (await database())('releases').where({ id }).first();
  return row === undefined ? undefined : fromRow(row);
}

export async function listReleases(jobId: string): Promise<StoredRelease[]> {
  const rows: unknown[] = await (await database())('releases').where({ job_id: jobId }).orderBy('issued_at');
  return rows.map(fromRow);
}
