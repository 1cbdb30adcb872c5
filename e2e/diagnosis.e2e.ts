import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, open, test } from './test';

type Listed = { id: string; date: string; protocol: string };

/** A run of the demo, by its day and kind. */
async function runOf(page: Page, date: string, protocol: string): Promise<string> {
  const crates = (await (await page.request.get('/api/crates')).json()) as { id: string; demo: boolean }[];
  const crate = crates.find(({ demo }) => demo)?.id ?? '';
  const runs = (await (await page.request.get(`/api/crates/${crate}/runs?limit=200`)).json()) as Listed[];
  const run = runs.find((one) => one.date === date && one.protocol === protocol);
  return `/c/fernhollow/runs/${run?.id ?? 'none'}`;
}
const next = (page: Page) => page.locator('section.next');
const said = (page: Page) => page.getByRole('status').first();

test.describe.configure({ mode: 'serial' });

test('what came out is said first; a diagnosis is followed through its next tests to its end', async ({ page }) => {
  // A soak that stopped eleven times: cable, power, or the bridge.
  await open(page, await runOf(page, '2026-03-20', 'soak'));
  await expect(said(page)).toContainText('Writing stopped 11 times, for up to 6');
  await expect(said(page)).toContainText('Most likely: loose contact or cable');
  await expect(page.getByText('Played on the stand-in rig, not measured on a device')).toBeVisible();
  const { violations } = await new AxeBuilder({ page })
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(violations.filter(({ impact }) => impact === 'serious' || impact === 'critical').map(({ id }) => id)).toEqual(
    []
  );
  for (let step = 0; step < 6 && (await next(page).count()) > 0; step++) {
    const question = (await next(page).getByRole('heading').textContent()) ?? '';
    // Whatever is asked is answered as a loose cable would.
    await next(page)
      .getByRole('button', { name: /then: loose contact or cable/ })
      .first()
      .click();
    await expect(page.getByText('Tried so far')).toBeVisible();
    await expect(page.locator('.tried li')).toHaveCount(step + 1);
    if (await next(page).count()) await expect(next(page).getByRole('heading')).not.toHaveText(question);
  }
  await expect(said(page)).toContainText('the connection is not firm');
  await expect(page.getByText('What to do:')).toBeVisible();
  await expect(next(page)).toHaveCount(0);
  // It is kept with the run, and what was answered may be taken back.
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(said(page)).toContainText('the connection is not firm');
  for (let left = await page.locator('.tried li').count(); left > 0; left--) {
    await page
      .getByRole('button', { name: /^Take back/ })
      .first()
      .click();
    await expect(page.locator('.tried li')).toHaveCount(left - 1);
  }
  await expect(said(page)).toContainText('Most likely');
});

test('of two who answer at once the second is told, and loses nothing', async ({ page }) => {
  const address = await runOf(page, '2026-03-20', 'soak');
  await open(page, address);
  const other = await page.context().newPage();
  await open(other, address);
  await next(page).getByRole('button').first().click();
  await expect(page.locator('.tried li')).toHaveCount(1);
  await next(other).getByRole('button').first().click();
  await expect(other.getByText('Someone else changed this in the meantime', { exact: false }).first()).toBeVisible();
  await other.close();
  await page.getByRole('button', { name: /^Take back/ }).click();
  await expect(page.locator('.tried li')).toHaveCount(0);
});

test('one cable is the culprit in three builds, and the page of each says so', async ({ page }) => {
  for (const date of ['2026-10-24', '2026-09-18', '2026-08-11']) {
    await open(page, await runOf(page, date, 'loop'));
    await expect(page.getByRole('region', { name: 'Suspect across builds' })).toContainText(
      /Cable Rush C-C 10G \(C-\d+\): This cable was slow in 3 builds; \d+ builds without it are sound/
    );
  }
  // It is noted on the very item that was used, and not on the cable of the build.
  await expect(page.getByRole('button', { name: /^Note it on C-/ })).toBeVisible();
  // A run with the build's own cable does not speak of it.
  await open(page, await runOf(page, '2026-10-01', 'soak'));
  await expect(said(page)).toContainText(
    /Writes fell to 2\d\d0 MB\/s after 2\d\d\s*GB: the fast cache was full. Nothing is wrong/
  );
  await expect(page.getByRole('region', { name: 'Suspect across builds' })).toHaveCount(0);
});

test('lines of a log and the shown speed are taken into account, by keyboard alone', async ({ page }) => {
  await open(page, await runOf(page, '2026-05-14', 'loop'));
  const share = page.getByRole('region', { name: 'What it can be' });
  await expect(share).toBeVisible();
  await page.getByText('Say more: the speed that is shown').focus();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.insertText(
    'systemd[1]: nothing of ours\nusb 2-1: UAS is ignored for this device, using usb-storage instead\n'
  );
  await expect(page.getByText('1 of 3 lines says something.')).toBeVisible();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 line of the log kept', { exact: false })).toBeVisible();
  await expect(share).toContainText('The log shows the bulk-only transport.');
  await page.getByRole('button', { name: 'Leave them out' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('of the log kept', { exact: false })).toHaveCount(0);
});
