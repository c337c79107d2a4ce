import base from './playwright.config';

/** Whole jobs of every kind in real time: too slow for every day, run on demand by `npm run benches`. */
export default {
  ...base,
  testDir: 'tests/benches',
  timeout: 3_600_000,
  workers: 1,
  projects: [{ name: 'benches' }],
};
