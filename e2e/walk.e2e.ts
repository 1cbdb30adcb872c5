import { existsSync, readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, open, test } from './test';

/** A page's address without what tells one thing from another: builds, parts and units of a kind look alike. */
const shapeOf = (path: string) =>
  path
    .replace(/AC-\d+/, '{build}')
    .replace(/[0-9A-HJKMNP-TV-Z]{26}/, '{id}')
    .replace(/\/u\/[^/?]+/, '/u/{tag}')
    .replace(/\?.*/, '');
/** Of each shape so many are walked through in the browser; all are asked for. */
const WALKED = 2;

/** Every page of the demo that a link leads to, from Today on; of each shape so many are asked for more. */
async function pagesOf(page: Page, ofShape: number): Promise<string[]> {
  const seen = new Set(['/c/fernhollow', '/crates', '/backup']);
  const asked = new Map<string, number>();
  for (const path of seen) {
    const shape = shapeOf(path);
    const before = asked.get(shape) ?? 0;
    if (before >= ofShape) continue;
    asked.set(shape, before + 1);
    const response = await page.request.get(path);
    expect(response.status(), path).toBe(200);
    const html = await response.text();
    for (const [, href] of html.matchAll(/href="(\/(?:c\/fernhollow|b\/AC|crates|backup)[^"#]*)"/g)) {
      const next = href!.replaceAll('&amp;', '&');
      // the orders and pages of a table, and choices laid into an address, are the same page again
      if (!/[?&](sort|page|down|find|with|change)=/.test(next)) seen.add(next);
    }
  }
  return [...seen].sort();
}

/** Requests of a page that are under way, streams of events aside: they only end with the page. */
const underWay = new WeakMap<Page, Set<unknown>>();
async function settled(page: Page): Promise<void> {
  const requests = underWay.get(page)!;
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done, 30))));
  for (const until = Date.now() + 2_000; requests.size > 0 && Date.now() < until;) await page.waitForTimeout(20);
}

/** Opens a page; what the one before was still waiting for has gone with it. */
async function fresh(page: Page, path: string): Promise<void> {
  underWay.get(page)!.clear();
  await open(page, path);
}

/** What a browser and a server must not say while one walks. */
function listen(page: Page): string[] {
  const wrong: string[] = [];
  const requests = new Set<unknown>();
  underWay.set(page, requests);
  page.on('request', (request) => request.url().endsWith('/events') || requests.add(request));
  page.on('requestfinished', (request) => requests.delete(request));
  page.on('requestfailed', (request) => requests.delete(request));
  page.on('response', (response) => {
    if (response.status() >= 400) wrong.push(`${response.status()} ${response.url()} on ${page.url()}`);
  });
  page.on('console', (message) => {
    if (message.type() === 'error' || /hydration/i.test(message.text()))
      wrong.push(`${message.text()} on ${page.url()}`);
  });
  return wrong;
}

/** Presses every control of a sort; what led away from the page, or changed how many there are, is followed by the page as it was opened. */
async function pressEach(page: Page, path: string, selector: string): Promise<number> {
  await fresh(page, path);
  const count = await page.locator(selector).count();
  for (let i = 0; i < count; i++) {
    const control = page.locator(selector).nth(i);
    if (!(await control.isVisible()) || !(await control.isEnabled())) continue;
    await control.click();
    await settled(page);
    await page.keyboard.press('Escape');
    const here = new URL(page.url()).pathname === path.split('?')[0];
    const same =
      here && (await page.locator(selector).count()) === count && (await page.locator('dialog[open]').count()) === 0;
    if (i < count - 1 && !same) await fresh(page, path);
  }
  return count;
}

const HEADINGS = 'thead a, thead button';
const TABS = '[role="tab"], .tabs a, nav[aria-label] .tab';
// those that open a form: what would add something at once is pressed elsewhere
const ADDS =
  'main :is(a, button[type="button"], button.bx--btn:not([type="submit"])):text-matches("^(Add|New|Note|Enter|Paste)", "i")';

test.describe.configure({ mode: 'parallel' });
test('every page of the demo that a link leads to is there', async ({ page }) => {
  test.setTimeout(240_000);
  expect((await pagesOf(page, Infinity)).length).toBeGreaterThan(600);
});

const PARTS = 3;
for (let part = 0; part < PARTS; part++)
  test(`every page of the demo opens, and every heading, tab and “add” on it does what it says, without an error (${part + 1} of ${PARTS})`, async ({
    page
  }) => {
    test.setTimeout(420_000);
    const pages = await pagesOf(page, WALKED + 1);
    const shapes = [...new Set(pages.map(shapeOf))];
    expect(shapes.length).toBeGreaterThan(25);
    const wrong = listen(page);
    let pressed = 0;
    for (const [i, shape] of shapes.entries()) {
      if (i % PARTS !== part) continue;
      const paths = pages.filter((path) => shapeOf(path) === shape);
      for (const path of paths.slice(0, WALKED)) {
        await fresh(page, path);
        await settled(page);
        if (path === paths[0]) for (const what of [HEADINGS, TABS, ADDS]) pressed += await pressEach(page, path, what);
        expect(wrong, path).toEqual([]);
      }
    }
    expect(pressed).toBeGreaterThan(60 / PARTS);
    // and the server has written no error meanwhile: no cookie set too late, nothing unexpected
    const log = '.cache/e2e-errors.log';
    expect(existsSync(log)).toBe(true);
    expect(readFileSync(log, 'utf8')).not.toMatch(/cookies|Error|^ +at /m);
  });
