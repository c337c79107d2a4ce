import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { sweepBut } from './sweep';
import { expectAccessible } from './axe';

const job = '/jobs/job-tk-2207-118';
const pages = [
  '/',
  '/sheets',
  '/instruments',
  '/spheres',
  '/wiring?sheet=ostvale-mb3',
  '/bore',
  '/settings',
  '/book-in',
  '/sheets/new',
  job,
  `${job}/release`,
  `${job}/bench/look-over`,
  `${job}/bench/boost-curve`,
  `${job}/bench/boost-curve?by=dial`,
  `${job}/bench/boost-curve?by=log`,
  '/jobs/job-ug-cs-007/bench/walk-round',
];

/** Tablets upright and across, and a page of 1280 by 800 at twice its size. */
const sizes = [
  { name: '800 by 1280', width: 800, height: 1280 },
  { name: '1024 by 768', width: 1024, height: 768 },
  { name: '200 %', width: 640, height: 400 },
];

/** What reaches beyond the window, or beyond a panel that does not scroll. */
async function offView(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const wide = document.documentElement.clientWidth;
    const scrolls = (element: Element) => ['auto', 'scroll'].includes(getComputedStyle(element).overflowX);
    const named = (element: Element) =>
      `${element.tagName.toLowerCase()} “${(element.textContent ?? '').slice(0, 30)}”`;
    const found: string[] = [];
    for (const element of document.querySelectorAll('body *')) {
      const box = element.getBoundingClientRect();
      if (box.width < 3 || box.height < 3 || getComputedStyle(element).position === 'fixed') continue;
      // The nearest thing around it that lets what is too wide be scrolled to.
      let around = element.parentElement;
      while (around && !scrolls(around)) around = around.parentElement;
      // A panel that is to scroll up and down alone cuts what is wider than it.
      const strip = around?.matches('ul, [class*="over"]') ?? false;
      const right = around && !strip ? around.getBoundingClientRect().right : strip ? Infinity : wide;
      if (box.right > right + 1) found.push(named(element));
    }
    return found.slice(0, 5);
  });
}

for (const { name, ...viewport } of sizes)
  test(
    `at ${name} every place uses its width and nothing is off view`,
    sweepBut(name === '800 by 1280'),
    async ({ page }) => {
      await page.setViewportSize(viewport);
      for (const path of pages) {
        await page.goto(path);
        await expect(page.locator('h1').first()).not.toBeEmpty();
        expect({ path, off: await offView(page) }).toEqual({ path, off: [] });
        const share = await page
          .locator('main')
          .evaluate((main) => main.getBoundingClientRect().width / window.innerWidth);
        // Beside a panel of results a bench keeps more than half; everything else has the page.
        expect({ path, wide: share > (path.includes('boost-curve') ? 0.5 : 0.78) }).toEqual({ path, wide: true });
      }
      await page.goto(`${job}/bench/look-over`);
      await expectAccessible(page, `look over at ${name}`);
      await page.goto('/instruments');
      await expectAccessible(page, `instruments at ${name}`);
    },
  );
