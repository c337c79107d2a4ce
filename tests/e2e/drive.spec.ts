import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { dice } from '../support/second-writer/logger';
import { drawTool, driveThrough, noTrouble, writeDrive } from '../support/second-writer/drives';
import { shuttle } from '../support/driven-vehicle';
import { expectAccessible } from './axe';
import { press, readCautions, tabTo } from './keyboard';

const folder = mkdtempSync(join(tmpdir(), 'hard-pedal-drives-'));
const job = '/jobs/job-tk-hv-305';

/** A drive as another tool tells it: a clock, bar, mph, its own words, columns at rates of their own, its header again every 5,000 rows. */
function foreignDrive(name: string, stops: number, leaveOut: readonly string[] = []): string {
  const luck = dice(4711);
  const drive = driveThrough(luck, shuttle.vehicle, { stops, panics: true, trouble: { ...noTrouble, dip: 720 } });
  const tool = { ...drawTool(luck), rate: 50, wheelRate: 50, gains: [0, 0, 0, 0], zeros: [0, 0, 0, 0], regenGain: 0 };
  const { time, columns } = writeDrive(luck, drive, shuttle.vehicle, tool);
  const told: Readonly<Record<string, readonly [header: string, per: number]>> = {
    requested_torque: ['Brake torque request (Nm)', 1],
    regen_torque: ['Recuperation motor torque (Nm)', 1],
    wheel_pressure_fl: ['Brake pressure wheel FL (bar)', 1e5],
    wheel_pressure_fr: ['Brake pressure wheel FR (bar)', 1e5],
    wheel_pressure_rl: ['Brake pressure wheel RL (bar)', 1e5],
    wheel_pressure_rr: ['Brake pressure wheel RR (bar)', 1e5],
    vehicle_speed: ['Road speed (mph)', 0.44704],
    pedal_travel: ['Pedal stroke (mm)', 1e-3],
  };
  const kept = Object.keys(told).filter((channel) => !leaveOut.includes(channel));
  const two = (value: number) => String(Math.floor(value)).padStart(2, '0');
  const clock = (seconds: number) => {
    const all = 9 * 3600 + seconds;
    return `${two(all / 3600)}:${two((all / 60) % 60)}:${(all % 60).toFixed(3).padStart(6, '0')}`;
  };
  const header = ['Clock', ...kept.map((channel) => told[channel][0])].join(';');
  const lines = [header];
  for (let i = 0; i < time.length; i++) {
    if (i > 0 && i % 5_000 === 0) lines.push(header);
    const cells = kept.map((channel) => {
      const value = columns[channel][i];
      return Number.isNaN(value) ? '' : (value / told[channel][1]).toFixed(3);
    });
    lines.push([clock(time[i]), ...cells].join(';'));
  }
  const file = join(folder, name);
  writeFileSync(file, lines.join('\n'));
  return file;
}

async function standing(page: Page): Promise<string> {
  await page.goto(`${job}/repair`);
  const heading = page.getByRole('region', { name: 'Proof of the repair' }).getByRole('heading');
  await expect(heading).toBeVisible();
  return (await heading.textContent()) ?? '';
}

/** Brings the stand-in’s next drive, by keys. */
async function driveByKeys(page: Page): Promise<void> {
  await page.goto(`${job}/bench/log-check`);
  await readCautions(page);
  await tabTo(page, /Let the stand-in drive/);
  await press(page, 'Enter');
  await expect(page.getByRole('heading', { name: /This log/ })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'It answers these too' })).toBeVisible();
  await tabTo(page, /Keep this log/);
  await press(page, 'Enter');
  // It is kept once the bench has gone on.
  await page.waitForURL((url) => !url.pathname.endsWith('/log-check'));
}

test('a drive is looked into by keys, its fault named, a wrong repair caught and the right one proved', async ({
  page,
}) => {
  await page.goto(`${job}/bench/regen-limit`);
  await readCautions(page);
  const picture = page.getByRole('img', { name: /From 0:00.0 to \d/ });
  await expect(picture).toBeVisible();
  await expectAccessible(page, 'a kept drive');
  await press(page, 'n');
  await expect(page.getByText(/^\d+:\d\d\.\d to \d+:\d\d\.\d$/)).not.toHaveText(/^0:00\.0 to/);
  await expect(page.getByRole('img', { name: /Found there: battery full/ })).toBeVisible();
  await page.getByRole('button', { name: 'Closer' }).click();
  await page.getByRole('button', { name: 'Whole drive' }).click();
  await expect(picture).toBeVisible();

  await page.goto(`${job}/findings`);
  const ledger = page.getByRole('region', { name: 'Fault ledger' });
  await expect(ledger.getByText('Regeneration falls short and is not filled in').first()).toBeVisible();
  await page.goto(`${job}/repair`);
  await page.getByLabel('Linings and discs: what was done').selectOption('replaced');
  await page.getByRole('button', { name: 'Put it on record' }).click();
  await expect(page.getByRole('region', { name: 'Proof of the repair' })).toContainText(
    /Prove it: 7 steps, about 40 min/,
  );
  await driveByKeys(page);
  expect(await standing(page)).toBe('Not mended');
  await page.getByLabel('Brake controller: what was done').selectOption('adjusted');
  await page.getByRole('button', { name: 'Put it on record' }).click();
  await expect(page.getByRole('heading', { name: 'What is done again, round 3' })).toBeVisible();
  await driveByKeys(page);
  expect(await standing(page)).toBe('Verified');
  const compared = page.getByRole('region', { name: 'Before and after' });
  await expect(compared.getByRole('img', { name: /before \(dotted\); after \(a line\)/ })).toBeVisible();
  await expectAccessible(page, 'a drive before and after');
});

test('a drive by another tool is understood, what it cannot tell is said first, and one log answers every step', async ({
  page,
}) => {
  await page.goto('/book-in');
  await page.getByLabel('Unit sheet').focus();
  await press(page, 'Enter');
  await page.getByRole('option', { name: 'Tarnock HV6 shuttle' }).click();
  await page.getByLabel('Serial').fill('TK-HV-999');
  await page.getByLabel('Came off').fill('Valley shuttle 9');
  await page.getByRole('button', { name: 'Book in', exact: true }).click();
  await page.waitForURL(/\/jobs\/[^/]+$/);
  const base = page.url();
  await page.goto(`${base}/bench/log-check`);
  await readCautions(page);
  await page.getByLabel('Log file').setInputFiles(foreignDrive('foreign.csv', 14));
  await expect(page.getByText(/its header \d times more \(left out\)/)).toBeVisible();
  await expect(page.getByText(/Full battery cannot be told from this log: it has no battery charge/)).toBeVisible();
  await expect(page.getByText(/Handover at walking pace/).last()).toBeVisible();
  await expectAccessible(page, 'a drive being mapped');
  await page.getByRole('button', { name: /Keep this log/ }).click();
  await expect(page.getByRole('button', { name: /Keep this log/ })).toHaveCount(0);
  await page.waitForURL((url) => !url.pathname.endsWith('/log-check'));
  await page.goto(base);
  const row = (title: string) => page.locator('ol > li').filter({ has: page.locator('strong', { hasText: title }) });
  await expect(row('Does the torque close')).toContainText(/Pass|Fail|Undecided/);
  await expect(row('Handover at walking pace')).toContainText('Fail');
  await expect(row('Full battery')).toContainText('Undecided');
});
