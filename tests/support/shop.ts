import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { kindNamed } from '@/core/families';
import { acknowledgeCaution, type Job } from '@/data/jobs';

/**
 * Points the process's database at an empty folder; call before the first use of the database. Whatever was opened
 * is closed after the file's tests: an open connection keeps the test runner from ending.
 */
export function emptyShopFolder(): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'shop-'));
  process.env.HARD_PEDAL_DATA = folder;
  afterAll(async () => {
    const shared = globalThis as { hardPedalDatabase?: Promise<Knex> };
    await (await shared.hardPedalDatabase)?.destroy();
    rmSync(folder, { recursive: true, force: true });
  });
  return folder;
}

/** Waits until `ready` says so, looking every 50 ms. */
export async function until(ready: () => boolean | Promise<boolean>, seconds = 20): Promise<void> {
  for (let i = 0; i < seconds * 20; i++) {
    if (await ready()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`not ready after ${seconds} s`);
}

/** Acknowledges every caution of a job's family, as its technician would on the way. */
export async function readEveryCaution(job: Job, person: string): Promise<void> {
  for (const step of kindNamed(job.sheet.family).steps)
    for (const caution of step.cautions) await acknowledgeCaution(job.id, caution, person, new Date().toISOString());
}
