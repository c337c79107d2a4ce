import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { browserPath } from './tests/support/browser';

const port = 4391;
// Filled once, before anything is served; every server of the tests gets a copy. Workers inherit where it is.
process.env.SEEDED_SHOP ??= mkdtempSync(path.join(tmpdir(), 'seeded-'));

/** Real journeys in Debian's Chromium against the production build, on a demo shop of their own. */
export const screens = defineConfig({
  testDir: 'tests/e2e',
  // No journey asserts a wall-clock time: these only end one that hangs, on however busy a machine.
  timeout: 480_000,
  expect: { timeout: 45_000 },
  // The screens share one shop and go one after the other; the command line needs no shop and goes beside them.
  workers: 2,
  projects: [
    { name: 'screens', testIgnore: 'hp.spec.ts', workers: 1 },
    { name: 'files', testMatch: 'hp.spec.ts', workers: 1 },
  ],
  retries: 0,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    // What is not there is missed soon, so that one that fails does not hold up the others for the whole of that time.
    actionTimeout: 90_000,
    viewport: { width: 1280, height: 800 },
    // A colour on its way from one state to the next is neither of them.
    contextOptions: { reducedMotion: 'reduce' },
    // A picture of what went wrong says enough, and costs a journey that goes well nothing.
    trace: 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: browserPath,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: `bash tests/e2e/start-shop.sh ${port}`,
    url: `http://127.0.0.1:${port}/sheets`,
    timeout: 900_000,
    reuseExistingServer: false,
  },
});

export default screens;
