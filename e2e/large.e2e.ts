import { gzipSync } from 'node:zlib';
import { expect, test, type Page } from '@playwright/test';
import type { Knex } from 'knex';
import { fillLargeCrate } from '../bench/pages/large-crate.ts';
import { Program } from '../scripts/lib/endurance/program.ts';
import { connect } from '../src/lib/server/db/connection.ts';

// A crate of a thousand parts, two hundred builds and five hundred results, with a program of its own.
const program = new Program();
let db: Knex;
let crateId: string;
let home: string;

test.beforeAll(async () => {
  test.setTimeout(300_000);
  await program.startOrThrow();
  db = connect(program.databaseUrl, { patient: true });
  crateId = await fillLargeCrate(db, { parts: 1000, builds: 200, runs: 500 });
  const { slug } = (await db('crates').where({ id: crateId }).first('slug')) as { slug: string };
  home = `${program.address}/c/${slug}`;
  const builds = async () => (await fetch(`${home}/builds`)).text();
  await expect.poll(builds, { timeout: 120_000 }).not.toContain('being judged');
});
test.afterAll(async () => {
  await db?.destroy();
  await program.stop();
});

async function open(page: Page, path: string): Promise<void> {
  await page.goto(path.startsWith('http') ? path : home + path);
  await page.locator('html[data-ready="yes"]').waitFor();
}
const rows = (page: Page) => page.locator('main table tbody tr');
const pages = (page: Page) => page.getByRole('navigation', { name: 'Pages of the table' });

test('builds: two browsers sort differently, each turns its own pages, and one beyond the last is the last', async ({
  browser,
  page
}) => {
  const other = await (await browser.newContext()).newPage();
  await open(page, '/builds');
  await open(other, '/builds');
  await expect(pages(page)).toContainText('1 to 25 of 200');
  const perTB = page.getByRole('columnheader', { name: 'Per TB' });
  await perTB.getByRole('button').click();
  await expect(perTB).toHaveAttribute('aria-sort', 'ascending');
  await perTB.getByRole('button').click();
  await other.getByRole('button', { name: 'Write, forecast' }).click();
  const figures = async (of: Page, column: number) =>
    (await rows(of).locator(`td:nth-child(${column})`).allInnerTexts()).map((text) => parseFloat(text));
  await expect.poll(() => page.url()).toContain('down=yes');
  await expect.poll(() => other.url()).toContain('sort=write');
  // Down: the dearest first. Up: the slowest first. The columns are the last and the third from the end.
  await expect(perTB).toHaveAttribute('aria-sort', 'descending');
  const dear = await figures(page, 8);
  expect(dear).toEqual([...dear].sort((a, b) => b - a));
  const slow = await figures(other, 6);
  expect(slow).toEqual([...slow].sort((a, b) => a - b));

  await pages(page).getByRole('link', { name: 'Next' }).click();
  await expect(pages(page)).toContainText('26 to 50 of 200');
  const next = await figures(page, 8);
  expect(next[0]).toBeLessThanOrEqual(dear.at(-1)!);
  await open(page, '/builds?page=9999&sort=price');
  await expect(pages(page)).toContainText('176 to 200 of 200');
  await expect(pages(page)).toContainText('Page 8 of 8');
  expect(page.url()).toContain('sort=price');
});

for (const { path, box, sign, word } of [
  { path: '/builds', box: 'Find builds', sign: 'zz %_', word: 'AC-0100' },
  { path: '/runs', box: 'Find results', sign: '%', word: 'AC-0100' },
  { path: '/prices', box: 'Find prices', sign: '_%', word: 'Quay' },
  { path: '/history', box: 'Find in the history', sign: '%', word: 'quotes' },
  { path: '/items', box: 'Find', sign: '%', word: 'D-1' },
  { path: '/crate/drive', box: 'Find', sign: '_', word: '2TB' }
])
  test(`${path}: what is typed is looked for as it is, a word narrows, and clearing shows all again`, async ({
    page
  }) => {
    await open(page, path);
    await expect(pages(page)).toBeVisible();
    const all = await pages(page).innerText();
    const find = page.getByRole('main').getByRole('searchbox', { name: box });
    await find.fill(sign);
    await expect(pages(page)).toHaveCount(0);
    await find.fill(word);
    await expect(pages(page)).toBeVisible();
    await expect(pages(page)).not.toHaveText(all);
    await expect(find).toBeFocused();
    await find.fill('');
    await expect(pages(page)).toHaveText(all);
  });

test('an odd address shows a list as it begins', async ({ page }) => {
  for (const list of ['/builds', '/items', '/runs', '/jobs', '/prices', '/history', '/labels', '/crate/pad'])
    for (const odd of ['page=-1', 'page=abc', 'size=100000', 'sort=__proto__', 'down=maybe', 'modes=x']) {
      const response = await page.request.get(`${home}${list}?${odd}`);
      expect(response.status(), `${list}?${odd}`).toBe(200);
    }
});

test('Today: what stands in the way, the next twenty, and how many there are of the rest', async ({ page }) => {
  await open(page, '');
  const [{ n }] = (await db('judgements').where({ crate_id: crateId, tone: 0 }).count({ n: '*' })) as [{ n: number }];
  const urgent = Number(n);
  await expect(page.getByText(`Stands in the way, ${urgent} builds`)).toBeVisible();
  expect(urgent).toBeGreaterThan(40);
  await page.getByRole('link', { name: `Show all ${urgent} of these builds` }).click();
  await expect(pages(page)).toContainText(`of ${urgent}`);
});

test('Pair: j and k go over the window, a part beyond it is found by typing, and the choice survives a reload', async ({
  page
}) => {
  await open(page, '/pair');
  const drive = page.getByRole('combobox', { name: 'Drive' });
  const names = (await db('models')
    .where({ crate_id: crateId, kind: 'drive' })
    .orderBy('name')
    .pluck('name')) as string[];
  await drive.click();
  const offered = await page.getByRole('option').allInnerTexts();
  expect(offered.length).toBeLessThan(names.length);
  const far = names.filter((name) => !offered.some((text) => text.includes(name))).at(-1)!;
  await drive.fill(far);
  await page.getByRole('option', { name: far }).first().click();
  await expect(drive).toHaveValue(new RegExp(far));
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(drive).toHaveValue(new RegExp(far));
  // Exact, however few of them are here.
  await expect(page.locator('.tile').filter({ hasText: 'Drive' })).toContainText(`of\u2009${names.length}`);
  await drive.press('Escape');
  await page.locator('h1').click();
  const url = page.url();
  await page.getByRole('button', { name: 'Next drive' }).click();
  await expect.poll(() => page.url()).not.toBe(url);
  await page.locator('h1').click();
  const stepped = page.url();
  await page.keyboard.press('k');
  await expect.poll(() => page.url()).not.toBe(stepped);
});

test('emptied by hand, what is kept of judging comes back by itself, and meanwhile nothing old is shown', async ({
  page
}) => {
  await open(page, '/builds');
  const before = await rows(page).allInnerTexts();
  await db('judgements').where({ crate_id: crateId }).delete();
  await page.reload();
  await expect(page.getByRole('status').filter({ hasText: 'being judged' })).toBeVisible();
  // Without another reload.
  await expect(page.getByText('being judged')).toHaveCount(0, { timeout: 60_000 });
  expect(await rows(page).allInnerTexts()).toEqual(before);
});

test('a part that is edited while its builds are judged again stands in all of them as it is now', async ({ page }) => {
  const [host] = (await db('builds')
    .where({ crate_id: crateId })
    .groupBy('host_id')
    .orderBy('n', 'desc')
    .select('host_id as id')
    .count({ n: '*' })) as { id: string; n: number }[];
  const rename = async (name: string) => {
    const all = (
      await program.send<{ id: string; version: number; spec: object }[]>(
        'GET',
        `/api/crates/${crateId}/models?kind=host`
      )
    ).data;
    const { version, spec } = all.find(({ id }) => id === host!.id)!;
    const body = { version, spec: { ...spec, name } };
    expect((await program.send('PUT', `/api/crates/${crateId}/models/${host!.id}`, body)).status).toBe(200);
  };
  await db('judgements')
    .where({ crate_id: crateId })
    .update({ verdict: 9, tone: 9, due: db.raw('due + 1') });
  await open(page, '/builds');
  for (const name of ['Once renamed', 'Twice renamed', 'As it is now']) await rename(name);
  await open(page, '/builds?find=As+it+is+now');
  await expect(page.getByText('being judged')).toHaveCount(0, { timeout: 60_000 });
  await page.reload();
  await expect(pages(page)).toContainText(`of ${host!.n}`);
  await open(page, '/builds?find=renamed');
  await expect(page.getByText('No build matches “renamed”.')).toBeVisible();
});

test('Rank begins with what is owned and priced, names what is left out, and says where all would be too many', async ({
  page
}) => {
  await open(page, '/rank');
  await expect(rows(page).first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Combined in')).toBeVisible();
  await expect(page.getByText(/80 of \d+ drives take part/)).toBeVisible();
  await page.getByRole('button', { name: 'Take in all of them' }).click();
  await expect(page.getByRole('alert')).toContainText('500\u202f000\u202f000 are the most');
  // What was ranked before is still there.
  await expect(rows(page).first()).toBeVisible();
});

test('Rank asks before very many combinations, begins when one says so, and can be stopped', async ({ page }) => {
  // 12 computers and 80 enclosures of the beginning make 21.6 million combinations with all cables and 80 drives: twice as many here.
  const some = async (kind: string, most: number) =>
    ((await db('models').where({ crate_id: crateId, kind }).limit(most).pluck('id')) as string[]).join('.');
  await open(page, `/rank?cables=${await some('cable', 200)}&drives=${await some('drive', 170)}`);
  await expect(page.getByRole('alert')).toContainText('which may take a minute');
  await page.getByRole('button', { name: 'Rank them all the same' }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  // All of it takes a processor of its own for a while, and other tests run beside this one.
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Rank again' })).toBeVisible();
});

/** Every page of the crate and of one of its builds. */
const CRATE_PAGES =
  ' /builds /crate/drive /crate/pad /items /labels /jobs /prices /pair /rank /together /compare /runs /history /combinations /filesystems /house-rules /find?q=drive /tables /glossary /keys'.split(
    ' '
  );
const BUILD_PAGES = 'pair buy pads pads/cut pads/heat assemble format measure log'.split(' ');

test('every page asks for at most thirty files, moves nothing, and is small', async ({ browser }) => {
  test.setTimeout(240_000);
  const { tag } = (await db('builds').where({ crate_id: crateId }).orderBy('tag').first('tag')) as { tag: string };
  const addresses = [
    ...CRATE_PAGES.map((path) => home + path),
    ...BUILD_PAGES.map((path) => `${program.address}/b/${tag}/${path}`)
  ];
  const found: string[] = [];
  const look = async (address: string) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    let requests = 0;
    page.on('request', () => (requests += 1));
    await page.addInitScript(() => {
      const moved = { sum: 0 };
      Object.assign(window, { moved });
      new PerformanceObserver((list) => {
        for (const entry of list.getEntries()) {
          const { value = 0, hadRecentInput = false }: PerformanceEntry & { value?: number; hadRecentInput?: boolean } =
            entry;
          if (!hadRecentInput) moved.sum += value;
        }
      }).observe({ type: 'layout-shift', buffered: true });
    });
    await open(page, address);
    await page.waitForTimeout(300);
    const { moved }: { moved?: { sum: number } } = await page.evaluate(() => ({
      moved: (window as Window & { moved?: { sum: number } }).moved
    }));
    const document = Buffer.from(await (await fetch(address)).arrayBuffer());
    const [kB, gzipKB] = [document.length / 1000, gzipSync(document).length / 1000];
    if (requests > 30 || (moved?.sum ?? 1) > 0.02 || gzipKB > 150 || kB > 600)
      found.push(
        `${address}: ${requests} requests, moved ${moved?.sum.toFixed(3)}, ${kB.toFixed(0)} kB, ${gzipKB.toFixed(0)} gzip`
      );
    await context.close();
  };
  // Three at once: each of them waits most of the time.
  await Promise.all(
    [0, 1, 2].map(async (first) => {
      for (let i = first; i < addresses.length; i += 3) await look(addresses[i]!);
    })
  );
  expect(found).toEqual([]);
});
