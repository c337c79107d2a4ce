import { expect } from '@playwright/test';
import { test } from './test';
import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { recorded } from './recorded';

const port = 4393;
const base = `http://127.0.0.1:${port}`;
const env = {
  ...process.env,
  HARD_PEDAL_DATA: mkdtempSync(path.join(tmpdir(), 'crash-')),
  NEXT_TELEMETRY_DISABLED: '1',
};
let server: ChildProcess;

async function start(): Promise<void> {
  server = spawn(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(port)],
    { env, stdio: 'ignore' },
  );
  await expect
    .poll(
      () =>
        fetch(`${base}/sheets`).then(
          (response) => response.ok,
          () => false,
        ),
      { timeout: 240_000 },
    )
    .toBe(true);
}

async function kill(): Promise<void> {
  const gone = new Promise((resolve) => server.once('exit', resolve));
  server.kill('SIGKILL');
  await gone;
}

test.beforeAll(async () => {
  cpSync(process.env.SEEDED_SHOP!, env.HARD_PEDAL_DATA, { recursive: true });
  await start();
});
test.afterAll(() => kill());

test('a killed server loses at most the last second, and the step can be resumed', async ({ page }) => {
  const job = 'job-tk-2207-118';
  const post = (address: string, data: object) => page.request.post(base + address, { data });
  const { id } = (await (
    await post(`/api/jobs/${job}/runs`, { step: 'boost-curve', person: 'Noor Halabi' })
  ).json()) as { id: string };
  await post(`/api/runs/${id}/command`, { kind: 'by-itself', on: true });
  await page.goto(`${base}/jobs/${job}/bench/boost-curve`);
  const seconds = async () =>
    Number(/samples\/s, (\d+) s/.exec((await page.locator('footer').textContent()) ?? '')?.[1] ?? 0);
  await expect.poll(seconds).toBeGreaterThanOrEqual(5);
  const before = await seconds();
  await kill();
  await start();

  await page.reload();
  await expect(page.getByRole('heading', { name: 'This run was interrupted' })).toBeVisible();
  const { time } = await recorded(page.request, id, base);
  // The footer rounds to whole seconds: half of one may not have been there yet.
  expect(time.at(-1)).toBeGreaterThanOrEqual(before - 0.5 - 1);
  await page.goto(base);
  await expect(page.getByRole('link', { name: /Boost curve was interrupted/ })).toBeVisible();
  await page.getByRole('link', { name: /Boost curve was interrupted/ }).click();

  await page.getByRole('button', { name: /Resume/ }).click();
  await page.getByLabel('Rig time').selectOption('20');
  await page.getByRole('button', { name: /Let the rig pull/ }).click();
  await expect(page.getByRole('button', { name: /Keep this run/ })).toBeEnabled({ timeout: 240_000 });
  await expect(page.getByRole('heading', { name: /This run/ })).toContainText('Pass');
});
