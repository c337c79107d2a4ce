import { chromium } from 'playwright-core';
const [,, w, h, out, ...paths] = process.argv;
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-background-networking','--disable-component-update','--disable-sync'] });
const zoom = Number(process.env.ZOOM ?? 1);
const p = await b.newPage({ viewport: { width: Math.round(Number(w)/zoom), height: Math.round(Number(h)/zoom) }, deviceScaleFactor: zoom });
for (const [i, path] of paths.entries()) {
  await p.goto('http://127.0.0.1:3210' + path); await p.waitForTimeout(900);
  const over = await p.evaluate(() => { const W = document.documentElement.clientWidth; const bad: string[] = []; for (const e of document.querySelectorAll('body *')) { const r = e.getBoundingClientRect(); if (r.width > 0 && (r.right > W + 1 || r.left < -1)) { const s = getComputedStyle(e); if (s.position === 'absolute' && r.width <= 2) continue; let q: any = e.parentElement, scroll = false; while (q) { const o = getComputedStyle(q).overflowX; if (o === 'auto' || o === 'scroll' || o === 'hidden') { scroll = true; break; } q = q.parentElement; } if (!scroll) bad.push(e.tagName + '.' + (e as any).className.toString().slice(0,40) + ' ' + Math.round(r.left) + '-' + Math.round(r.right)); } } return { scrollW: document.documentElement.scrollWidth, W, bad: bad.slice(0, 6) }; });
  console.log(path, JSON.stringify(over));
  if (process.env.SHOT !== '0') await p.screenshot({ path: `/tmp/shots/${out}-${i}.png` });
}
await b.close();
