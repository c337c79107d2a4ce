import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { readCautions } from './keyboard';

/** Books a remote unit in and opens a step of it at the bench, cautions read. */
async function bookedAt(page: Page, serial: string, step: string): Promise<string> {
  await page.goto('/book-in');
  await page.getByLabel('Unit sheet').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: 'Tarnock R7' }).click();
  await page.getByLabel('Serial').fill(serial);
  await page.getByLabel('Came off').fill('Grader 2');
  await page.getByRole('button', { name: 'Book in', exact: true }).click();
  await page.waitForURL(/\/jobs\/[^/]+$/);
  const job = new URL(page.url()).pathname;
  await page.goto(`${job}/bench/${step}`);
  await readCautions(page);
  return job;
}

/** Records for a moment and stops: a finished run that waits to be kept. */
async function record(page: Page, start: RegExp): Promise<void> {
  await page.getByRole('button', { name: start }).click();
  await expect(page.getByRole('button', { name: /Stop here/ })).toBeVisible();
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: /Stop here/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Keep this run, or run it again?');
}

test('a run that was thrown away, a move and a job taken out are brought back where they went', async ({ page }) => {
  const job = await bookedAt(page, 'TK-U-501', 'vacuum-hold-rest');
  await record(page, /Start recording/);
  await page.keyboard.press('x');
  const back = page.getByRole('button', { name: /^Bring back: A run of “Vacuum hold, at rest”/ });
  await expect(back).toBeVisible();
  await expectAccessible(page, 'bench with a run to bring back');
  await back.click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Keep this run, or run it again?');

  // Run again: the former is set aside, and comes back when the new one is thrown away.
  await record(page, /Run it again/);
  await page.getByRole('button', { name: /Throw it away, back to the former/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Keep this run, or run it again?');
  await expect(page.getByRole('button', { name: /Throw it away/ })).not.toContainText('former');
  await page.getByRole('button', { name: /Keep this run/ }).click();

  await page.goto(job);
  await page.getByLabel('Place', { exact: true }).selectOption('gone');
  await expect(page.getByRole('button', { name: 'Bring back: Moved: fetched' })).toBeVisible();
  await page.goto('/');
  const left = page.getByRole('region', { name: 'Left the floor within the day' });
  await left.getByRole('button', { name: /TK-U-501: Moved: fetched/ }).click();
  await expect(page.getByRole('link', { name: /TK-U-501/ }).first()).toBeVisible();

  await page.goto(job);
  await page.getByRole('button', { name: /take it out/ }).click();
  await page.waitForURL('/');
  await expect(page.getByRole('link', { name: /TK-U-501/ })).toHaveCount(0);
  await left.getByRole('button', { name: /TK-U-501: Taken out of the book/ }).click();
  await expect(page.getByRole('link', { name: /TK-U-501/ }).first()).toBeVisible();
});

test('an instrument that was taken off is put back', async ({ page }) => {
  await page.goto('/instruments');
  const row = page.getByRole('row', { name: /Pedal travel/ });
  await row.getByRole('button', { name: 'Take off' }).click();
  await expect(row).toHaveCount(0);
  await page.getByRole('button', { name: /^Put Pedal travel .* back$/ }).click();
  await expect(row).toBeVisible();
});
