import { sweepBut } from './sweep';
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { families } from '../../src/core/families';
import { kindOf } from '../../src/core/contract/family';
import type { SheetField } from '../../src/core/contract/sheet-field';

/** Chooses one of a field's words by mouse. */
async function choose(page: Page, label: string, title: string): Promise<void> {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: title, exact: true }).click();
}

async function fill(page: Page, field: SheetField, value: unknown): Promise<void> {
  const label = field.required ? `${field.label} *` : field.label;
  const chosen = field.choices?.find((choice) => choice.value === value);
  if (chosen) await choose(page, label, chosen.title);
  else await page.locator(`#sheet-${field.name}`).fill(String(value));
}

for (const family of families)
  test(
    `a sheet of a ${family.id} is made by its form and a unit of it booked in`,
    sweepBut(family === families[0]),
    async ({ page }) => {
      await page.goto('/sheets/new');
      await page.getByLabel('Name').fill(`Spare ${family.id}`);
      if (family !== families[0]) await choose(page, 'Kind', family.title);
      const spec = family.kinds[0].sheet.example.spec as Record<string, unknown>;
      for (const field of kindOf(family, spec).sheet.fields)
        if (spec[field.name] !== undefined) await fill(page, field, spec[field.name]);
      await page.getByRole('button', { name: 'Save and book in' }).click();
      await expect(page.getByRole('heading', { name: 'Book in a unit' })).toBeVisible();
      await page.getByLabel('Serial').fill(`TK-F-${family.id}`);
      await page.getByLabel('Came off').fill('Grader 1');
      await page.getByRole('button', { name: 'Book in' }).click();
      await expect(page.getByRole('heading', { name: `Spare ${family.id}` })).toBeVisible();
      await expect(page.getByText(`TK-F-${family.id}`).first()).toBeVisible();
    },
  );

test('an instrument is mounted, changed and taken off by its form', async ({ page }) => {
  await page.goto('/instruments');
  await page.getByRole('button', { name: 'Mount an instrument' }).click();
  const form = page.getByRole('form', { name: 'Instrument' });
  await form.locator('#instrument-channel').selectOption('return_pressure');
  await form.locator('#instrument-name').fill('Return line dial 4');
  await form.locator('#instrument-range').fill('1,6');
  await form.locator('#instrument-unit').fill('MPa');
  await form.getByRole('button', { name: 'Mount it' }).click();
  // What is missing is said beside its field, and nothing typed is lost.
  await expect(form.getByRole('alert')).toBeVisible();
  await expect(form.locator('#instrument-name')).toHaveValue('Return line dial 4');
  await form.locator('#instrument-resolution').fill('0.02');
  await form.locator('#instrument-classPercent').fill('1.6');
  await form.getByRole('button', { name: 'Mount it' }).click();
  const row = page.getByRole('row', { name: /Return line dial 4/ });
  await expect(row).toBeVisible();
  await row.getByRole('button', { name: 'Change' }).click();
  await page.locator('#instrument-classPercent').fill('1');
  await page.getByRole('button', { name: 'Keep the change' }).click();
  await expect(row).toContainText('1 %');
  await row.getByRole('button', { name: 'Take off' }).click();
  await expect(row).toHaveCount(0);
});

test('settings are kept, and stand after a reload', async ({ page }) => {
  await page.goto('/settings');
  const field = page.getByLabel('Bench volume');
  const before = await field.inputValue();
  await field.fill('655');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status')).toBeVisible();
  await page.reload();
  await expect(field).toHaveValue('655');
  await field.fill(before);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('status')).toBeVisible();
});

test('a job is moved, and stays where it was moved to', async ({ page }) => {
  await page.goto('/jobs/job-ow-dv2-031');
  const place = page.getByLabel('Place', { exact: true });
  const before = await place.inputValue();
  await place.selectOption('waiting-parts');
  await expect(place).toHaveValue('waiting-parts');
  await page.reload();
  await expect(place).toHaveValue('waiting-parts');
  await place.selectOption(before);
  await expect(place).toHaveValue(before);
});
