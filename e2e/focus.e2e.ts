import type { Page } from '@playwright/test';
import { expect, open, test } from './test';

/** What has the focus, as a person would name it. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement as HTMLElement | null;
    return {
      tag: at?.tagName ?? '',
      words: (at?.getAttribute('aria-label') ?? at?.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 60),
      inHead: Boolean(at?.closest('.page-head, nav, header, .demo')),
      inMain: Boolean(at?.closest('main'))
    };
  });

test('a new page is read from its heading, and on the same page the focus stays', async ({ page }) => {
  await open(page, '/c/fernhollow');
  for (const [link, heading] of [
    ['Builds', 'Builds'],
    ['Crate', 'Crate'],
    ['Items', 'Items'],
    ['Pair', 'Pair']
  ] as const) {
    await page.getByRole('navigation', { name: 'Main' }).getByRole('link', { name: link, exact: true }).press('Enter');
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeFocused();
  }
  // a page that is there to be typed into begins in its field
  await page.locator('summary', { hasText: 'More' }).click();
  await page.getByRole('link', { name: 'Find an item' }).press('Enter');
  await expect(page.getByLabel(/^Tag, name, place or person/)).toBeFocused();
  // sorting, searching and filtering write the address and leave the focus alone
  await open(page, '/c/fernhollow/builds');
  const find = page.getByRole('searchbox', { name: 'Find builds' });
  await find.fill('chert');
  await expect(page).toHaveURL(/find=chert/);
  await expect(find).toBeFocused();
  await open(page, '/c/fernhollow/crate/drive');
  const search = page.getByRole('searchbox', { name: 'Find drives' });
  await search.fill('loam');
  await expect(page).toHaveURL(/find=loam/);
  await expect(search).toBeFocused();
});

test('what is added is typed into at once: a job, a system in it, a port', async ({ page }) => {
  await open(page, '/c/fernhollow/jobs');
  await page.getByRole('button', { name: 'Add a job' }).press('Enter');
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused();
  await page.getByRole('button', { name: 'Add a system' }).first().press('Enter');
  await expect(page.getByLabel('System', { exact: true }).first()).toBeFocused();
  await open(page, '/c/fernhollow/crate/host/new');
  await page.getByRole('button', { name: 'Add a port' }).press('Enter');
  await expect(page.getByLabel('What is printed beside it').last()).toBeFocused();
});

// The work of a page: the first thing in it that is neither its head nor its navigation.
const WORK = [
  '/c/fernhollow',
  '/c/fernhollow/builds',
  '/c/fernhollow/crate/drive',
  '/c/fernhollow/pair',
  '/c/fernhollow/rank',
  '/c/fernhollow/jobs',
  '/c/fernhollow/prices',
  '/c/fernhollow/items',
  '/c/fernhollow/find',
  '/c/fernhollow/tables',
  '/c/fernhollow/house-rules',
  '/c/fernhollow/together',
  '/c/fernhollow/history',
  '/c/fernhollow/crate/enclosure/new',
  '/b/AC-0001/pair',
  '/b/AC-0001/buy',
  '/b/AC-0001/pads',
  '/b/AC-0001/pads/cut',
  '/b/AC-0001/pads/heat',
  '/b/AC-0001/assemble',
  '/b/AC-0005/assemble',
  '/b/AC-0005/assemble?view=step',
  '/b/AC-0005/assemble/trouble',
  '/b/AC-0001/format',
  '/b/AC-0001/format/sheet',
  '/b/AC-0014/format/sheet',
  '/b/AC-0001/format/guard',
  '/b/AC-0004/format/record',
  '/b/AC-0011/format/erase',
  '/b/AC-0001/measure',
  '/b/AC-0001/log'
];
test('from the top of a page, by the skip link, its work is at most four tabs away', async ({ page }) => {
  test.setTimeout(180_000);
  const far: string[] = [];
  for (const path of WORK) {
    await open(page, path);
    // a page that is there to be typed into has the focus in its field from the start
    if ((await focused(page)).tag === 'INPUT') continue;
    await page.keyboard.press('Tab');
    expect((await focused(page)).words, path).toBe('To the content');
    await page.keyboard.press('Enter');
    let tabs = 1;
    for (; tabs < 12; tabs++) {
      await page.keyboard.press('Tab');
      const at = await focused(page);
      if (at.inMain && !at.inHead) break;
    }
    if (tabs + 1 > 4) far.push(`${path}: ${tabs + 1} tabs`);
  }
  expect(far).toEqual([]);
});

const ON_A_PHONE = [
  '/',
  '/judge',
  '/c/fernhollow',
  '/c/fernhollow/builds',
  '/c/fernhollow/pair',
  '/b/AC-0001/pair',
  '/b/AC-0001/buy',
  '/b/AC-0001/pads',
  '/b/AC-0005/assemble',
  '/b/AC-0016/assemble',
  '/b/AC-0016/assemble?view=step',
  '/b/AC-0005/assemble/trouble',
  '/b/AC-0005/assemble/trouble?symptom=not-detected',
  '/b/AC-0005/assemble/leads',
  '/b/AC-0001/format',
  '/b/AC-0014/format/sheet',
  '/b/AC-0009/format/guard',
  '/b/AC-0004/format/record',
  '/b/AC-0011/format/erase',
  '/c/fernhollow/filesystems',
  '/b/AC-0001/measure',
  '/c/fernhollow/rank',
  '/c/fernhollow/crate/drive',
  '/c/fernhollow/crate/enclosure/new',
  '/c/fernhollow/items',
  '/c/fernhollow/jobs',
  '/c/fernhollow/prices',
  '/c/fernhollow/tables',
  '/c/fernhollow/compare?plan=AC-0001&plan=AC-0002'
];
test('on a phone what is pressed is as high as a thumb, and no page is wider than the screen', async ({ page }) => {
  test.setTimeout(180_000);
  await page.setViewportSize({ width: 390, height: 844 });
  const small: string[] = [];
  for (const path of ON_A_PHONE) {
    await open(page, path);
    small.push(
      ...(await page.evaluate((path) => {
        const found: string[] = [];
        if (document.documentElement.scrollWidth > 390) found.push(`${path}: wider than the screen`);
        for (const e of document.querySelectorAll<HTMLElement>(
          'button, select, summary, input, nav a, header a, .bx--btn'
        )) {
          const { width, height } = e.getBoundingClientRect();
          if (width <= 1 || height <= 1 || getComputedStyle(e).visibility === 'hidden') continue;
          // words in a sentence that can be pressed, a chip in a drawing, and what Carbon draws itself inside a field
          if (e.matches('.link, .term, .mark, .skip, .bx--checkbox, .bx--search-close, .bx--list-box__selection'))
            continue;
          if (e.closest('svg, .plot')) continue;
          if (height < 43.5)
            found.push(
              `${path}: ${e.tagName} “${(e.getAttribute('aria-label') ?? e.textContent).trim().slice(0, 30)}” ${Math.round(height)} px`
            );
        }
        return found;
      }, path))
    );
  }
  expect(small).toEqual([]);
});

test('in no chart of the demo a label lies over another one', async ({ page }) => {
  test.setTimeout(240_000);
  const charts = [
    '/c/fernhollow/rank',
    ...Array.from({ length: 15 }, (_, i) => `/b/AC-${String(i + 1).padStart(4, '0')}/pads/heat`)
  ];
  let labels = 0;
  const over: string[] = [];
  for (const path of charts) {
    await open(page, path);
    if (await page.getByText('there is nothing to play').isVisible()) continue;
    await expect(page.locator('.js-plotly-plot .ytitle').first()).toBeVisible({ timeout: 30_000 });
    const found = await page.evaluate(() =>
      [...document.querySelectorAll('.js-plotly-plot')].flatMap((plot) => {
        const boxes = [...plot.querySelectorAll('svg text')]
          .map((text) => ({ words: text.textContent, box: text.getBoundingClientRect() }))
          .filter(({ words, box }) => words.trim() !== '' && box.width > 1);
        return [
          boxes.length,
          ...boxes.flatMap(({ words, box: a }, i) =>
            boxes.slice(i + 1).flatMap(({ words: other, box: b }) => {
              const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
              const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
              // lines of type stand closer than the boxes that a browser draws around them
              return wide > 1 && high > 3 ? [`“${words}” over “${other}”`] : [];
            })
          )
        ];
      })
    );
    for (const one of found)
      if (typeof one === 'number') labels += one;
      else over.push(`${path}: ${one}`);
  }
  expect(labels).toBeGreaterThan(300);
  expect(over).toEqual([]);
});

/** Tells whether these stand in what a screen reader reads of the page, one after the other. */
async function readInOrder(page: Page, parts: readonly RegExp[]): Promise<string[]> {
  const read = await page.locator('main').ariaSnapshot();
  let from = 0;
  return parts.flatMap((part) => {
    const at = read.slice(from).search(part);
    if (at < 0) return [`${String(part)} does not follow`];
    from += at + 1;
    return [];
  });
}

test('read in order, a page answers before it asks, and a chart is a sentence', async ({ page }) => {
  await open(page, '/b/AC-0001/pair');
  await expect(page.getByRole('region', { name: 'What if' })).toBeVisible();
  expect(
    await readInOrder(page, [
      /heading "Scan-day carrier" \[level=1\]/,
      /status:.*It goes together, with a limit/,
      /heading "Works, limited" \[level=2\]/,
      /strong: Together/,
      /strong: Limit/,
      /strong: Heat/,
      /strong: "Next:"/,
      /combobox "Computer and port"/,
      /combobox "Drive"/,
      /img "port 3000, cable 1750/,
      /Read.*MB\/s/,
      /region "Working of the chosen figure"/,
      /region "What if"/
    ])
  ).toEqual([]);
  await open(page, '/c/fernhollow/rank');
  await expect(page.getByRole('region', { name: 'Which should I buy?' })).toBeVisible({ timeout: 30_000 });
  expect(
    await readInOrder(page, [
      /heading "Rank" \[level=1\]/,
      /combinations/,
      /region "Which should I buy\?"/,
      /First because/,
      /Cheapest that does the job/,
      /figure/,
      /Best for the money: \d+ points/,
      /region "Compared with another way"/,
      /table/,
      /form "What is ranked"/
    ])
  ).toEqual([]);
  await open(page, '/b/AC-0001/pads/heat');
  await expect(page.locator('.js-plotly-plot').first()).toBeVisible({ timeout: 30_000 });
  expect(
    await readInOrder(page, [
      /heading "Heat over time" \[level=1\]/,
      /Simulated\./,
      /form "What is played"/,
      /done after/,
      /figure.*Rate, MB\/s/,
      /figure.*Temperatures, °C/,
      /heading "What happens"/,
      /table/,
      /heading "To touch and to carry"/
    ])
  ).toEqual([]);
  // the marks and ticks of a drawing are not read one by one
  expect(await page.locator('figure').first().ariaSnapshot()).not.toMatch(/\b500\b.*\b1000\b/s);
});

test('what is typed before the palette has come is looked for, and presses nothing', async ({ page }) => {
  await open(page, '/c/fernhollow');
  // From now on the only script that is asked for is the palette's.
  let asked = 0;
  await page.route(/\.js$/, async (route) => {
    asked += 1;
    await new Promise((resume) => setTimeout(resume, 1500));
    await route.continue();
  });
  await page.keyboard.press('Control+k');
  // Each of these letters is a key of its own on this page: n begins a build, g t goes to Today.
  await page.keyboard.type('ng tx');
  await page.keyboard.press('Backspace');
  await expect(page.getByRole('combobox', { name: 'Words, a tag, a place' })).toHaveValue('ng t');
  expect(asked).toBeGreaterThan(0);
  await expect(page).toHaveURL(/\/c\/fernhollow$/);
  await expect(page.getByRole('combobox', { name: 'Words, a tag, a place' })).toBeFocused();
  await page.keyboard.type('!');
  await expect(page.getByRole('combobox', { name: 'Words, a tag, a place' })).toHaveValue('ng t!');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Find or do' })).toBeHidden();
  // Opened again it is empty.
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Words, a tag, a place' })).toHaveValue('');
});
