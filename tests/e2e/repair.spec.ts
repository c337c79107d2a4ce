import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { lookIsGood, measureByKeys, press, tabTo } from './keyboard';

const job = '/jobs/job-ul-82-0352';

/** Does the step that the bench stands at, whatever it is, until one of these ends it. */
async function proveUntil(page: Page, done: () => Promise<boolean>): Promise<void> {
  for (let step = 0; step < 12; step++) {
    if (await done()) return;
    expect(await standing(page)).toMatch(/^Prove it/);
    await page.goto(job);
    await page.getByRole('link', { name: /^To the bench:/ }).click();
    const current = page.locator('[aria-current=step]');
    await expect(current).not.toHaveText('');
    const title = (await current.textContent()) ?? '';
    if (/Look over|Leak look/.test(title)) await lookIsGood(page);
    else await measureByKeys(page, title.replace(/^\d+/, '').trim(), /This run/);
    // It is kept once the bench has gone on to something else.
    await expect(page.getByRole('button', { name: /Keep this run/ })).toHaveCount(0);
  }
  throw new Error('the proof did not come to an end');
}

async function standing(page: Page): Promise<string> {
  await page.goto(`${job}/repair`);
  const heading = page.getByRole('region', { name: 'Proof of the repair' }).getByRole('heading');
  await expect(heading).toBeVisible();
  return (await heading.textContent()) ?? '';
}

test('from the findings through a wrong repair and the right one to a release', async ({ page }) => {
  // By mouse: what it is, and what speaks for it.
  await page.goto('/');
  await expect(page.getByRole('link', { name: /UL-82-0352/ }).first()).toContainText(
    'Control piston sticks: leads, not certain',
  );
  await page.goto(job);
  await page.getByRole('link', { name: 'Findings', exact: true }).click();
  const ledger = page.getByRole('region', { name: 'Fault ledger' });
  await expect(ledger.getByText('Control piston sticks').first()).toBeVisible();
  await expectAccessible(page, 'findings');
  await ledger.getByText('Control piston sticks').first().click();
  await expect(ledger.getByRole('list', { name: 'For and against, by finding' }).first()).toContainText(/for \d+ dB/);
  await ledger.getByRole('button', { name: 'Draw what it would do over the trace' }).first().click();
  await expect(page.getByRole('img', { name: /measured \(a line\); with .* \(dashed\)/ })).toBeVisible();
  const fitted = ledger.getByText(/^Fitted to .*boost curve/);
  await expect(fitted).toContainText(/about \d/);
  // What was fitted stands on the row too: of one thing there is one amount.
  const amount = /about \d[^.]*/.exec((await fitted.textContent()) ?? '')?.[0] ?? 'none';
  await expect(ledger.getByRole('listitem').first().locator('summary')).toContainText(amount);
  await expectAccessible(page, 'findings, opened');

  // The wrong part.
  await page.getByRole('link', { name: 'Say what was done' }).click();
  await expect(page.getByRole('row', { name: /^1 Control piston and its seal at fault/ })).toBeVisible();
  // The unit's own diagram leads to the row of a part.
  await page.getByRole('button', { name: /^1, Control piston and its seal, at fault/ }).click();
  await expect(page.getByLabel('Control piston and its seal: what was done')).toBeFocused();
  await page.getByLabel('Return spring: what was done').selectOption('replaced');
  await page.getByLabel('Return spring: with what').fill('spring UL-S4');
  await page.reload();
  await expect(page.getByLabel('Return spring: with what')).toHaveValue('spring UL-S4');
  await expectAccessible(page, 'repair');
  await page.getByRole('button', { name: 'Put it on record' }).click();
  await expect(page.getByRole('region', { name: 'Proof of the repair' })).toContainText('Prove it');
  await proveUntil(page, async () => (await standing(page)) === 'Not mended');
  await expect(page.getByRole('region', { name: 'Before and after' })).toBeVisible();
  await page.getByRole('link', { name: 'To the findings' }).click();
  await expect(ledger.getByText('Control piston sticks').first()).toBeVisible();

  // The right part, by keyboard alone.
  await page.goto(`${job}/repair`);
  await tabTo(page, /Control piston and its seal: what was done/);
  await press(page, 'R');
  await expect(page.getByLabel('Control piston and its seal: what was done')).toHaveValue('replaced');
  await tabTo(page, /Put it on record/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'What is done again, round 3' })).toBeVisible();
  await proveUntil(page, async () => (await standing(page)) === 'Verified');
  const compared = page.getByRole('region', { name: 'Before and after' });
  await expect(compared.getByRole('img', { name: /before \(dotted\); after \(a line\)/ })).toBeVisible();
  await expect(compared.getByRole('table')).toContainText('Hysteresis');
  await expectAccessible(page, 'before and after');
  await tabTo(page, /To the paper/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'It can be released' })).toBeVisible();
  await tabTo(page, /Issue the release/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: 'Issued' })).toBeVisible();
  const html = await (
    await page.request.get((await page.getByRole('link', { name: 'HTML' }).getAttribute('href')) ?? '')
  ).text();
  for (const said of ['After round 2', 'Verified', 'spring UL-S4']) expect(html).toContain(said);
});

test('the next best test is named from the complaint alone, and the run sheet can begin with it', async ({ page }) => {
  await page.goto('/book-in');
  await page.getByLabel('Unit sheet').focus();
  await press(page, 'Enter');
  await page.getByRole('option', { name: 'Tarnock R7' }).click();
  await page.getByLabel('Serial').fill('TK-2207-118');
  await page.getByLabel('Came off').fill('Touring bus');
  await page.getByRole('checkbox', { name: 'Hiss while held' }).check();
  await page.getByRole('button', { name: 'Book in', exact: true }).click();
  await page.waitForURL(/\/jobs\/[^/]+$/);
  // A serial that was here before shows what it drew then.
  await expect(page.getByText(/It was here before/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'To the bench: look over' })).toBeVisible();
  await page.getByRole('link', { name: 'Findings', exact: true }).click();
  const next = page.getByRole('region', { name: 'Do next' });
  await expect(next).toContainText(/\d+ min; would settle/);
  const order = (await next.getByRole('heading').textContent()) ?? '';
  expect(order).not.toBe('Look over');
  await page.getByRole('switch', { name: 'The run sheet goes by what tells most' }).check();
  await expect(page.getByRole('switch')).toBeChecked();
  await page.getByRole('link', { name: 'Run sheet', exact: true }).click();
  await expect(page.getByRole('link', { name: `To the bench: ${order.toLowerCase()}` })).toBeVisible();
  // The bench of the job is the bench of what comes next.
  const toBench = await page.getByRole('link', { name: /^To the bench:/ }).getAttribute('href');
  await page.goto(`${page.url()}/bench`);
  await page.waitForURL(`**${toBench}`);
  await page.goBack();
  // The whole sheet goes by it, and nothing of the plan is missing.
  const sheet = page.getByRole('listitem').filter({ has: page.getByRole('link') });
  await expect(page.locator('ol > li').first()).toContainText(order);
  await expect(sheet.filter({ hasText: 'Look over' }).first()).toBeVisible();
});
