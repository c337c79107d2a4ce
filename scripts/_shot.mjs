import { chromium } from 'playwright-core';
const [, , out, path, ...acts] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const p = await b.newPage({ viewport: { width: 1280, height: Number(process.env.H ?? 800) }, colorScheme: 'light' });
p.on('pageerror', (e) => console.log('PAGEERROR', e.message));
p.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
await p.goto('http://127.0.0.1:4610' + path, { waitUntil: 'load' });
await p.waitForTimeout(2500);
for (const a of acts) {
  const [k, v] = a.split('=');
  if (k === 'click') await p.getByText(v).first().click();
  if (k === 'wait') await p.waitForTimeout(Number(v));
  if (k === 'scroll') await p.mouse.wheel(0, Number(v));
}
await p.waitForTimeout(600);
await p.screenshot({ path: out });
await b.close();
