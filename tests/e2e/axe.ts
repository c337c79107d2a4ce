import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** No violation of WCAG 2.2 A and AA on the page as it stands. */
export async function expectAccessible(page: Page, where: string): Promise<void> {
  // A colour on its way from one state to the next is neither of them: wait for what moves, unless it moves for ever.
  await page.evaluate(() =>
    Promise.allSettled(
      document
        .getAnimations()
        .filter((animation) => Number(animation.effect?.getComputedTiming().endTime) < 5000)
        .map((animation) => animation.finished),
    ),
  );
  // The preview of a paper is a document of its own; it is checked by itself.
  const found = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .exclude('iframe')
    .analyze();
  const violations = found.violations.map(
    (each) => `${where}: ${each.id}: ${each.nodes.map((node) => node.target.join(' ')).join('; ')}`,
  );
  expect(violations).toEqual([]);
}
