import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, open, test } from './test';

/** A build of one's own would be cleaner; the demo has one that nothing else measures on the rig. */
const BUILD = 'AC-0014';

async function beginSoak(page: Page, speed: string): Promise<void> {
  await open(page, `/b/${BUILD}/measure/plan?protocol=soak`);
  await page.getByLabel('Length, s').fill('600');
  await page.getByLabel('Length, s').blur();
  await page.getByLabel('How fast').selectOption(speed);
  await page.getByRole('button', { name: 'Begin the simulated run' }).click();
  await expect(page).toHaveURL(/\/runs\/[0-9A-Z]{26}$/);
  await page.locator('html[data-ready="yes"]').waitFor();
}
const progress = (page: Page) => page.getByRole('region', { name: 'Progress' });

test.describe.configure({ mode: 'serial' });

test('a soak is watched, cancelled, closed, and taken up again to its end', async ({ page }) => {
  await beginSoak(page, '60');
  await expect(page.getByText('Played on the stand-in rig, not measured on a device')).toBeVisible();
  await expect(progress(page)).toContainText(/\d+ %: .* of about 10:00/);
  await expect(page).toHaveTitle(/^\d+ % · Soak/);
  // Somebody else, who begins another one on the same drive meanwhile, is told.
  const other = await page.context().newPage();
  await open(other, `/b/${BUILD}/measure/plan?protocol=pair-check`);
  await other.getByRole('button', { name: 'Begin the simulated run' }).click();
  await expect(other.getByText('one run at a time on one drive', { exact: false })).toBeVisible();
  await other.close();
  await page.getByRole('button', { name: 'Cancel, and keep what is there' }).click();
  await expect(progress(page)).toContainText('It was cancelled. What was sampled until then is kept');
  const kept = Number(/(\d+) samples/.exec((await progress(page).textContent()) ?? '')?.[1]);
  expect(kept).toBeGreaterThan(0);
  expect(kept).toBeLessThan(600);
  const address = page.url();
  await open(page, '/c/fernhollow');
  await open(page, address);
  await expect(progress(page)).toContainText(`${kept} samples`);
  await page.getByRole('spinbutton', { name: 'Speed' }).fill('100000');
  await page.getByRole('button', { name: 'Go on from there' }).click();
  await expect(page.getByText('600 samples', { exact: false })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Measured against the forecast' })).toContainText('Write');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'All samples as CSV' }).click()
  ]);
  expect(download.suggestedFilename()).toContain('simulated');
  const { violations } = await new AxeBuilder({ page })
    .options({ resultTypes: ['violations'] })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    violations
      .filter(({ impact }) => impact === 'serious' || impact === 'critical')
      .map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`)
  ).toEqual([]);
  await page.setViewportSize({ width: 390, height: 800 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
});

test('keyboard only: from the question to a run, and out of it', async ({ page }) => {
  await open(page, `/b/${BUILD}/measure`);
  await page.getByRole('link', { name: 'Is the connection as fast as forecast?' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Speed check', exact: true })).toBeVisible();
  await page.locator('html[data-ready="yes"]').waitFor();
  await page.getByRole('button', { name: 'Begin the simulated run' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/runs\//);
  await page.getByRole('button', { name: 'Cancel, and keep what is there' }).focus();
  await page.keyboard.press('Enter');
  await expect(progress(page)).toContainText('What was sampled until then is kept');
});

test('a copy that cannot be is corrected by one click, and by hand its way is told', async ({ page }) => {
  await open(page, '/b/AC-0013/measure');
  const watch = page.getByRole('region', { name: 'Stopwatch' });
  await expect(watch).toContainText('A copy to the drive measures its write');
  await watch.getByLabel('From', { exact: true }).selectOption('drive');
  await watch.getByLabel('To', { exact: true }).selectOption('memory');
  await expect(watch).toContainText('A copy from the drive measures its read');
  await watch.getByRole('button', { name: 'Start the stopwatch' }).click();
  await watch.getByLabel('What is copied, GB').fill('900');
  await page.waitForTimeout(1500);
  await watch.getByRole('button', { name: 'Stop', exact: true }).click();
  // 900 GB in a second and a half: MB were meant
  await expect(watch.getByRole('alert').first()).toContainText('nothing passes the connection faster');
  await expect(watch.getByRole('button', { name: 'Keep as a read result' })).toHaveCount(0);
  await watch.getByRole('button', { name: 'Make it 0.9 GB' }).click();
  await expect(watch.getByLabel('What is copied, GB')).toHaveValue('0.9');
  await watch.getByRole('button', { name: 'Keep it as it is' }).click();
  await watch.getByRole('button', { name: 'Keep as a read result' }).click();
  await expect(page.getByText('The result is kept.')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Other results' })).toContainText('from the drive');
  await page.locator('.notice', { hasText: 'The result is kept' }).getByRole('button', { name: 'Undo' }).click();
});

test('by hand: what the protocol needs is asked for, and “I do not know” is an answer', async ({ page }) => {
  await open(page, '/c/fernhollow/runs');
  await page.getByRole('link', { name: 'Flint stick 1TB', exact: true }).last().click();
  await page.getByRole('link', { name: 'Does the first round tell the truth' }).click();
  await page.locator('html[data-ready="yes"]').waitFor();
  await page.getByLabel('Rounds').fill('2');
  await page.getByLabel('Rounds').blur();
  await page.getByLabel('Write, round 1, MB/s or how long').fill('170 MB/s');
  await page.getByLabel('Write, round 1, MB/s or how long').blur();
  await page.getByLabel('Write, round 2, MB/s or how long').fill('1:46');
  await page.getByLabel('Write, round 2, MB/s or how long').blur();
  await page.getByRole('button', { name: 'Keep the result' }).click();
  await expect(page.getByText('Answer it, or say that you do not know.').first()).toBeVisible();
  await page.getByLabel('Power').selectOption('mains');
  for (const box of await page.locator('.fields').first().locator('..').getByLabel('I do not know').all())
    if (await box.isVisible()) await box.check();
  await page.getByRole('button', { name: 'Keep the result' }).click();
  await expect(page.getByRole('heading', { name: 'Loop', exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Conditions' })).toContainText('not known');
  await expect(page.getByRole('region', { name: 'Repeats' })).toContainText('Writes');
});
