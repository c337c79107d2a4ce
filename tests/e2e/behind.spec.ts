import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { press, readCautions, tabTo } from './keyboard';

test('a hard pedal that is not the booster’s is handed on, and comes back with its answer', async ({ page }) => {
  await page.goto('/jobs/job-ul-mb-061');
  await expect(page.getByRole('region', { name: 'Where the inquiry ends' })).toContainText('It is not the booster');
  const behind = page.getByRole('region', { name: 'Behind the unit' });
  await expect(behind).toContainText('Behind it: the combination valve stands to one side');
  // What was found behind it stands in the way of its release.
  await expect(page.getByText(/A release waits for:.*combination valve stands to one side/)).toBeVisible();
  await expectAccessible(page, 'a job with what is behind it');
  await expect(behind.getByRole('link', { name: /^Job \d+/ })).toBeVisible();
  await page.getByRole('link', { name: 'To what is behind it' }).click();
  await expect(page.getByText(/This looks behind job \d+/)).toBeVisible();
  await expect(page.getByText(/One axle stands alone and the lamp is lit/)).toBeVisible();

  // Another time it is handed on from the form, by keys: vehicle and complaint are there already.
  await page.goto('/book-in?behind=job-ul-mb-061');
  await expect(page.getByRole('heading', { name: /^Look behind job \d+/ })).toBeVisible();
  await expect(page.getByLabel('Came off')).toHaveValue('Crew minibus 4');
  await page.getByLabel('Unit sheet').focus();
  await press(page, 'Enter');
  await expect(page.getByRole('option', { name: 'Tarnock R7' })).toHaveCount(0);
  await page.getByRole('option', { name: 'Ullerby crew minibus' }).click();
  await tabTo(page, /^Book in$/);
  await press(page, 'Enter');
  await page.waitForURL(/\/jobs\/(?!job-ul)[^/]+$/);
  const job = page.url();
  await expect(page.getByText(/This looks behind job \d+/)).toBeVisible();

  // What the sheet alone says is there at once, and says what it is.
  await page.goto(`${job}/bench/failed-assist-stop`);
  await expect(page.getByRole('heading', { name: /worked out of the sheet/ })).toBeVisible();
  await expect(page.getByText(/4\.0\d ± /)).toBeVisible();
  await expect(page.getByText(/and no approval/).first()).toBeVisible();
  await expectAccessible(page, 'a calculation');
  await page.goto(`${job}/bench/bleed`);
  await readCautions(page);
  await expect(page.getByRole('list', { name: 'How it is done here' })).toContainText('Farthest wheel first');
  await expectAccessible(page, 'bleeding');
});

test('a stop-lamp switch that is too tight and a parking cable are named, each with what to do next', async ({
  page,
}) => {
  await page.goto('/jobs/job-tk-mv-017');
  await expect(page.getByRole('region', { name: 'Where the inquiry ends' })).toContainText(
    'The stop-lamp switch is set wrong',
  );
  await page.goto('/jobs/job-ow-gr-009');
  await expect(page.getByRole('region', { name: 'Where the inquiry ends' })).toContainText('A parking cable is seized');
  await page.goto('/jobs/job-ow-gr-009/bench/failed-assist-stop');
  await expect(page.getByText(/after the maker’s manual of the grader/).first()).toBeVisible();
});
