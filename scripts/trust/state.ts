import { createHash } from 'node:crypto';
import { writeSync } from 'node:fs';
import { database } from '@/data/database';
import { loadJobRecord, standing } from '@/data/job-record';
import { listJobs } from '@/data/jobs';
import { bringBackAside } from '@/data/runs';
import { behindOf } from '@/server/judging/behind';
import { blockingOf } from '@/server/judging/blocking';
import { evaluateJob } from '@/server/judging/evaluate-job';
import { loadShop } from '@/server/shop/shop-now';
import { run } from './child';

/* What is on record in a folder, without what differs from run to run, and what of it is wrong. */

const tables: Readonly<Record<string, readonly string[]>> = {
  jobs: ['serial', 'place', 'ordered_by', 'version', 'taken_out_at'],
  runs: ['step', 'state', 'struck_out', 'sequence'],
  repairs: ['work', 'undone_at', 'after_run'],
  acts: ['act', 'person', 'before', 'undone_at', 'version'],
  cautions: ['caution'],
  releases: ['kind', 'withdrawn_at', 'reviewed_at_version'],
  settings: ['key', 'value'],
  instruments: ['id', 'instrument'],
  instruments_taken_off: ['channel'],
  unit_sheets: ['name'],
  spheres: ['serial', 'fitted_to'],
  sphere_checks: ['serial', 'reading'],
  column_mappings: ['fingerprint'],
  stand_ins: ['mounted'],
  versions: ['key', 'version'],
};

/** Times are told apart from none, and no further. */
const plain = (row: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(row).map(([key, value]) => [key, /_at$/.test(key) && value !== null ? 'then' : value]),
  );

async function state(): Promise<string> {
  const db = await database();
  const all: unknown[] = [];
  for (const [table, columns] of Object.entries(tables))
    all.push([
      table,
      (
        (await db(table)
          .select([...columns])
          .orderBy('rowid')) as Record<string, unknown>[]
      ).map(plain),
    ]);
  return createHash('sha256').update(JSON.stringify(all)).digest('hex');
}

/** What must never be: a release that would be refused, two open runs, an act without what it says. */
async function wrong(): Promise<string[]> {
  const found: string[] = [];
  const shop = await loadShop();
  for (const { id, number } of (await listJobs()).jobs) {
    const record = (await loadJobRecord(id))!;
    if (record.runs.filter((each) => each.state === 'recording' || each.state === 'complete').length > 1)
      found.push(`job ${number} has two open runs`);
    for (const act of record.acts)
      if (act.act === 'kept' && record.runs.every((each) => each.id !== act.subject)) found.push('an act of no run');
    if (!standing(record)) continue;
    const { evaluation } = await evaluateJob(record, shop, 'traces');
    const blocking = blockingOf(record, { evaluation, behind: await behindOf(record, shop) });
    if (blocking.length > 0) found.push(`a release of job ${number} stands that would be refused`);
  }
  return found;
}

if (process.env.TRUST_STEPS === '1') {
  const steps: object[] = [];
  await run(async (title, writes, live) => void steps.push({ title, writes, live, state: await state() }));
  writeSync(1, `${JSON.stringify(steps)}\n`);
} else {
  await bringBackAside();
  writeSync(1, `${JSON.stringify({ state: await state(), wrong: await wrong() })}\n`);
}
process.exit(0);
