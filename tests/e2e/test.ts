import { test as plain, type Page } from '@playwright/test';

/** Waits until a page of the application answers: what is typed into what the server drew, before that, nobody hears. */
const answers = (page: Page) =>
  page.waitForFunction(
    () => 'answers' in document.documentElement.dataset || !document.querySelector('script[src*="_next"]'),
  );

/** As the browser's own, but that a page which was gone to or loaded anew answers before anything is done with it. */
export const test = plain.extend({
  page: async ({ page }, proceed) => {
    const [goto, reload] = [page.goto.bind(page), page.reload.bind(page)];
    page.goto = async (...asked) => {
      const response = await goto(...asked);
      await answers(page);
      return response;
    };
    page.reload = async (...asked) => {
      const response = await reload(...asked);
      await answers(page);
      return response;
    };
    await proceed(page);
  },
});
