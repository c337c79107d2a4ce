import { expect, test } from '@playwright/test';
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
  await expect(page.getByText('MPa gauge').first())
    .toBeVisible({ timeout: 20_000 })
    .catch(() => undefined);
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
