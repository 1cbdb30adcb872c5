import AxeBuilder from '@axe-core/playwright';
import { expect, open, test } from './test';

const PAGES = [
  '/c/fernhollow',
  '/c/fernhollow/crate/drive',
  '/c/fernhollow/crate/host/new',
  '/c/fernhollow/builds',
  '/c/fernhollow/pair',
  '/b/AC-0001/pair',
  '/b/AC-0008/measure',
  '/b/AC-0001/measure/plan?protocol=copy',
  '/c/fernhollow/runs',
  '/b/AC-0001/assemble',
  '/b/AC-0005/assemble',
  '/b/AC-0016/assemble',
  '/b/AC-0016/assemble?view=step',
  '/b/AC-0005/assemble/trouble',
  '/b/AC-0009/assemble/trouble?symptom=not-detected&a=disk-list:right.seen-before:never',
  '/b/AC-0009/assemble/trouble?symptom=slow',
  '/b/AC-0004/assemble/leads',
  '/b/AC-0001/log',
  '/b/AC-0001/format',
  '/b/AC-0014/format/sheet',
  '/b/AC-0009/format/guard',
  '/b/AC-0004/format/record',
  '/b/AC-0011/format/erase',
  '/c/fernhollow/filesystems',
  '/crates',
  '/c/fernhollow/crate/paste',
  '/c/fernhollow/items',
  '/c/fernhollow/u/D-002',
  '/c/fernhollow/find',
  '/c/fernhollow/labels?tag=D-002',
  '/c/fernhollow/prices',
  '/c/fernhollow/combinations',
  '/c/fernhollow/tables',
  '/c/fernhollow/history',
  '/c/fernhollow/glossary',
  '/b/AC-0001/buy',
  '/b/AC-0014/pads',
  '/b/AC-0002/pads/cut',
  '/b/AC-0001/pads/heat',
  '/b/AC-0002/pads/log',
  '/c/fernhollow/rank',
  '/c/fernhollow/together',
  '/c/fernhollow/jobs',
  '/c/fernhollow/house-rules',
  '/c/fernhollow/keys',
  '/backup'
];

// They only look: one beside the other.
test.describe.configure({ mode: 'parallel' });

for (const path of PAGES) {
  test(`${path}: no serious accessibility finding in both themes, no sideways scrolling on a phone`, async ({
    page
  }) => {
    await page.addInitScript(() => localStorage.setItem('theme', 'white'));
    await open(page, path);
    // Colours are judged once they have settled, not on their way from one theme to the other.
    await page.addStyleTag({ content: '* { transition: none !important; animation: none !important }' });
    for (const theme of ['white', 'g100']) {
      await page.evaluate((t) => document.documentElement.setAttribute('theme', t), theme);
      // Rows of a table are of one shape: a dozen of them stand for all.
      // What is well is not written down, node by node: on a page of many that is most of the work.
      const axe = new AxeBuilder({ page })
        .options({ resultTypes: ['violations'] })
        .exclude('tbody tr:nth-child(n + 13)');
      // The themes differ in nothing but colours: everything else is looked at once.
      const { violations } = await (
        theme === 'white'
          ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
          : axe.withRules(['color-contrast', 'link-in-text-block'])
      ).analyze();
      const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
      expect(serious.map((v) => `${theme} ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
    }
    await page.setViewportSize({ width: 390, height: 800 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
  });
}

test('keyboard only: to Pair, choose a cable, read a working, fold the ticket', async ({ page }) => {
  await open(page, '/c/fernhollow');
  await page.keyboard.press('g');
  await page.keyboard.press('b');
  await expect(page).toHaveURL(/\/builds$/);
  await open(page, '/b/AC-0001/pair');
  await page.getByRole('combobox', { name: 'Cable' }).focus();
  // single keys do nothing while one types
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type('Withy 0.8');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Save the change' })).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Cable' })).toHaveValue('Withy 0.8 40G');
  await page.getByRole('listbox', { name: 'Figures of the plan' }).focus();
  await page.keyboard.press('Home');
  await expect(
    page.getByRole('listbox', { name: 'Figures of the plan' }).getByRole('option', { selected: true })
  ).toContainText('Read');
  await page.keyboard.press('t');
  await expect(page.getByRole('complementary', { name: 'Ticket' })).not.toContainText('Runs as');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('Fold or unfold the ticket');
});

test('the theme is kept', async ({ page }) => {
  await open(page, '/c/fernhollow');
  await page.getByRole('button', { name: 'Dark' }).click();
  await expect(page.locator('html')).toHaveAttribute('theme', 'g100');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('theme', 'g100');
});

test('the first page stays light: under 180 kB of script and 60 kB of styles, compressed', async ({
  page,
  request
}) => {
  const sizes = { script: 0, stylesheet: 0 };
  const urls = new Map<string, 'script' | 'stylesheet'>();
  page.on('request', (r) => {
    const type = r.resourceType();
    if (type === 'script' || type === 'stylesheet') urls.set(r.url(), type);
  });
  // The scripts are asked for after the painting: a network that is quiet for a moment says nothing.
  await open(page, '/c/fernhollow');
  await page.waitForLoadState('networkidle');
  expect(urls.size).toBeGreaterThan(3);
  for (const [url, type] of urls) {
    const answer = await request.get(url, { headers: { 'accept-encoding': 'gzip' } });
    const length = answer.headers()['content-length'];
    sizes[type] += length ? Number(length) : (await answer.body()).length;
  }
  console.log(
    `first page: ${(sizes.script / 1000).toFixed(0)} kB script, ${(sizes.stylesheet / 1000).toFixed(0)} kB styles, gzip`
  );
  expect(sizes.script).toBeLessThan(180_000);
  expect(sizes.stylesheet).toBeLessThan(60_000);
});
