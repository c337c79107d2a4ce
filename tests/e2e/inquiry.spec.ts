import { expect } from '@playwright/test';
import { test } from './test';
import { expectAccessible } from './axe';
import { sweepBut } from './sweep';
import { lookIsGood, measureByKeys, press, tabTo } from './keyboard';

const anyVerdict = /Pass|Fail|Undecided|Recorded/;

/** Measured steps of the inquiry in their order. */
const steps = [
  'Source vacuum',
  'Check valve',
  'Pedal drop',
  'Reserve',
  'Reserve after a soak',
  'Same force, without and with',
];

/** Hidden causes, where the inquiry must end, and after how many measured steps that is plain. */
const causes = [
  { fault: 'low-source-vacuum', serial: 'UL-25-0801', end: 'The source is too weak', after: 1 },
  { fault: 'hose-collapsing', serial: 'UL-25-0802', end: 'The vacuum hose closes under flow', after: 1 },
  { fault: 'check-valve-leak', serial: 'UL-25-0803', end: 'The check valve leaks back', after: 2 },
  { fault: 'linings-glazed', serial: 'UL-25-0804', end: 'It is not the booster', after: 6 },
];

for (const { fault, serial, end, after } of causes)
  test(
    `a hard pedal from ${fault} is found by keyboard on the stand-in vehicle`,
    sweepBut(after === 2),
    async ({ page }) => {
      const booked = await page.request.post('/api/jobs', {
        data: {
          sheetId: 'ullerby-p25',
          serial,
          vehicle: 'Crew minibus 7',
          complaint: 'Hard pedal',
          promisedAt: '',
          plan: 'vehicle',
          person: 'Noor Halabi',
          standInFault: fault,
        },
      });
      const { id } = (await booked.json()) as { id: string };
      await page.goto(`/jobs/${id}`);
      await expect(page.getByRole('heading', { name: 'Ullerby P25' })).toBeVisible();
      await expect(page.getByRole('region', { name: 'Where the inquiry ends' })).toHaveCount(0);
      await tabTo(page, /To the vehicle: complaint/);
      await press(page, 'Enter');
      await expect(page.getByRole('heading', { name: 'Read these first' })).toBeVisible();
      await lookIsGood(page);
      await expect(page.locator('[aria-current=step]')).toContainText('Vacuum hose');
      await lookIsGood(page);
      for (const title of steps.slice(0, after)) await measureByKeys(page, title, anyVerdict);
      await expect(page.locator('[aria-current=step]')).not.toContainText(steps[after - 1]);
      await press(page, 'Escape');
      const conclusion = page.getByRole('region', { name: 'Where the inquiry ends' });
      await expect(conclusion.getByRole('heading')).toHaveText(end);
      await expectAccessible(page, `inquiry of ${fault}`);
    },
  );
