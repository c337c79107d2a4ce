import { expect } from '@playwright/test';
import { test } from './test';
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
  await page.getByRole('tab', { name: 'By hand' }).click();
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

test('nobody gets past a decoupled unit that was not put to sleep, nor to its bank while that may be charged', async ({
  page,
  request,
}) => {
  const booked = await request.post('/api/jobs', {
    data: {
      sheetId: 'ullerby-w6',
      serial: 'UL-W6-900',
      vehicle: 'Electric people mover 3',
      complaint: 'Interlock',
      person,
      plan: 'bench',
    },
  });
  const { id } = (await booked.json()) as { id: string };
  const shut = page.getByRole('heading', { name: 'Backup bank under load is shut' });

  await page.goto(`/jobs/${id}`);
  await page.getByRole('link', { name: 'Backup bank under load: do it' }).click();
  await expect(shut).toBeVisible();
  await expect(page.getByText('has not been proved asleep')).toBeVisible();
  for (const tab of ['By hand', 'Log file']) {
    await page.getByRole('tab', { name: tab }).click();
    await expect(shut).toBeVisible();
    await expect(page.locator('main input')).toHaveCount(0);
  }
  for (const key of ['Space', 'r', 's', '1', 'Escape']) await page.keyboard.press(key);
  await page.goto(`/jobs/${id}/bench/backup`);
  await expect(shut).toBeVisible();

  const cautions = ['wakes-by-itself', 'service-mode', 'fluid-jet', 'capacitor-bank', 'brake-fluid'];
  await request.post(`/api/jobs/${id}/cautions`, { data: { cautions, person } });
  const importing = { person, file: { name: 'log.csv', leftOut: [] }, fingerprint: 'time,a', mapping: [] };
  const asks = () => [
    request.post(`/api/jobs/${id}/runs`, { data: { step: 'backup', person } }),
    request.post(`/api/jobs/${id}/readings`, {
      data: { step: 'backup', readings: { open: 15 }, person, standIn: false },
    }),
    request.post(`/api/jobs/${id}/imports`, { data: { step: 'backup', ...importing } }),
    request.post(`/api/jobs/${id}/looks`, {
      data: {
        step: 'hands-look',
        findings: { plug: 'in-order', bank: 'in-order', fluid: 'in-order', lines: 'in-order', boot: 'in-order' },
        person,
      },
    }),
  ];
  const refused = async (why: string) => {
    for (const answer of await Promise.all(asks())) {
      expect(answer.status()).toBe(409);
      expect(((await answer.json()) as { message: string }).message).toContain(why);
    }
  };
  await refused('proved asleep');

  // A wait too short, a bank still charged, a lead that nobody saw work and a unit that was not put to sleep open nothing.
  const sleep = 'By the maker’s service function';
  const seen = 'It fell as the bank drained';
  const proof = async (how: string, waited: string, bank: string, meter: string) => {
    await page.goto(`/jobs/${id}/bench/make-safe-before?by=dial`);
    await page.getByLabel('Put to sleep', { exact: false }).first().selectOption({ label: how });
    await page.getByLabel(/Current asleep/).fill('8 mA');
    await page.getByLabel('The meter was seen to work').selectOption({ label: 'It fell as the unit fell asleep' });
    await page.getByLabel(/^Waited/).fill(waited);
    await page.getByLabel(/Bank after the wait/).fill(bank);
    await page.getByLabel('That meter was seen to work').selectOption({ label: meter });
    await page.getByRole('button', { name: 'Keep these readings' }).click();
    await expect(page).not.toHaveURL(/make-safe-before/);
  };
  for (const [how, waited, bank, meter] of [
    [sleep, '600 s', '2.1 V', seen],
    [sleep, '960 s', '11 V', seen],
    [sleep, '960 s', '2.1 V', 'It was not seen to work'],
    ['It was not', '960 s', '2.1 V', seen],
  ]) {
    await proof(how, waited, bank, meter);
    await refused('proved asleep');
  }

  await proof(sleep, '960 s', '2.1 V', seen);
  await page.goto(`/jobs/${id}/bench/hands-look`);
  await expect(
    page.getByRole('heading', { name: 'Plugs, fluid and pads: say what you find at each point' }),
  ).toBeVisible();
  await page.goto(`/jobs/${id}/bench/backup`);
  await expect(page.getByRole('button', { name: 'Start recording' })).toBeVisible();

  // Reading its codes wakes it and charges the bank: it is shut again, whoever asks.
  const codes = await request.post(`/api/jobs/${id}/looks`, {
    data: {
      step: 'fault-codes',
      findings: { lamp: 'none', amber: 'stored', codes: 'stored', 'codes: written': '46-07 backup bank' },
      person,
    },
  });
  expect(codes.ok()).toBe(true);
  await page.reload();
  await expect(shut).toBeVisible();
  await refused('has been awake since');
  await expectAccessible(page, 'a decoupled unit that is shut');
  await page.goto(`/jobs/${id}`);
  await page.getByText('Lamps and fault codes').first().click();
  await expect(page.getByText('46-07 backup bank')).toBeVisible();
});

test('a shop’s word for a unit with wires is understood, and said exactly', async ({ page }) => {
  await page.goto('/sheets');
  await page.getByLabel('Find').focus();
  for (const key of 'Brake-by-wire') await press(page, key);
  await expect(page.getByText(/^Decoupled unit: the pedal works a feel simulator/)).toBeVisible();
  await expect(page.getByText(/^Dry by-wire: no hydraulics at all/)).toBeVisible();
  await expect(page.getByRole('link', { name: /Ullerby W6/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Tarnock W9/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Ostvale Works MB3/ })).toHaveCount(0);
  await expectAccessible(page, 'the sheets that a word found');
  await page.getByLabel('Find').fill('unicorn');
  await expect(page.getByText('No sheet is called so.')).toBeVisible();
});

test('a wheel that gets less than it is asked for is told by its gain; a voltmeter has its table', async ({ page }) => {
  await page.goto('/jobs/job-ul-w6-021/bench/tracking');
  await expect(page.getByRole('heading', { name: 'Wheels behind their targets, kept' })).toBeVisible();
  await expect(page.getByText('Gain, rear left')).toBeVisible();
  await expectAccessible(page, 'wheels behind their targets');
  await page.goto('/jobs/job-ul-w6-021');
  await expect(page.getByText(/A release waits for: Wheels behind their targets \(fail\)/)).toBeVisible();

  await page.goto('/jobs/job-ul-w6-021/bench/sensor-transfer?by=dial');
  const table = page.getByRole('table', { name: 'Signal against pressure' });
  await expect(table.getByRole('row').nth(2)).toContainText('0.66');
  await page.getByLabel(/Sensor supply/).fill('4.92');
  await expect(table.getByRole('row').nth(1)).toContainText('0.49');
  await expectAccessible(page, 'a sensor by a plain voltmeter');
});

test('what the driver noticed is chosen from the list of the kind, by keyboard, kept over a reload, and shown on the job', async ({
  page,
  request,
}) => {
  await page.goto('/book-in?sheet=ullerby-w6');
  await expect(page.getByRole('heading', { name: 'Ullerby W6' })).toBeVisible();
  await page.getByLabel('Serial').fill('UL-W6-901');
  await page.getByLabel('Came off').fill('Electric people mover 3');
  await page.getByLabel('Complaint').fill('Drifts left on the hill');
  const pulls = page.getByRole('checkbox', { name: 'Pulls to one side' });
  await pulls.focus();
  await page.keyboard.press('Space');
  await expect(pulls).toBeChecked();
  await page.reload();
  await expect(pulls).toBeChecked();
  await expectAccessible(page, 'booking in with symptoms');
  await page.getByRole('button', { name: 'Book in', exact: true }).click();
  await expect(page.getByText('Noticed: pulls to one side.')).toBeVisible();
  await expect(page.getByText('Drifts left on the hill')).toBeVisible();

  const strange = await request.post('/api/jobs', {
    data: { sheetId: 'ullerby-w6', serial: 'X-1', vehicle: 'x', person, symptoms: ['hiss-held'] },
  });
  expect(strange.status()).toBe(422);
  expect(((await strange.json()) as { fields: Record<string, string> }).fields.symptoms).toContain('hiss-held');
});
