import { expect, type Page } from '@playwright/test';

/** Goes on with the keyboard until something in the page says so. */
export async function press(page: Page, key: string): Promise<void> {
  await page.keyboard.press(key);
}

/** Tabs to a control by its name. */
export async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 60; i++) {
    const label = await page.evaluate(() => {
      const element = document.activeElement as HTMLElement | null;
      if (!element || element === document.body) return '';
      const labelled = element
        ?.getAttribute('aria-labelledby')
        ?.split(' ')
        .map((id) => document.getElementById(id)?.textContent ?? '')
        .join(' ');
      return [
        element?.textContent,
        element?.getAttribute('aria-label'),
        labelled,
        (element as HTMLInputElement | null)?.labels?.[0]?.textContent,
      ]
        .filter(Boolean)
        .join(' ');
    });
    if (name.test(label)) return;
    await press(page, 'Tab');
  }
  throw new Error(`no control "${name}" was reached with Tab`);
}

export async function readCautions(page: Page): Promise<void> {
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).not.toHaveText('');
  if ((await heading.textContent()) === 'Read these first') {
    await press(page, 'Enter');
    await expect(heading).not.toHaveText('Read these first');
  }
}

export async function lookIsGood(page: Page): Promise<void> {
  await readCautions(page);
  await tabTo(page, /^The rest:/);
  await press(page, 'Enter');
  await expect(page.getByText('Every point has a word')).toBeVisible();
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await press(page, 'Enter');
}

export async function hurry(page: Page): Promise<void> {
  await page.getByLabel('Rig time').focus();
  for (let i = 0; i < 2; i++) await press(page, 'ArrowDown');
  await expect(page.getByLabel('Rig time')).toHaveValue('20');
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
}

export async function measureByKeys(page: Page, title: string, verdict: string | RegExp = 'Pass'): Promise<void> {
  await expect(page.locator('[aria-current=step]')).toContainText(title);
  await readCautions(page);
  await expect(page.getByRole('button', { name: /Start recording/ })).toBeEnabled();
  await press(page, 'Enter');
  await expect(page.getByLabel('Rig time')).toBeVisible();
  await hurry(page);
  await press(page, 'Space');
  await expect(page.getByRole('button', { name: /Keep this run/ })).toBeEnabled({ timeout: 240_000 });
  await expect(page.getByRole('heading', { name: /This run/ })).toContainText(verdict);
  await press(page, 'Enter');
}
