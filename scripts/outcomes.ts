import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { toldAt } from '@/core/contract/fault';
import { families } from '@/core/families';
import { faultBench } from '../tests/support/fault-bench';

/*
 * What everything comes to, so that a change that should change nothing can be held against the commit before it:
 *   npm run outcomes -- before.json            (on the commit before)
 *   npm run outcomes -- now.json before.json   (on this one: lists every difference)
 * Written are the evaluation of every example on every plan, sound and with every fault of its family, and the report
 * of every job of the demo shop.
 */

const [target, before] = process.argv.slice(2);
if (!target) throw new Error('say where to write the outcomes');

const outcomes: Record<string, unknown> = {};

for (const family of families)
  for (const layout of family.kinds) {
    const faults = [null, ...layout.model.faults];
    for (const plan of layout.plans) {
      const bench = faultBench(layout, plan.id);
      for (const fault of faults) {
        const active = fault ? [{ id: fault.id, severity: toldAt }] : [];
        for (const step of plan.steps)
          outcomes[`${family.id} ${layout.sheet.example.name} ${plan.id} ${fault?.id ?? 'sound'} ${step}`] = bench(
            active,
            fault?.appearance ?? {},
            [step],
          )[step];
      }
    }
  }

const folder = mkdtempSync(path.join(tmpdir(), 'outcomes-'));
process.env.HARD_PEDAL_DATA = folder;
const { demoShop } = await import('./demo-shop');
const { listJobs } = await import('@/data/jobs');
const { displayUnits } = await import('@/core/wording/display');
const { reportOfJob } = await import('@/server/views/build-report');
await demoShop(new Date('2026-11-23T09:00:00Z'));
const { jobs } = await listJobs();
for (const job of jobs) {
  outcomes[`report ${job.number} ${job.sheet.name}`] = await reportOfJob(job.id, {
    kind: 'findings-only',
    issuedAt: '2026-11-23T12:00:00Z',
    issuedBy: 'Ilse Varga',
    units: displayUnits('kpa'),
  });
}
rmSync(folder, { recursive: true, force: true });

/** Figures to twelve places: sums in another order are no difference. */
const rounded = (_: string, value: unknown): unknown =>
  typeof value === 'number' && Number.isFinite(value) ? Number(value.toPrecision(12)) : value;

/** Paths at which two values differ, with both. */
function differences(was: unknown, is: unknown, at = ''): string[] {
  if (JSON.stringify(was) === JSON.stringify(is)) return [];
  if (was === null || is === null || typeof was !== 'object' || typeof is !== 'object')
    return [`${at}: ${JSON.stringify(was)} -> ${JSON.stringify(is)}`];
  const [a, b] = [was as Record<string, unknown>, is as Record<string, unknown>];
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((key) =>
    differences(a[key], b[key], `${at}.${key}`),
  );
}

const text = JSON.stringify(outcomes, rounded);
writeFileSync(target, text);
process.stdout.write(`${Object.keys(outcomes).length} outcomes written.\n`);
if (before) {
  const found = differences(JSON.parse(readFileSync(before, 'utf8')), JSON.parse(text));
  process.stdout.write(found.length === 0 ? 'No difference.\n' : `${found.length} differences:\n${found.join('\n')}\n`);
}
process.exit(0);
