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
});

export interface StoredRelease {
  readonly id: string;
  readonly jobId: string;
  readonly kind: 'released' | 'findings-only';
  readonly issuedAt: string;
  readonly person: string;
  /** The report as it was issued, so that it prints the same for ever. */
  readonly report: unknown;
}

function fromRow(row: unknown): StoredRelease {
  const { job_id, issued_at, ...rest } = rowSchema.parse(row);
  return { ...rest, jobId: job_id, issuedAt: issued_at };
}

export async function insertRelease(release: Omit<StoredRelease, 'id'>): Promise<string> {
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

export async function findRelease(id: string): Promise<StoredRelease | undefined> {
  const row: unknown = await (await database())('releases').where({ id }).first();
  return row === undefined ? undefined : fromRow(row);
}

export async function listReleases(jobId: string): Promise<StoredRelease[]> {
  const rows: unknown[] = await (await database())('releases').where({ job_id: jobId }).orderBy('issued_at');
  return rows.map(fromRow);
}
