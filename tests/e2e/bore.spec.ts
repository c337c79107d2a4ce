import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { minibusTyped } from '../support/minibus';
import { press } from './keyboard';

test('a stop with the assist gone is worked out by keyboard, and kept over a reload', async ({ page }) => {
  await page.goto('/bore');
  await expect(page.getByRole('button', { name: 'Print it' })).toBeDisabled();
  await page.getByLabel('The vehicle is under').selectOption('light');
  const figures = [...minibusTyped, [/^Fluid displaced/, '12'], [/^Pedal travel at most/, '150']] as const;
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
