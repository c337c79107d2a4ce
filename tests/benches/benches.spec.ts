import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { readCautions, tabTo } from '../e2e/keyboard';

/*
 * Every kind, sound, from booking in to its release by keyboard alone, begun late at every guide: no sound unit fails for
 * a hand that was slow. Writes docs/benches.md.
 */

interface Bench {
  readonly sheet: string;
  readonly plan: 'bench' | 'vehicle';
  /** Where the form offers two plans: keys that choose this one. */
  readonly second?: boolean;
}

const benches: readonly Bench[] = [
  { sheet: 'tarnock-r7', plan: 'bench' },
  { sheet: 'tarnock-s11', plan: 'bench' },
  { sheet: 'ullerby-p25', plan: 'bench' },
  { sheet: 'ullerby-p25', plan: 'vehicle', second: true },
  { sheet: 'ostvale-e4', plan: 'vehicle' },
  { sheet: 'ullerby-hb70', plan: 'vehicle' },
  { sheet: 'tarnock-m18', plan: 'bench' },
  { sheet: 'ullerby-glacier', plan: 'vehicle' },
  { sheet: 'ostvale-dv2', plan: 'bench' },
];

interface Done {
  readonly step: string;
  readonly verdict: string;
}

interface Outcome {
  readonly name: string;
  readonly plan: string;
  readonly steps: readonly Done[];
  readonly released: string;
  readonly seconds: number;
}

/** A hand begins so late, in the bench's own time, s. */
const lateBy = 15;
const slow = 20;
const quick = 400;

const outcomes: Outcome[] = [];

const headline = (page: Page) => page.getByRole('heading', { level: 1 });
const blur = (page: Page) => page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());

/** Sets the rig's time by keys, unless the run is over by then. */
async function rigTime(page: Page, speed: number): Promise<void> {
  const list = page.getByLabel('Rig time');
  try {
    for (let i = 0; i < 4 && (await list.inputValue({ timeout: 3_000 })) !== String(speed); i++) {
      await list.focus({ timeout: 3_000 });
      await page.keyboard.press(Number(await list.inputValue({ timeout: 3_000 })) < speed ? 'ArrowDown' : 'ArrowUp');
      await page.waitForTimeout(150);
    }
  } catch (error) {
    if (await list.isVisible()) throw error;
  }
  await blur(page);
}

/** One measured step, started: left alone for a while, then done by the rig, at its own pace or quicker, and kept. */
async function measure(page: Page): Promise<void> {
  await rigTime(page, slow);
  await page.waitForTimeout((lateBy / slow) * 1000);
  const pulls = page.getByRole('button', { name: /Let the rig pull/ });
  if (await pulls.isVisible()) await page.keyboard.press('Space');
  await rigTime(page, quick);
  await expect(page.getByRole('button', { name: /Keep this run/ })).toBeEnabled({ timeout: 900_000 });
  await expect(page.getByRole('heading', { name: /This run/ })).toBeVisible();
  await page.keyboard.press('Enter');
}

async function look(page: Page): Promise<void> {
  await tabTo(page, /^The rest:/);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Every point has a word')).toBeVisible();
  await blur(page);
  await page.keyboard.press('Enter');
}

async function type(page: Page): Promise<void> {
  await tabTo(page, /stand-in/i);
  await page.keyboard.press('Enter');
  await page.waitForTimeout(400);
  await tabTo(page, /Keep these readings/);
  await page.keyboard.press('Enter');
}

/** Goes through a plan until the job has nothing more to do; each step once, a proof again where it is asked for once more. */
async function goThrough(page: Page, job: string): Promise<void> {
  for (let visits = 0; visits < 40; visits++) {
    const before = page.url();
    if (!before.includes('/bench/')) return;
    await readCautions(page);
    const said = (await headline(page).textContent()) ?? '';
    if (await page.getByRole('button', { name: /^The rest:/ }).isVisible()) await look(page);
    else if (said.includes('type what you read')) await type(page);
    else {
      // Starts it, does a proof once more, or goes where a shut step sends.
      await page.keyboard.press('Enter');
      const runs = page.getByLabel('Rig time');
      await Promise.race([
        runs.waitFor({ timeout: 8_000 }),
        page.waitForFunction((was) => window.location.href !== was, before, { timeout: 8_000 }),
      ]).catch(() => undefined);
      if (await runs.isVisible()) await measure(page);
    }
    await page
      .waitForFunction((was) => window.location.href !== was, before, { timeout: 20_000 })
      .catch(() => undefined);
    await page.waitForTimeout(400);
    if (page.url() === before) await page.goto(job);
    if (!page.url().includes('/bench/')) {
      const on = page.getByRole('link', { name: /^(To the|Go on with)/ });
      if ((await on.count()) === 0) return;
      await tabTo(page, /^(To the|Go on with)/);
      await page.keyboard.press('Enter');
      await page.waitForURL(/\/bench\//);
    }
  }
}

/** What a job came to, as the server says it. */
async function verdictsOf(page: Page, job: string): Promise<readonly Done[]> {
  const answer = await page.request.get(`/api${job}`);
  const view = (await answer.json()) as {
    steps: readonly { title: string; evaluation: { verdict: string; optional: boolean } }[];
  };
  return view.steps.map(({ title, evaluation }) => ({ step: title, verdict: evaluation.verdict }));
}

async function release(page: Page, job: string): Promise<string> {
  await page.goto(job);
  if ((await page.getByRole('link', { name: 'Release it' }).count()) === 0) return 'not releasable';
  await tabTo(page, /Release it/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'It can be released' })).toBeVisible();
  await tabTo(page, /Issue the release/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Issued' })).toBeVisible();
  return 'released';
}

for (const [at, { sheet, plan, second }] of benches.entries())
  test(`${sheet}, ${plan}: sound, begun late, passes and is released`, async ({ page }) => {
    const started = Date.now();
    await page.goto(`/book-in?sheet=${sheet}`);
    const name = (await page.getByRole('heading', { level: 2 }).first().textContent()) ?? sheet;
    await tabTo(page, /Serial/);
    await page.keyboard.type(`BENCH-${at + 1}`);
    await page.keyboard.press('Tab');
    await page.keyboard.type('Spare from the store');
    if (second) {
      await tabTo(page, /Tested as/);
      await page.keyboard.press('Enter');
      await page.getByRole('option').first().waitFor();
      await page.keyboard.press('End');
      await page.keyboard.press('Enter');
    }
    await tabTo(page, /^Book in$/);
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/jobs\/[^/]+$/);
    const job = new URL(page.url()).pathname;
    await tabTo(page, /^To the/);
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/bench\//);
    await goThrough(page, job);
    const steps = await verdictsOf(page, job);
    const released = await release(page, job);
    outcomes.push({ name, plan, steps, released, seconds: Math.round((Date.now() - started) / 1000) });
    expect(steps.filter((step) => step.verdict === 'fail')).toEqual([]);
    expect(released).toBe('released');
  });

test.afterAll(() => {
  const count = (steps: readonly Done[], verdict: string) => steps.filter((each) => each.verdict === verdict).length;
  const rows = outcomes.map(({ name, plan, steps, released, seconds }) =>
    [
      name,
      plan,
      steps.length,
      count(steps, 'pass'),
      count(steps, 'recorded'),
      steps
        .filter((each) => each.verdict === 'undecided')
        .map((each) => each.step)
        .join(', ') || '0',
      count(steps, 'fail'),
      steps
        .filter((each) => each.verdict === 'not-run')
        .map((each) => each.step)
        .join(', ') || '0',
      released,
      seconds,
    ].join(' | '),
  );
  const table = [
    '| unit | plan | steps | pass | recorded | undecided | fail | not run | end | seconds |',
    '| --- | --- | --- | --- | --- | --- | --- | --- | --- | --- |',
    ...rows.map((row) => `| ${row} |`),
  ].join('\n');
  writeFileSync(
    path.join(process.cwd(), 'docs', 'benches.md'),
    `# Whole jobs of every kind

Sound units from booking in to the release, by keyboard alone, in a browser, on the stand-in: every guide is begun ${lateBy} s late. Written by
\`npm run benches\`, which takes some ten minutes; seconds are those of the run, with the rig up to ${quick} times as quick as a bench.

${table}
`,
  );
});
