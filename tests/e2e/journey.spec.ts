import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { recorded } from './recorded';
import { hurry, lookIsGood, measureByKeys, press, tabTo } from './keyboard';

const measuredSteps = [
  'Stop-lamp switch',
  'Gauge agreement',
  'Low-pressure hold',
  'Vacuum draw',
  'Vacuum hold, at rest',
  'Boost curve',
  'Vacuum hold, applied',
  'Pressure hold',
];

test('a remote unit from booking in to a release, by keyboard alone', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: /Vennholm bench/ })).toBeVisible();
  await expectAccessible(page, 'floor');
  await press(page, 'b');
  await expect(page.getByRole('heading', { name: 'Book in a unit' })).toBeVisible();
  await tabTo(page, /Unit sheet/);
  await press(page, 'Enter');
  await page.getByRole('option', { name: 'Tarnock R7' }).waitFor();
  // The first letter goes from one sheet that begins with it to the next.
  const chosen = page.locator('[role=option]:focus');
  for (let at = 0; at < 8 && (await chosen.textContent()) !== 'Tarnock R7'; at++) await press(page, 'T');
  await expect(chosen).toHaveText('Tarnock R7');
  await press(page, 'Enter');
  await expect(page.getByRole('img', { name: /Expected boost curve. Cut-in/ })).toBeVisible();
  await tabTo(page, /Serial/);
  await page.keyboard.type('TK-2207-131');
  await press(page, 'Tab');
  await page.keyboard.type('Grader 2, spare');
  await expectAccessible(page, 'book-in');
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'Tarnock R7' })).toBeVisible();
  await expectAccessible(page, 'job');
  await tabTo(page, /To the bench: look over/);
  await press(page, 'Enter');

  await expect(page.getByRole('heading', { name: 'Read these first' })).toBeVisible();
  await lookIsGood(page);
  for (const title of measuredSteps) await measureByKeys(page, title);
  await expect(page.locator('[aria-current=step]')).toContainText('Leak look');
  await expectAccessible(page, 'leak look');
  await lookIsGood(page);
  await measureByKeys(page, 'Release and drain');

  await expect(page.getByRole('link', { name: 'Release it' })).toBeVisible();
  await tabTo(page, /Release it/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'It can be released' })).toBeVisible();
  await tabTo(page, /Issue the release/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'Issued' })).toBeVisible();
  await expectAccessible(page, 'release');

  const pdf = await page.request.get((await page.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  const html = await (
    await page.request.get((await page.getByRole('link', { name: 'HTML' }).getAttribute('href')) ?? '')
  ).text();
  for (const said of [
    'TK-2207-131',
    'Boost ratio',
    'Measured by a stand-in rig',
    'Set B input transducer',
    'in date until 2027-03-12',
    'Signature',
    '85.4',
    'Ilse Varga',
    '<svg',
  ])
    expect(html).toContain(said);
  expect(html).not.toMatch(/(?:src|href)="http/);
});

test('a run survives a reload, and a second screen sees the same', async ({ page, context }) => {
  await page.goto('/jobs/job-ow-254-009/bench/leak-look');
  await page.goto('/jobs/job-tk-2207-118/bench/boost-curve');
  await expect(page.getByRole('heading', { name: 'Boost curve, kept' })).toBeVisible();
  await page.getByRole('button', { name: /Run it again/ }).click();
  await expect(page.getByLabel('Rig time')).toBeVisible();
  await page.getByRole('button', { name: /Let the rig pull/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Pull the lever slowly past');
  const secondsOn = async (where: Page) =>
    Number(/samples\/s, (\d+) s/.exec((await where.locator('footer').textContent()) ?? '')?.[1] ?? Number.NaN);
  await expect.poll(() => secondsOn(page)).toBeGreaterThan(4);
  const before = await secondsOn(page);

  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Pull the lever slowly past');
  await expect.poll(() => secondsOn(page)).toBeGreaterThan(before);
  const other = await context.newPage();
  await other.goto('/jobs/job-tk-2207-118/bench/boost-curve');
  await expect.poll(() => secondsOn(other)).toBeGreaterThan(before);
  expect(Math.abs((await secondsOn(other)) - (await secondsOn(page)))).toBeLessThanOrEqual(1);
  await expectAccessible(page, 'bench while recording');
  await other.close();

  await hurry(page);
  await expect(page.getByRole('button', { name: /Keep this run/ })).toBeEnabled({ timeout: 240_000 });
  // Nothing was lost: the analysis finds the whole pull, and the samples run on without a gap.
  await expect(page.getByRole('heading', { name: /This run/ })).toContainText('Pass');
  const id = await page.evaluate(
    async () => ((await (await fetch('/api/jobs/job-tk-2207-118')).json()) as { openRun: { id: string } }).openRun.id,
  );
  const { time: clock } = await recorded(page.request, id);
  const gaps = Array.from(clock.subarray(1), (time, i) => time - clock[i]);
  expect(Math.max(...gaps)).toBeLessThan(0.0051);
  expect(Math.min(...gaps)).toBeGreaterThan(0.0049);
  await page.getByRole('button', { name: /Keep this run/ }).click();
});

test('a page is never without its title, and an address that leads to nothing says so', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveTitle('Floor · Hard Pedal');
  await page.evaluate(() => {
    const seen = new Set([document.title]);
    Object.assign(window, { seen });
    new MutationObserver(() => seen.add(document.title)).observe(document, { subtree: true, childList: true });
  });
  const seen = () => page.evaluate(() => [...(window as unknown as { seen: Set<string> }).seen]);
  await page
    .getByRole('link', { name: /TK-2207-118/ })
    .first()
    .click();
  await expect(page).toHaveTitle(/TK-2207-118/);
  await page.getByRole('link', { name: 'Instruments' }).click();
  await expect(page).toHaveTitle('Instruments · Hard Pedal');
  expect((await seen()).filter((title) => title === '')).toEqual([]);

  const answer = await page.goto('/jobs/nobody');
  expect(answer?.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'Not in the book' })).toBeVisible();
  await expect(page).toHaveTitle('Not in the book · Hard Pedal');
  await expectAccessible(page, 'nothing there');
  await page.getByRole('link', { name: 'Back to the floor' }).click();
  await expect(page.getByRole('heading', { name: /Vennholm bench/ })).toBeVisible();
});

test('the lever is dragged by mouse and moved by keys', async ({ page }) => {
  await page.goto('/jobs/job-tk-2207-118/bench/stop-lamp-switch');
  await page.getByRole('button', { name: /Run it again/ }).click();
  const lever = page.getByRole('slider', { name: 'Lever' });
  await expect(lever).toBeVisible();
  const figure = page.getByRole('region', { name: 'Input' }).locator('output');
  const box = (await lever.locator('xpath=..').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y - 60, { steps: 6 });
  await page.mouse.up();
  await expect.poll(async () => Number(await figure.textContent())).toBeGreaterThan(0.2);
  await lever.focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => Math.abs(Number((await figure.textContent())?.replace('−', '-')))).toBeLessThan(0.03);
  for (let i = 0; i < 3; i++) await page.keyboard.press('PageUp');
  await expect.poll(async () => Number(await figure.textContent())).toBeGreaterThan(0.2);
  await page.getByRole('button', { name: /Stop here/ }).click();
  await expect(page.getByRole('button', { name: /Keep this run/ })).toBeVisible();
  await page.getByRole('button', { name: /Run it again/ }).click();
  await expect(page.getByLabel('Rig time')).toBeVisible();
  await page.getByRole('button', { name: /Stop here/ }).click();
});
