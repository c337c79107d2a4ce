import type { Knex } from 'knex';
import { database } from '@/data/database';
import { useCases, type Carried } from './use-cases';

/* Does every use case in turn, and is killed after its `KILL_AT`th write: as hard as a machine can be. */

const killAt = Number(process.env.KILL_AT ?? Infinity);
let writes = 0;

const isWrite = (sql: string) => /^\s*(?:insert|update|delete|commit)/i.test(sql);

export async function run(said: (title: string, writes: number, live: boolean) => Promise<void>): Promise<void> {
  const db: Knex = await database();
  db.on('query-response', (_response: unknown, query: { sql: string }) => {
    if (!isWrite(query.sql)) return;
    writes++;
    if (writes === killAt) process.kill(process.pid, 'SIGKILL');
  });
  const carried: Carried = { sheetId: '', jobId: '', releaseId: '', runId: '' };
  for (const { title, does, live = false } of useCases) {
    await does(carried);
    await said(title, writes, live);
  }
}

if (process.env.TRUST_CHILD === '1') {
  await run(async () => undefined);
  process.exit(0);
}
