import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';

const person = 'Tomas Rehn';

test('nobody gets past making dead: not by mouse, not by key, not by asking the server', async ({ page, request }) => {
  // A unit of its own, fresh from booking in.
  const sheets = await page.goto('/sheets');
  expect(sheets?.ok()).toBe(true);
  const booked = await request.post('/api/jobs', {
    data: {
      sheetId: 'tarnock-m18',
      serial: 'TK-M18-555',
      vehicle: 'Hybrid valley shuttle 2',
      complaint: 'Interlock',
      person,
      plan: 'bench',
    },
  });
  expect(booked.ok()).toBe(true);
  const { id } = (await booked.json()) as { id: string };

  // By mouse: the step further down can be looked at, and is shut.
  await page.goto(`/jobs/${id}`);
  await page.getByRole('link', { name: 'Charge from empty: do it' }).click();
  await expect(page.getByRole('heading', { name: 'Charge from empty is shut' })).toBeVisible();
  await expect(page.getByText('has not been proved dead')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Start recording' })).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'I have read these' })).toHaveCount(0);
  await expectAccessible(page, 'a step that is shut');

  // The other ways of feeding it are as shut.
  await page.getByRole('tab', { name: 'By hand' }).click();
  await expect(page.getByRole('heading', { name: 'Charge from empty is shut' })).toBeVisible();
  await expect(page.locator('main input')).toHaveCount(0);
  await page.goto(`/jobs/${id}/bench/fluid-look`);
  await expect(page.getByRole('heading', { name: 'Fluid is shut' })).toBeVisible();
  await expect(page.locator('main input[type=radio]')).toHaveCount(0);

  // By key: Enter leads to what opens it, and nothing else starts anything.
  await page.goto(`/jobs/${id}/bench/charge-from-empty`);
  await expect(page.getByRole('heading', { name: 'Charge from empty is shut' })).toBeVisible();
  for (const key of ['Space', 'r', 's', 'q', '1']) await page.keyboard.press(key);
  await expect(page.getByRole('heading', { name: 'Charge from empty is shut' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/make-dead-before/);

  // By calling the server directly, every way there is.
  const cautions = ['wakes-by-itself', 'motor-duty', 'fluid-jet', 'stored-pressure', 'brake-fluid', 'fluid-not-mixed'];
  await request.post(`/api/jobs/${id}/cautions`, { data: { cautions, person } });
  const asks = [
    request.post(`/api/jobs/${id}/runs`, { data: { step: 'charge-from-empty', person } }),
    request.post(`/api/jobs/${id}/readings`, {
      data: { step: 'charge-from-empty', readings: { knee: 7.5e6, seconds: 22 }, person, standIn: false },
    }),
    request.post(`/api/jobs/${id}/looks`, {
      data: {
        step: 'fluid-look',
        findings: { level: 'in-order', colour: 'in-order', 'fluid-kind': 'in-order', 'motor-end': 'in-order' },
        person,
      },
    }),
    request.post(`/api/jobs/${id}/imports`, {
      data: {
        step: 'charge-from-empty',
        person,
        file: { name: 'log.csv', leftOut: [] },
        fingerprint: 'time,pressure',
        mapping: [],
      },
    }),
  ];
  for (const answer of await Promise.all(asks)) {
    expect(answer.status()).toBe(409);
    expect(((await answer.json()) as { message: string }).message).toContain('proved dead');
  }

  // A reading that is not dead opens nothing; a dead one opens the next step.
  const typed = `/jobs/${id}/bench/make-dead-before?by=dial`;
  await page.goto(typed);
  await page.getByLabel('Pressure left').fill('0.9 MPa');
  await page.getByLabel('The gauge was seen to move').selectOption({ label: 'It fell as the strokes were made' });
  await page.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page).not.toHaveURL(/make-dead-before/);
  await page.goto(`/jobs/${id}/bench/fluid-look`);
  await expect(page.getByRole('heading', { name: 'Fluid is shut' })).toBeVisible();
  await page.goto(typed);
  await page.getByLabel('Pressure left').fill('0.04 MPa');
  // A zero on a gauge that nobody saw move proves nothing.
  await page.getByLabel('The gauge was seen to move').selectOption({ label: 'It was not seen to move' });
  await page.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page).not.toHaveURL(/make-dead-before/);
  await page.goto(`/jobs/${id}/bench/fluid-look`);
  await expect(page.getByRole('heading', { name: 'Fluid is shut' })).toBeVisible();
  await page.goto(typed);
  await page.getByLabel('Pressure left').fill('0.04 MPa');
  await page.getByLabel('The gauge was seen to move').selectOption({ label: 'It fell as the strokes were made' });
  await page.getByRole('button', { name: 'Keep these readings' }).click();
  await expect(page.getByRole('heading', { name: /Fluid: say what/ })).toBeVisible();
});

test('charges a store live, sees the knee, and the charge shuts what must be dead', async ({ page, request }) => {
  const booked = await request.post('/api/jobs', {
    data: {
      sheetId: 'tarnock-m18',
      serial: 'TK-M18-556',
      vehicle: 'Hybrid valley shuttle 2',
      complaint: '',
      person,
      plan: 'bench',
    },
  });
  const { id } = (await booked.json()) as { id: string };
  await page.goto(`/jobs/${id}/bench/make-dead-before`);
  await page.getByRole('button', { name: 'I have read these' }).click();
  await page.getByRole('button', { name: 'Start recording' }).click();
  await page.getByLabel('Rig time').selectOption('20');
  await page.getByRole('button', { name: 'Let the rig pull' }).click();
  await page.getByRole('button', { name: 'Keep this run' }).click({ timeout: 240_000 });
  await expect(page.getByText('Dead after')).toBeVisible();

  await page.goto(`/jobs/${id}/bench/charge-from-empty`);
  const read = page.getByRole('button', { name: 'I have read these' });
  await read.click();
  await page.getByRole('button', { name: 'Start recording' }).click();
  // A charge of twenty seconds: a busy machine that played it in one might never show it.
  await expect(page.getByText(/motor on for \d+ s of 90 s/)).toBeVisible();
  await page.getByLabel('Rig time').selectOption('20');
  // Looked at before it is kept: keeping goes on to the next step.
  await expect(page.getByRole('button', { name: 'Keep this run' })).toBeEnabled({ timeout: 240_000 });
  await expect(page.getByText('Precharge at 20 °C')).toBeVisible();
  await expect(page.getByRole('img', { name: /Precharge as it stood/ })).toBeVisible();
  await expectAccessible(page, 'a charge with its knee');
  await page.getByRole('button', { name: 'Keep this run' }).click();
  await expect(page).toHaveTitle(/^Slow bleed-down, TK-M18-556/);

  await page.goto(`/jobs/${id}/bench/fluid-look`);
  await expect(page.getByText('charged since it was proved dead')).toBeVisible();
});

test('a sphere is entered by its serial', async ({ page }) => {
  await page.goto('/spheres');
  await page.getByRole('button', { name: 'Enter a sphere' }).click();
  await page.getByLabel('Serial').fill('UG-S-1204');
  await page.getByLabel('Precharge by its plate').fill('60 bar');
  await page.getByRole('button', { name: 'Enter it' }).click();
  await page.getByRole('link', { name: /UG-S-1204/ }).click();
  await expect(page.getByRole('region', { name: 'Life of UG-S-1204' })).toBeVisible();
});

test('a sphere’s life, its next check, and a refusal', async ({ page }) => {
  await page.goto('/spheres?serial=UG-S-0877');
  await expect(page.getByRole('heading', { name: /next check by|overdue/ })).toBeVisible();
  await expectAccessible(page, 'spheres');
  await page.getByLabel('To', { exact: true }).selectOption({ label: 'Ullerby Glacier central system' });
  await page.getByRole('button', { name: 'Fit it' }).click();
  await expect(page.getByText(/Refused: a suspension sphere on a sheet for a brake sphere/)).toBeVisible();
  await page.getByLabel('Charging tool reads').fill('full');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('A pressure above zero')).toBeVisible();
  await expect(page.getByLabel('Charging tool reads')).toHaveValue('full');
  await page.getByLabel('Charging tool reads').fill('25.1 bar');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
});
