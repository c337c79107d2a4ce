import { sweep } from './sweep';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { press, readCautions, tabTo } from './keyboard';

const folder = mkdtempSync(join(tmpdir(), 'hard-pedal-logs-'));

/** A log as another logger writes it: its own headers and units, the vacuum as negative gauge pressure. */
function foreignLog(name: string, rows: number, damage: Readonly<Record<number, string>> = {}): string {
  const lines = [
    't (s),Inlet P (psi),Outlet P (psi),Booster vac (bar),Control vac (bar),Room (°C),Battery (V),Counter',
  ];
  for (let i = 0; i < rows; i++) {
    const share = i / rows;
    const pull =
      share < 0.05 ? 0 : share < 0.5 ? (share - 0.05) / 0.45 : share < 0.55 ? 1 : Math.max(0, 1 - (share - 0.55) / 0.4);
    const input = 2300 * pull + (i % 7);
    const boost = Math.min(1, Math.max(0, (input - 350) / 1400));
    const output = 0.85 * input + boost * 1700 + (i % 5);
    lines.push(
      damage[i] ??
        `${(i / 200).toFixed(3)},${(input / 6.894757).toFixed(3)},${(Math.max(output, input) / 6.894757).toFixed(3)},${(-0.586 + (i % 3) * 0.0004).toFixed(4)},${(-0.58 * (1 - boost)).toFixed(4)},11.2,12.6,${i % 100}`,
    );
  }
  const file = join(folder, name);
  writeFileSync(file, lines.join('\n'));
  return file;
}

test(
  'a log of a million rows is read, understood, judged and kept, and reading it can be cancelled',
  sweep,
  async ({ page }) => {
    const file = foreignLog('million.csv', 1_000_000);
    await page.goto('/jobs/job-tk-2207-118/bench/boost-curve?by=log');
    await expect(page.getByRole('heading', { name: /bring the log of it/ })).toBeVisible();
    await expectAccessible(page, 'log, empty');
    await page.getByLabel('Log file').setInputFiles(file);
    await expect(page.getByRole('progressbar', { name: 'Read so far' })).toBeVisible();
    await page.getByRole('button', { name: 'Cancel' }).click();
    await expect(page.getByRole('heading', { name: /bring the log of it/ })).toBeVisible();

    await page.evaluate(() => {
      const tasks: number[] = [];
      Object.assign(window, { tasks });
      new PerformanceObserver((list) => tasks.push(...list.getEntries().map((entry) => entry.duration))).observe({
        entryTypes: ['longtask'],
      });
    });
    const begun = Date.now();
    await page.getByLabel('Log file').setInputFiles(file);
    await expect(page.getByRole('heading', { name: /This log/ })).toBeVisible({ timeout: 240_000 });
    const seconds = (Date.now() - begun) / 1000;
    const longest = await page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks));
    console.log(
      `a million rows read and judged in ${seconds.toFixed(1)} s, longest task of the page ${longest.toFixed(0)} ms`,
    );
    await expect(page.getByText('1,000,000 rows, 8 columns')).toBeVisible();
    await expect(page.getByLabel('What Inlet P (psi) is')).toHaveValue('input_pressure');
    await expect(page.getByLabel('How Booster vac (bar) is read')).toHaveValue('negative');
    await expectAccessible(page, 'log, mapped');
    await page.getByRole('button', { name: /Keep this log/ }).click();
    await expect(page).not.toHaveURL(/by=log/, { timeout: 240_000 });
  },
);

test('damaged rows are named and left out only when asked, and the mapping is remembered', async ({ page }) => {
  const file = foreignLog('damaged.csv', 4000, {
    10: '0.05,ten,1,-0.5,-0.5,11,12,0',
    20: '0.01,1,1,-0.5,-0.5,11,12,0',
  });
  await page.goto('/jobs/job-ul-82-0340/bench/boost-curve?by=log');
  await page.getByLabel('Log file').setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'Some rows cannot be used' })).toBeVisible();
  const problems = page.locator('main').getByRole('alert');
  await expect(problems).toContainText('line 12');
  await expect(problems).toContainText('line 22');
  await page.getByRole('button', { name: /Leave these 2 rows out/ }).click();
  await expect(page.getByText(/4,000 rows, 8 columns, 2 left out/)).toBeVisible();
  await page.getByLabel('What Room (°C) is').selectOption('air_temperature');
  await page.getByRole('button', { name: /Leave these 2 rows out/ }).click();
  await page.getByRole('button', { name: /Keep this log/ }).click();
  await expect(page).not.toHaveURL(/by=log/);

  await page.goto('/jobs/job-ul-82-0340/bench/boost-curve?by=log');
  await page.getByLabel('Log file').setInputFiles(foreignLog('again.csv', 4000));
  await expect(page.getByText('Understood as the last log with these headers.')).toBeVisible();
  await expect(page.getByLabel('What Room (°C) is')).toHaveValue('air_temperature');
});

test('a unit that a log leaves out is asked about before it is kept, once', async ({ page }) => {
  const file = join(folder, 'without-a-unit.csv');
  writeFileSync(file, readFileSync(foreignLog('with-units.csv', 4000), 'utf8').replace('Outlet P (psi)', 'Outlet P'));
  await page.goto('/jobs/job-tk-2207-118/bench/boost-curve?by=log');
  await page.getByLabel('Log file').setInputFiles(file);
  const questions = page.getByRole('list', { name: 'To be answered' });
  await expect(questions).toContainText('“Outlet P” names no unit. Which is it?');
  await page.getByRole('button', { name: /Keep this log/ }).click();
  await expect(page.getByText('Answer first what is asked about its columns.')).toBeVisible();
  await expect(page.getByText('What it comes to hangs on what is asked')).toBeVisible();
  await expectAccessible(page, 'a log that leaves a unit open');
  await page.getByLabel('Unit of Outlet P').selectOption('psi');
  await expect(questions).toHaveCount(0);
  await expect(page.getByRole('heading', { name: /This log/ })).toBeVisible();
  await page.getByRole('button', { name: /Keep this log/ }).click();
  await expect(page).not.toHaveURL(/by=log/);
  await page.goto('/jobs/job-tk-2207-118/bench/boost-curve?by=log');
  await page.getByLabel('Log file').setInputFiles(file);
  await expect(page.getByText('Understood as the last log with these headers.')).toBeVisible();
  await expect(questions).toHaveCount(0);
});

test('dial readings are typed by keyboard, understood in any unit, and survive a reload', async ({ page }) => {
  await page.goto('/jobs/job-tk-t10-052/bench/vacuum-hold-rest?by=dial');
  await readCautions(page);
  await tabTo(page, /Vacuum at the start/);
  await page.keyboard.type('17.7 inHg');
  await expect(page.getByText('59.94 kPa vacuum')).toBeVisible();
  await press(page, 'Enter');
  await page.keyboard.type('60');
  await press(page, 'Enter');
  await expect(page.getByText('sound: 46.7 to 59.9 kPa')).toBeVisible();
  await page.keyboard.type('-0.59 bar');
  await expect(page.getByText('59 kPa vacuum, read as negative gauge')).toBeVisible();
  await expect(page.getByRole('heading', { name: /So far/ })).toContainText('Pass');
  await page.reload();
  await expect(page.getByLabel(/Vacuum at the start/)).toHaveValue('17.7 inHg');
  await expect(page.getByLabel(/Vacuum at the end/)).toHaveValue('-0.59 bar');
  await expectAccessible(page, 'dial readings');
  await tabTo(page, /Vacuum at the end/);
  await press(page, 'End');
  await page.keyboard.type('x');
  await expect(page.getByText('the unit “barx” is not known')).toBeVisible();
  await press(page, 'Backspace');
  for (let i = 0; i < 3; i++) await press(page, 'Enter');
  await expect(page.locator('[aria-current=step]')).toContainText('Output-rod gap');
  await page.getByRole('button', { name: /Read the stand-in/ }).click();
  await expect(page.getByRole('heading', { name: /So far/ })).toContainText(/Pass|Undecided/);
  await page.getByRole('button', { name: /Keep these readings/ }).click();
  await expect(page.locator('[aria-current=step]')).toContainText('Letting go');
});
