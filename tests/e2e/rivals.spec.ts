import { expect, type Browser, type Page } from '@playwright/test';
import { test } from './test';

const person = 'Noor Halabi';

/** A browser on the other side of the world; what it complains of is kept. */
async function screenIn(browser: Browser, timezoneId: string): Promise<{ page: Page; complaints: string[] }> {
  const context = await browser.newContext({ timezoneId, reducedMotion: 'reduce' });
  const page = await context.newPage();
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error.message));
  page.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
  return { page, complaints };
}

test('two screens ten hours apart show the same day and the same times', async ({ browser }) => {
  const screens = [await screenIn(browser, 'Pacific/Auckland'), await screenIn(browser, 'America/Anchorage')];
  for (const path of ['/', '/jobs/job-tk-2207-118', '/jobs/job-tk-2207-118/release', '/instruments', '/spheres']) {
    const texts: string[] = [];
    for (const { page } of screens) {
      await page.goto(path);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      texts.push((await page.locator('main').innerText()).replace(/\d+:\d\d left|\d+ s left/g, ''));
    }
    expect(texts[0]).toBe(texts[1]);
  }
  for (const { page, complaints } of screens) {
    expect(complaints).toEqual([]);
    await page.context().close();
  }
});

test('who decided on what was there before is told what was done since, and loses nothing that he typed', async ({
  page,
  request,
}) => {
  const data = { sheetId: 'tarnock-m18', serial: 'TK-M18-901', vehicle: 'Hybrid shuttle 9', person, plan: 'bench' };
  const { id } = (await (await request.post('/api/jobs', { data })).json()) as { id: string };
  await page.goto(`/jobs/${id}/repair`);
  const note = page.getByLabel('What else there is to say');
  await note.fill('Seat was scored');
  await page
    .getByLabel(/: what was done$/)
    .first()
    .selectOption('replaced');
  await request.put(`/api/jobs/${id}/place`, { data: { place: 'waiting-parts', person: 'Tomas Rehn' } });
  const record = page.getByRole('button', { name: 'Put it on record' });
  await record.click();
  await expect(page.getByRole('alert').filter({ hasText: 'Tomas Rehn moved it to “waiting for parts”' })).toBeVisible();
  await expect(note).toHaveValue('Seat was scored');
  await record.click();
  await expect(page.getByText('Seat was scored').first()).toBeVisible();
});
