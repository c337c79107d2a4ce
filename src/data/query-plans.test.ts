import { emptyShopFolder } from '../../tests/support/shop';

emptyShopFolder();

import { database } from './database';
import { issueRelease } from '@/server/desk/issue-release';
import { takenOffToday } from '@/server/shop/instruments';
import { loadShop } from '@/server/shop/shop-now';
import { sphereLives } from '@/server/shop/spheres';
import { knownSerial } from '@/server/views/known-serial';
import { wholeFloor } from '../../tests/support/whole-floor';
import { jobView } from '@/server/views/job-view';
import { compareStep } from '@/server/views/compare-step';
import { releasesToReview } from './releases';
import { bringBackAside } from './runs';
import { book, openWorkshop, person, runWhole } from '../../tests/support/workshop';

beforeAll(openWorkshop);

/** Small tables of a workshop's own, read whole on purpose. */
const small = [
  'settings',
  'people',
  'instruments',
  'instruments_taken_off',
  'unit_sheets',
  'spheres',
  'versions',
  'clock',
];

/** Statements that a work asks of the database. */
async function asked(work: () => Promise<unknown>): Promise<{ sql: string; bindings: readonly unknown[] }[]> {
  const db = await database();
  const statements: { sql: string; bindings: readonly unknown[] }[] = [];
  const note = ({ sql, bindings }: { sql: string; bindings: readonly unknown[] }) => {
    statements.push({ sql, bindings: bindings ?? [] });
  };
  db.on('query', note);
  await work();
  db.removeListener('query', note);
  return statements;
}

/** Tables that a statement scans. */
async function scans(sql: string, bindings: readonly unknown[]): Promise<string[]> {
  if (!/^\s*(?:select|update|delete|insert)/i.test(sql)) return [];
  const plan = (await (await database()).raw(`explain query plan ${sql}`, bindings as string[])) as {
    detail: string;
  }[];
  return plan.flatMap(({ detail }) => {
    const found = /^SCAN (?!CONSTANT)(\w+)(?!.*USING (?:COVERING )?INDEX)/.exec(detail);
    return found ? [found[1]] : [];
  });
}

describe('what a page asks of the database', () => {
  it('is looked up by an index: nothing scans the book', async () => {
    const [job, before] = [await book('TK-Q-1'), await book('TK-Q-2')];
    await runWhole(job);
    await issueRelease(job.id, { kind: 'released', person, units: 'kpa' });
    const pages: Record<string, () => Promise<unknown>> = {
      floor: () => wholeFloor(),
      'floor, warm': () => wholeFloor(),
      job: () => jobView(job.id),
      'job, warm': () => jobView(job.id),
      'another job': () => jobView(before.id),
      compared: () => compareStep(job.id, { step: 'boost-curve' }),
      'a serial': () => knownSerial('TK-Q-1'),
      shop: () => loadShop(),
      instruments: () => takenOffToday(),
      spheres: () => sphereLives(),
      start: () => bringBackAside(),
      reviews: () => releasesToReview(),
    };
    const scanned: string[] = [];
    for (const [page, work] of Object.entries(pages))
      for (const { sql, bindings } of await asked(work))
        for (const table of await scans(sql, bindings))
          if (!small.includes(table)) scanned.push(`${page}: ${table} by ${sql}`);
    expect(scanned).toEqual([]);
  });

  it('is little: a warm floor asks the same few things whatever the size of the book', async () => {
    await wholeFloor();
    const few = await asked(() => wholeFloor());
    expect(few.length).toBeLessThanOrEqual(10);
    for (let i = 0; i < 12; i++) await book(`TK-Q-1${i}`);
    await wholeFloor();
    expect(await asked(() => wholeFloor())).toHaveLength(few.length);
  });

  it('a card goes with what changes on its job, and with nothing else', async () => {
    const [one, two] = [await book('TK-Q-31'), await book('TK-Q-32')];
    await wholeFloor();
    const cards = async () => (await (await database())('floor_cards').pluck('job_id')) as string[];
    expect(await cards()).toEqual(expect.arrayContaining([one.id, two.id]));
    await runWhole(one);
    expect(await cards()).not.toContain(one.id);
    expect(await cards()).toContain(two.id);
    const card = (await wholeFloor()).jobs.find(({ job }) => job.id === one.id);
    expect([card?.verdict, card?.blocked]).toEqual(['pass', false]);
  });
});
