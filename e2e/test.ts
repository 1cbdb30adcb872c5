import { expect, test as base, type Page } from '@playwright/test';

/** The one port that the pages under test may talk to; anything else is a fault of the page. */
export const test = base.extend<{ guard: void }>({
  guard: [
    async ({ context }, use) => {
      const bad: string[] = [];
      // The browser is started so that it can resolve no other name; here the attempt itself is noticed.
      context.on('request', (request) => {
        const url = new URL(request.url());
        const own = ['data:', 'blob:'].includes(url.protocol) || ['127.0.0.1', 'localhost'].includes(url.hostname);
        if (!own) bad.push(`request to ${url.href}`);
      });
      context.on('weberror', (error) => bad.push(`script error: ${error.error().message}`));
      context.on('console', (message) => {
        // A refused request is expected where a test sends bad input; what it says is for the test to look at.
        if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
          bad.push(`console: ${message.text()}`);
      });
      await use();
      expect(bad).toEqual([]);
    },
    { auto: true }
  ]
});
export { expect };

/** Opens a page and waits until it answers to keys and clicks. */
export async function open(page: Page, path: string): Promise<void> {
  await page.goto(path);
  await page.locator('html[data-ready="yes"]').waitFor();
}

/** Picks an entry of one of the boxes over the lane. */
export async function pick(page: Page, box: string, entry: string): Promise<void> {
  const input = page.getByRole('combobox', { name: box });
  await input.click();
  await input.fill(entry);
  await page.getByRole('option', { name: entry, exact: true }).first().click();
}

export async function crateId(page: Page, slug: string): Promise<string> {
  const crates = (await (await page.request.get('/api/crates')).json()) as { id: string; slug: string }[];
  return crates.find((crate) => crate.slug === slug)!.id;
}
