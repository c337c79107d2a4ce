import { expect, test } from '@playwright/test';
import { expectAccessible } from './axe';
import { press } from './keyboard';

test('a stop with the assist gone is worked out by keyboard, and kept over a reload', async ({ page }) => {
  await page.goto('/bore');
  await expect(page.getByRole('button', { name: 'Print it' })).toBeDisabled();
  await page.getByLabel('The vehicle is under').selectOption('light');
  const figures = [
    [/^Vehicle mass/, '1600'],
    [/^Tyre radius/, '300'],
    [/^Friction, front/, '0.38'],
    [/^Piston area, front/, '2290'],
    [/^Effective radius, front/, '115'],
    [/^Friction, rear/, '0.38'],
    [/^Piston area, rear/, '900'],
    [/^Effective radius, rear/, '110'],
    [/^Split pressure/, '2500'],
    [/^Rear slope/, '0.4'],
    [/^Master cylinder bore/, '23.8'],
    [/^Pedal ratio/, '4'],
    [/^Fluid displaced/, '12'],
    [/^Pedal travel at most/, '150'],
  ] as const;
  for (const [label, text] of figures) {
    await page.getByLabel(label).focus();
    for (const key of text) await press(page, key);
  }
  await expect(page.getByRole('heading', { name: /^Holds: 106\sm, where 168\sm are allowed$/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /Bores of 20.2 to 31.4 mm hold/ })).toBeVisible();
  await expect(page.getByText(/and no approval/)).toBeVisible();
  await expectAccessible(page, 'a stop without assist');
  await page.reload();
  await expect(page.getByRole('heading', { name: /Holds: 106\sm/ })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('form', { name: 'Vehicle and pedal' })).toBeHidden();
  await expect(page.getByRole('heading', { name: /Holds: 106\sm/ })).toBeVisible();
});
