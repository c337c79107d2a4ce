import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';

test('a booking is corrected by keyboard: what is wrong is said at its field, what stood before stays, and comes back', async ({
  page,
}) => {
  await page.goto('/book-in');
  await page.getByLabel('Unit sheet').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: 'Tarnock R7' }).click();
  await page.getByLabel('Serial').fill('TK-B-70');
  await page.getByLabel('Came off').fill('Grader 2');
  await page.getByRole('button', { name: 'Book in', exact: true }).click();
  await page.waitForURL(/\/jobs\/[^/]+$/);

  const correct = page.getByRole('link', { name: 'Correct what was booked' });
  await correct.focus();
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/booking$/);
  await expect(page.getByLabel('Serial')).toHaveValue('TK-B-70');
  await expectAccessible(page, 'correcting a booking');

  await page.getByLabel('Serial').fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Read the serial off the plate')).toBeVisible();
  await expect(page.getByLabel('Serial')).toBeFocused();
  await page.keyboard.type('TK-B-71');
  await page.getByLabel('Complaint').fill('Hard pedal on the first stop');
  // What is typed is there after a crash of the browser.
  await page.reload();
  await expect(page.getByLabel('Serial')).toHaveValue('TK-B-71');
  await page.getByLabel('Came off').focus();
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/jobs\/[^/]+$/);
  await expect(page.getByText(/corrected what was booked.*serial “TK-B-71”, was “TK-B-70”/)).toBeVisible();
  await expect(page.getByText('Hard pedal on the first stop', { exact: true })).toBeVisible();
  await expectAccessible(page, 'a job that was corrected');

  await page.getByRole('button', { name: /^Bring back: Corrected: serial/ }).click();
  await expect(page.getByText(/was “TK-B-70”/)).toHaveCount(0);
  await page.goto('/');
  await expect(page.getByRole('link', { name: /TK-B-70/ })).toBeVisible();
});

test('a serial that was here before brings its jobs, its sheet and its vehicle', async ({ page }) => {
  await page.goto('/book-in');
  await page.getByLabel('Serial').fill('TK-2207-11');
  const known = page.getByRole('status', { name: 'It was here before' });
  await page.getByLabel('Serial').pressSequentially('8');
  await expect(known.getByRole('link', { name: 'Job 2602' })).toBeVisible();
  await expect(known.getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page, 'booking in a known serial');
  await known.getByRole('button', { name: /^Take over Tarnock R7, Touring bus/ }).click();
  await expect(page.getByLabel('Came off')).toHaveValue(/Touring bus/);
  await expect(page.getByLabel('Unit sheet')).toContainText('Tarnock R7');
  // Another serial, another life.
  await page.getByLabel('Serial').fill('TK-NEVER-1');
  await expect(known).toHaveCount(0);
});

test('people are entered and taken off the list by keyboard, and choose who they are', async ({ page }) => {
  await page.goto('/settings');
  await page.getByRole('link', { name: 'Who works here' }).click();
  await page.waitForURL('/settings/people');
  const rows = page.getByRole('textbox', { name: /^Name/ });
  await expect(rows).toHaveCount(4);
  await page.getByRole('button', { name: 'Add somebody' }).focus();
  await page.keyboard.press('Enter');
  await rows.nth(4).fill('Ilse Varga');
  await rows.nth(4).press('Enter');
  await expect(page.getByText('Somebody of this name is here already')).toBeVisible();
  await expectAccessible(page, 'people, one of them twice');
  await rows.nth(4).fill('Marta Quell');
  await rows.nth(4).press('Enter');
  await expect(page.getByRole('status')).toHaveText('Saved.');
  await page.getByLabel('At this screen').selectOption('Marta Quell');
  await page.getByRole('button', { name: 'Take off the list: Marta Quell' }).click();
  // What is typed is there after a reload.
  await page.reload();
  await expect(rows).toHaveCount(4);
  await expect(page.getByLabel('At this screen')).toHaveValue('Marta Quell');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  // The screen does not become somebody else by itself.
  await expect(page.getByLabel('At this screen').locator('option:checked')).toHaveText('Marta Quell: not on the list');
  await page.goto('/jobs/job-tk-2207-118/booking');
  await page.getByLabel('Complaint').fill('Hard pedal');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByText('“Marta Quell” is not one of this workshop’s people')).toBeVisible();
});
