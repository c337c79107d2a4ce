import { chromium } from '@playwright/test';
import { browserPath } from '../tests/support/browser';
const b = await chromium.launch({ executablePath: browserPath, args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
for (const [name, url] of [['floor','/'],['booking','/jobs/job-tk-2207-118/booking'],['job','/jobs/job-tk-2207-118']] as const) {
  await p.goto('http://127.0.0.1:4377'+url);
  await p.waitForFunction(() => 'answers' in document.documentElement.dataset);
  await p.waitForTimeout(600);
  await p.screenshot({ path: `/tmp/w/shot-${name}.png` });
}
await b.close();
