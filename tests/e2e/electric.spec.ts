import { expect, test } from '@playwright/test';
import { expectAccessible } from './axe';
import { press } from './keyboard';

const person = 'Tomas Rehn';

test('nobody gets past a motor booster that was not proved asleep: not by mouse, not by key, not by asking the server', async ({
  page,
  request,
}) => {
  const booked = await request.post('/api/jobs', {
    data: {
      sheetId: 'ostvale-mb3',
      serial: 'OW-MB3-900',
      vehicle: 'Electric parcel van 1',
      complaint: 'Interlock',
      person,
      plan: 'bench',
    },
  });
  expect(booked.ok()).toBe(true);
  const { id } = (await booked.json()) as { id: string };
  const shut = page.getByRole('heading', { name: 'Supply under load is shut' });

  await page.goto(`/jobs/${id}`);
  await page.getByRole('link', { name: 'Supply under load: do it' }).click();
  await expect(shut).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start recording' })).toHaveCount(0);
  await page.getByRole('tab', { name: 'Dials' }).click();
  await expect(shut).toBeVisible();
  await expect(page.locator('main input')).toHaveCount(0);
  await page.getByRole('tab', { name: 'Log file' }).click();
  await expect(shut).toBeVisible();
  await expectAccessible(page, 'a motor booster that is shut');

  for (const key of ['Space', 'r', 's', 'q', '1']) await page.keyboard.press(key);
  await expect(shut).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/make-safe-before/);

  const cautions = ['wakes-by-itself', 'service-mode', 'fluid-jet'];
  await request.post(`/api/jobs/${id}/cautions`, { data: { cautions, person } });
  const asks = [
    request.post(`/api/jobs/${id}/runs`, { data: { step: 'supply-check', person } }),
    request.post(`/api/jobs/${id}/readings`, {
      data: { step: 'supply-check', readings: { 'supply-drop': 0.1, 'ground-drop': 0.05 }, person, standIn: false },
    }),
    request.post(`/api/jobs/${id}/looks`, {
      data: { step: 'fault-codes', findings: { codes: 'none', plug: 'none', boot: 'none' }, person },
    }),
    request.post(`/api/jobs/${id}/imports`, {
      data: {
        step: 'sensor-tracks',
        person,
        file: { name: 'log.csv', leftOut: [] },
        fingerprint: 'time,a,b',
        mapping: [],
      },
    }),
  ];
  for (const answer of await Promise.all(asks)) {
    expect(answer.status()).toBe(409);
    expect(((await answer.json()) as { message: string }).message).toContain('proved asleep');
  }

  // A current that is too large opens nothing, nor a small one on a meter that nobody saw work; one that sleeps opens the next step.
  const type = async (current: string, meter: string) => {
    await page.goto(`/jobs/${id}/bench/make-safe-before?by=dial`);
    await page.getByLabel(/Current asleep/).fill(current);
    await page.getByLabel('The meter was seen to work').selectOption({ label: meter });
    await page.getByRole('button', { name: 'Keep these readings' }).click();
    await expect(page).not.toHaveURL(/make-safe-before/);
  };
  const saw = 'It fell as the unit fell asleep';
  for (const [current, meter] of [
    ['640 mA', saw],
    ['9 mA', 'It was not seen to work'],
  ]) {
    await type(current, meter);
    await page.goto(`/jobs/${id}/bench/supply-check`);
    await expect(shut).toBeVisible();
  }
  await type('9 mA', saw);
  await expect(page.getByRole('button', { name: 'Start recording' })).toBeVisible();
});

test('the tracks of a sensor are drawn over travel, and a booster with a bad ground is told by its drop', async ({
  page,
}) => {
  await page.goto('/jobs/job-ow-mb3-017/bench/sensor-tracks');
  await expect(page.getByRole('heading', { name: 'Tracks of the sensor, kept' })).toBeVisible();
  await expect(page.getByText('Gain, track B')).toBeVisible();
  await expectAccessible(page, 'the tracks of a sensor');
  await page.goto('/jobs/job-ow-mb3-017');
  await expect(page.getByText(/^Ground: \d+\.\d mΩ by this drop and current\.$/)).toBeVisible();
  await expect(page.getByText(/A release waits for: Supply under load \(fail\)/)).toBeVisible();
});

test('a wiring plan is made by keyboard from a sheet, and kept over a reload', async ({ page }) => {
  await page.goto('/wiring?sheet=ostvale-mb3');
  await expect(page.getByRole('button', { name: 'Print the plan' })).toBeDisabled();
  await page.getByLabel(/Length, one way/).focus();
  for (const key of '2.2') await press(page, key);
  await expect(page.getByRole('heading', { name: '10 mm² behind 40 A' })).toBeVisible();
  await expect(page.getByRole('table', { name: 'Parts' })).toContainText('10 mm²');
  await expectAccessible(page, 'the wiring planner');
  await page.reload();
  await expect(page.getByLabel(/Length, one way/)).toHaveValue('2.2');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('form', { name: 'What it has to carry' })).toBeHidden();
  await expect(page.getByRole('heading', { name: '10 mm² behind 40 A' })).toBeVisible();
});
