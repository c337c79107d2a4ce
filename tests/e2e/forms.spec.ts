import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';

test('wrong input says what is wrong beside its field, and nothing typed is lost', async ({ page }) => {
  await page.goto('/book-in');
  await page.getByLabel('Came off').fill('Snow-blower loader');
  await page.getByRole('button', { name: 'Book in' }).click();
  await expect(page.locator('form').getByRole('alert')).toContainText('Some fields need another look');
  await expect(page.getByText('Read the serial off the plate')).toBeVisible();
  await expect(page.getByText('Choose a unit sheet')).toBeVisible();
  await expect(page.getByLabel('Came off')).toHaveValue('Snow-blower loader');
  await expectAccessible(page, 'book-in with errors');
  await page.reload();
  await expect(page.getByLabel('Came off')).toHaveValue('Snow-blower loader');
});

test('a sheet is made from measured diameters, its curve drawn as they are typed', async ({ page }) => {
  await page.goto('/sheets/new');
  await page.getByLabel('Name').fill('Measured off the spare');
  const typed: readonly [string, string][] = [
    ['Power piston diameter', '160'],
    ['Slave bore', '22,2'],
    ['Push rod diameter', '30'],
    ['Control area ratio', '0.04'],
    ['Control valve opens at', '300'],
    ['Rated vacuum', '60'],
    ['Reference input', '1700'],
  ];
  for (const [label, value] of typed) await page.getByLabel(label).fill(value);
  await expect(page.getByText('Must be smaller than slave bore')).toBeVisible();
  await expectAccessible(page, 'sheet form with an error');
  await page.getByLabel('Push rod diameter').fill('9.5');
  const curve = page.getByRole('img', { name: /Expected boost curve/ });
  await expect(curve).toBeVisible();
  const before = await curve.getAttribute('aria-label');
  await page.getByLabel('Power piston diameter').fill('175');
  await expect(curve).not.toHaveAttribute('aria-label', before ?? '');
  await page.reload();
  await expect(page.getByLabel('Slave bore')).toHaveValue('22,2');
  await page.getByRole('button', { name: 'Save and book in' }).click();
  await expect(page.getByRole('heading', { name: 'Book in a unit' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Measured off the spare' })).toBeVisible();
});

test('a servo cylinder is a layout of its own: other fields, another curve, other steps', async ({ page }) => {
  await page.goto('/sheets/new');
  await page.getByLabel('Name').fill('Servo off the grader');
  await expect(page.getByLabel('Slave bore')).toBeVisible();
  await page.getByLabel('Layout').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: 'Servo cylinder and lever' }).waitFor();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Slave bore')).toHaveCount(0);
  const typed: readonly [string, string][] = [
    ['Power piston diameter', '203'],
    ['Control area ratio', '0,036'],
    ['Control valve opens at', '420'],
    ['Rated vacuum', '60'],
    ['Reference input', '1800'],
    ['Reservoir volume', '9000'],
  ];
  for (const [label, value] of typed) await page.getByLabel(label).fill(value);
  await page.getByLabel('Return spring force').fill('4900');
  await expect(page.getByText('could not even move against this spring')).toBeVisible();
  await page.getByLabel('Return spring force').fill('210');
  await expect(page.getByRole('img', { name: /Expected boost curve. Cut-in: .* MPa. Run-out: .* N/ })).toBeVisible();
  await expectAccessible(page, 'sheet form of a servo cylinder');
  await page.reload();
  await expect(page.getByLabel('Reservoir volume')).toHaveValue('9000');
  await page.getByRole('button', { name: 'Save and book in' }).click();
  await page.getByLabel('Serial').fill('TK-S11-090');
  await page.getByLabel('Came off').fill('Grader 1');
  await page.getByRole('button', { name: 'Book in' }).click();
  await expect(page.getByRole('heading', { name: 'Servo off the grader' })).toBeVisible();
  await expect(page.getByText('Vacuum gauge agreement', { exact: true })).toBeVisible();
  await expect(page.getByText('Gauge agreement', { exact: true })).toHaveCount(0);
});

test('a release is refused while a step stands in the way, also when the server is asked directly', async ({
  page,
}) => {
  await page.goto('/jobs/job-ul-82-0340/release');
  await expect(page.getByRole('heading', { name: 'It cannot be released' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Issue the release' })).toHaveCount(0);
  const direct = await page.request.post('/api/jobs/job-ul-82-0340/releases', {
    data: { kind: 'released', person: 'Piet Oduya', units: 'kpa' },
  });
  expect(direct.status()).toBe(409);
  await page.getByRole('button', { name: 'Issue findings only' }).click();
  await expect(page.getByText('Not released, findings only').first()).toBeVisible();
  const html = await (
    await page.request.get((await page.getByRole('link', { name: 'HTML' }).getAttribute('href')) ?? '')
  ).text();
  expect(html).toContain('Not released, findings only');
});

test('measurement units, mode and key map answer to keys and to controls', async ({ page }) => {
  await page.goto('/jobs/job-tk-2207-118/bench/boost-curve');
  await expect(page.getByRole('button', { name: /MPa and kPa/ })).toBeVisible();
  // A key means something only once the page listens.
  await page.waitForLoadState('networkidle');
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: /bar and mbar/ })).toBeVisible();
  await page.getByRole('button', { name: /bar and mbar/ }).click();
  await expect(page.getByRole('button', { name: /psi and inHg/ })).toBeVisible();
  await expect(page.getByText(/inHg/).last()).toBeVisible();
  await page.keyboard.press('u');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.keyboard.press('d');
  await expect(page.locator('html')).toHaveAttribute('data-mode', 'dark');
  await expectAccessible(page, 'bench, dim');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await expectAccessible(page, 'key map');
  await page.keyboard.press('Escape');
  await page.goto('/settings');
  await page.getByLabel('Station barometer').fill('101.3');
  await expect(page.getByText(/not one reduced to sea level/)).toBeVisible();
  await expectAccessible(page, 'settings');
  await page.goto('/sheets');
  await expectAccessible(page, 'sheets');
});
