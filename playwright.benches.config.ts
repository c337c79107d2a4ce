import { defineConfig } from '@playwright/test';
import { screens } from './playwright.config';

/** Whole jobs of every kind in real time: too slow for every day, run on demand by `npm run benches`. */
export default defineConfig({
  ...screens,
  testDir: 'tests/benches',
  timeout: 3_600_000,
  workers: 1,
  projects: [{ name: 'benches' }],
});
