import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { press, readCautions, tabTo } from './keyboard';

const person = 'Noor Halabi';

async function booked(page: Page, sheetId: string, serial: string, plan: string): Promise<string> {
  const answer = await page.request.post('/api/jobs', {
    data: { sheetId, serial, vehicle: 'Crew minibus 9', complaint: 'Hard pedal', promisedAt: '', plan, person },
  });
  expect(answer.ok()).toBe(true);
  return ((await answer.json()) as { id: string }).id;
}

const soFar = (page: Page) => page.getByRole('complementary', { name: 'What it comes to' });

test('a curve is read row by row, by keyboard alone, and its figures grow beside it', async ({ page }) => {
  await page.goto('/jobs/job-tk-t10-052/bench/assist-curve?by=dial');
  await readCautions(page);
  await tabTo(page, /Force, row 1/);
  const rows = [
    ['60', '0', '61'],
    ['150', '0.7', '61'],
    ['300', '2.1', '60'],
    ['450', '3.5', '60'],
    ['600', '4.9', '59'],
    ['750', '6.3', '59'],
  ];
  for (const [at, row] of rows.entries()) {
    await expect(page.getByLabel(`Force, row ${at + 1}`)).toBeFocused();
    for (const cell of row) {
      await page.keyboard.type(cell);
      await press(page, 'Enter');
    }
  }
  await expect(soFar(page)).toContainText('Boost slope');
  await expect(soFar(page)).toContainText(/9\.3\d* ± [\d.]+ kPa\/N/);
  await expect(page.getByRole('img', { name: /^6 rows read: 60\.?0* gives 0/ })).toBeVisible();
  await expectAccessible(page, 'readings row by row');

  // Nothing of it is lost by a reload, and a row that was not begun is no row.
  await page.reload();
  await expect(page.getByLabel('Output, row 4')).toHaveValue('3.5');
  await tabTo(page, /Force, row 7/);
  await press(page, 'Enter');
  await expect(page).not.toHaveURL(/assist-curve/);
  await page.goto('/jobs/job-tk-t10-052/bench/assist-curve?by=dial');
  await expect(soFar(page)).toContainText(/Kept \d times? already/);
});

test('a row that is half filled is asked for, and what cannot be read is named', async ({ page }) => {
  await page.goto('/jobs/job-tk-t10-052/bench/unassisted-curve?by=dial');
  await readCautions(page);
  for (const [at, [force, output]] of [
    ['200', '0.2'],
    ['500', '0.75'],
    ['800', '1.3'],
  ].entries()) {
    await page.getByLabel(`Force, row ${at + 1}`).fill(force);
    await page.getByLabel(`Output, row ${at + 1}`).fill(output);
  }
  await page.getByLabel('Force, row 4').fill('900');
  await page.getByRole('button', { name: /Keep these readings/ }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Still to read: output, row 4' })).toBeVisible();
  await page.getByLabel('Output, row 4').fill('lots');
  await expect(page.getByText('Output: “lots” is not a figure')).toBeVisible();
});

test.describe('by touch on a tablet held upright', () => {
  test.use({ viewport: { width: 800, height: 1280 }, hasTouch: true });

  test('a hard pedal is ended by foot, mouth and one vacuum gauge', async ({ page }) => {
    const id = await booked(page, 'ullerby-p25', 'UL-25-0911', 'vehicle');
    const bench = (step: string) => page.goto(`/jobs/${id}/bench/${step}?by=dial`);
    const keep = () => page.getByRole('button', { name: /Keep these readings/ }).click();
    await bench('source-vacuum');
    await readCautions(page);
    await page.getByLabel(/At the unit, at idle/).fill('58');
    await page.getByLabel(/At the unit, pedal held/).fill('57');
    await keep();
    await expect(page).not.toHaveURL(/source-vacuum/);

    await bench('pedal-drop');
    await readCautions(page);
    await page.getByLabel(/Or by foot alone/).selectOption('sank a little and stayed');
    await expect(soFar(page)).toContainText('Felt, not measured: sank a little and stayed.');
    await keep();
    await expect(page).not.toHaveURL(/pedal-drop/);

    await bench('reserve');
    await readCautions(page);
    for (const [at, felt] of ['helped', 'helped', 'hard'].entries())
      await page
        .getByRole('radiogroup', { name: `Stroke, row ${at + 1}` })
        .getByText(felt, { exact: true })
        .tap();
    await expect(soFar(page)).toContainText('2 strokes');
    await expectAccessible(page, 'strokes as they are felt');
    await keep();
    await expect(page).not.toHaveURL(/bench\/reserve\?/);

    await bench('check-valve');
    await readCautions(page);
    await page.getByLabel(/Or taken out and blown through/).selectOption('blows both ways');
    await keep();
    await expect(page).not.toHaveURL(/check-valve/);

    await page.goto(`/jobs/${id}`);
    const conclusion = page.getByRole('region', { name: 'Where the inquiry ends' });
    await expect(conclusion.getByRole('heading')).toHaveText('The check valve leaks back');
    await expect(conclusion).toContainText('By foot and ear, not measured: check valve, pedal drop.');
  });
});

test('what nobody reads by hand says so, and what reads it', async ({ page }) => {
  await page.goto('/jobs/job-tk-hv-302/bench/handover?by=dial');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('nobody reads this by hand');
  await expect(page.locator('main input')).toHaveCount(0);
  await expectAccessible(page, 'a step that nobody reads');
  await page.getByRole('link', { name: 'Bring a log' }).click();
  await expect(page).toHaveURL(/by=log/);
});
