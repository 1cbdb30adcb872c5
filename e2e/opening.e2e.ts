import { expect, open, test } from './test';

test('a page is painted before it asks for a script, and stands there whole afterwards', async ({ page }) => {
  await open(page, '/b/AC-0001/pair');
  const { painted, asked } = await page.evaluate(() => ({
    painted: performance.getEntriesByName('first-contentful-paint')[0]!.startTime,
    asked: performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.endsWith('.js'))
      .map(({ startTime }) => startTime)
  }));
  expect(asked.length).toBeGreaterThan(5);
  expect(Math.min(...asked)).toBeGreaterThanOrEqual(painted);
  await expect(page.locator('html')).not.toHaveClass(/frame-first/);
  // None is told twice: all that the page needs are the framework's own links now.
  await expect(page.locator('link[rel="later"]')).toHaveCount(0);
  expect(await page.locator('link[rel="modulepreload"]').count()).toBeGreaterThan(5);
});

test('a page with a field to begin in begins there, and one with a place in its address at that place', async ({
  page
}) => {
  await open(page, '/c/fernhollow/find');
  await expect(page.getByLabel(/^Tag, name, place or person/)).toBeFocused();
  await open(page, '/c/fernhollow/house-rules');
  const last = await page.locator('main [id]').last().getAttribute('id');
  await open(page, `/c/fernhollow/house-rules#${last}`);
  await expect(page.locator(`[id="${last}"]`)).toBeInViewport();
});

test('without scripts everything is there to be read', async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto('/b/AC-0001/pair');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await expect(page.locator('.lane').first()).toBeVisible();
  await context.close();
});
