import { crateId, expect, open, test } from './test';

const OPTIONS = { headers: { 'content-type': 'application/json' } };

test.describe('what is typed is kept', () => {
  test('a folded section stays open while one types into it, letter by letter; nothing reaches the keys of the page', async ({
    page
  }) => {
    await open(page, '/c/fernhollow/crate/enclosure/new');
    for (const [section, field, text] of [
      ['Bay', 'Board to lid', '1.2'],
      ['Bridge', 'Bridge chip or board', 'Tern 12 gt n ?'],
      ['Case', 'Weight', '110.5']
    ] as const) {
      await page.locator('summary', { hasText: section }).first().click();
      const input = page.getByLabel(field, { exact: false }).first();
      await input.click();
      await page.keyboard.type(text, { delay: 15 });
      await expect(input).toHaveValue(text);
      await expect(input).toBeFocused();
    }
    await expect(page).toHaveURL(/enclosure\/new$/);
    await expect(page.getByRole('dialog')).toBeHidden();
    // and all of it is there again after a reload, with its sections to be opened
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await expect(page.getByText('This is what you typed earlier')).toBeVisible();
    await page.locator('summary', { hasText: 'Bay' }).first().click();
    await expect(page.getByLabel('Board to lid', { exact: false }).first()).toHaveValue('1.2');
    await page.getByRole('button', { name: 'Start over' }).click();
  });

  test('letters that follow a field which a page took away do not act on the page', async ({ page }) => {
    await open(page, '/c/fernhollow/crate/drive');
    const search = page.getByRole('searchbox').first();
    await search.click();
    await page.keyboard.type('che');
    // as a page does that draws itself anew
    await search.evaluate((field) => field.remove());
    await page.keyboard.type('n g b');
    await expect(page).toHaveURL(/crate\/drive/);
    // left on purpose, keys are keys again
    await page.locator('h1').first().click();
    await page.keyboard.type('gb');
    await expect(page).toHaveURL(/\/builds/);
  });

  test('ticks filled in by a paste, a preset or a draft are ticked once', async ({ page }) => {
    await open(page, '/c/fernhollow/crate/paste');
    await page
      .getByRole('textbox')
      .first()
      .fill('Brindle M2 case, enclosure for M.2 NVMe SSD 2230/2242/2260/2280, USB 3.2 Gen 2 10 Gb/s, aluminium, USB-C');
    await page.getByRole('button', { name: /^Go on/ }).click();
    await page.locator('html[data-ready="yes"]').waitFor();
    await page.waitForURL(/new/);
    for (const reload of [false, true]) {
      if (reload) {
        await page.reload();
        await page.locator('html[data-ready="yes"]').waitFor();
      }
      const draft = await page.evaluate(() =>
        Object.entries(localStorage)
          .filter(([key]) => key.startsWith('draft:'))
          .map(([, value]) => JSON.parse(value) as Record<string, unknown>)
      );
      for (const values of draft)
        for (const [path, value] of Object.entries(values))
          if (Array.isArray(value)) expect(new Set(value).size, path).toBe(value.length);
      expect(draft.some((values) => Array.isArray(values.m2LengthsMm) && values.m2LengthsMm.length === 4)).toBe(true);
    }
    await open(page, '/c/fernhollow/crate/host/new');
    await page.getByRole('button', { name: 'Add a port' }).click();
    await page.getByLabel('What is printed beside it').selectOption({ index: 2 });
    const ticked = await page.getByRole('checkbox', { checked: true }).count();
    expect(ticked).toBeGreaterThan(0);
    const modes = await page.evaluate(() => {
      const kept = Object.entries(localStorage).find(([key]) => key.includes(':host:new'))![1];
      return (JSON.parse(kept) as Record<string, string[]>)['ports.0.modes']!;
    });
    expect(new Set(modes).size).toBe(modes.length);
    expect(modes).toHaveLength(ticked);
  });

  test('drafts of a job, a price and temperatures, and the choice in Pair, survive a reload', async ({ page }) => {
    await open(page, '/c/fernhollow/jobs');
    await page.getByRole('button', { name: 'Add a job' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Half typed');
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Half typed');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await expect(page.getByLabel('Name', { exact: true })).toBeHidden();

    const id = await crateId(page, 'fernhollow');
    const models = (await (await page.request.get(`/api/crates/${id}/models?kind=drive`)).json()) as { id: string }[];
    const quotes = `/c/fernhollow/crate/drive/${models[0]!.id}?tab=quotes`;
    await open(page, quotes);
    await page.getByLabel('Vendor', { exact: true }).fill('Half a vendor');
    await open(page, '/c/fernhollow');
    await open(page, quotes);
    await expect(page.getByLabel('Vendor', { exact: true })).toHaveValue('Half a vendor');
    await page.getByRole('button', { name: 'Start over' }).click();

    await open(page, '/b/AC-0001/pads/log');
    const readings = page.getByLabel('Minutes since it began', { exact: false }).first();
    await readings.fill('5 33.5\n10 37');
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await expect(page.getByLabel('Minutes since it began', { exact: false }).first()).toHaveValue('5 33.5\n10 37');

    await open(page, '/b/AC-0001/pair');
    const query = await page.evaluate(async (crate) => {
      const builds = (await (await fetch(`/api/crates/${crate}/builds`)).json()) as {
        choice: Record<string, string>;
      }[];
      const { hostId, portId, driveId, enclosureId } = builds[0]!.choice;
      return `host=${hostId}&port=${portId}&drive=${driveId}&enclosure=${enclosureId}`;
    }, id);
    await open(page, `/c/fernhollow/pair?${query}`);
    // changed here, so it is a choice of one's own
    await page.keyboard.press('j');
    await page.keyboard.press('l');
    await expect(page).not.toHaveURL(new RegExp(`${query}$`));
    const chosen = new URL(page.url()).search;
    await open(page, '/c/fernhollow');
    await open(page, '/c/fernhollow/pair');
    await expect(page).toHaveURL(new RegExp(chosen.replace(/[?+.]/g, '\\$&')));
    await page.getByRole('button', { name: 'Start over' }).click();
    await open(page, '/c/fernhollow/pair');
    await expect(page).toHaveURL(/\/pair$/);
  });

  test('a stopwatch that runs survives a reload and another page; stopped, it is kept as a result', async ({
    page
  }) => {
    await open(page, '/b/AC-0015/measure');
    await page.getByLabel('What is copied, GB').fill('1');
    await page.getByRole('button', { name: 'Start the stopwatch' }).click();
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await open(page, '/c/fernhollow/items');
    await open(page, '/b/AC-0015/measure');
    await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
    // about a second and a half by now: 1 GB in that time is less than the 1212 MB/s that can pass
    await expect
      .poll(async () => Number((await page.getByRole('timer').textContent())!.match(/:(\d+\.\d)/)![1]))
      .toBeGreaterThan(1.2);
    await page.getByRole('button', { name: 'Stop', exact: true }).click();
    // so short a copy is asked about
    await page.getByRole('button', { name: 'Keep it as it is' }).click();
    await page.getByRole('button', { name: 'Keep as a write result' }).click();
    await expect(page.getByText('The result is kept.')).toBeVisible();
    await expect(page.getByRole('list', { name: 'Other results' })).toContainText('to the drive');
    await page.locator('.notice', { hasText: 'The result is kept' }).getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Undone.')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Start the stopwatch' })).toBeVisible();
  });

  test('a file that was mended is read again under its name, and the columns stay assigned', async ({ page }) => {
    await open(page, '/c/fernhollow/tables');
    const file = page.getByLabel('Choose a file');
    const csv = (rows: string) => ({
      name: 'parts.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`Name,Media,Form factor,Capacity,Quick\n${rows}`)
    });
    await file.setInputFiles(csv('Mended A,nvme,m2,1,3000\nMended B,nvme,what,1,3000\n'));
    await expect(page.getByText('1 wrong', { exact: false }).first()).toBeVisible();
    const last = page.getByLabel('Quick', { exact: true });
    await last.selectOption('readMBps');
    await expect(page.getByText('1 wrong', { exact: false }).first()).toBeVisible();
    await file.setInputFiles(csv('Mended A,nvme,m2,1,3000\nMended B,nvme,m2,1,3000\n'));
    await expect(
      page
        .getByText('0 wrong', { exact: false })
        .or(page.getByText('2 new', { exact: false }))
        .first()
    ).toBeVisible();
    await expect(page.getByLabel('Quick', { exact: true })).toHaveValue('readMBps');
  });

  test('a refused field turns calm as soon as it is right', async ({ page }) => {
    await open(page, '/c/fernhollow/crate/drive/new');
    await page.getByRole('button', { name: 'Add the drive' }).click();
    const name = page.getByLabel('Name', { exact: true });
    await expect(page.getByText(/fields need a look/)).toBeVisible();
    await expect(name).toHaveAttribute('aria-invalid', 'true');
    await name.fill('Calm');
    await expect(name).not.toHaveAttribute('aria-invalid', 'true');
  });
});

test.describe('in the morning, east of here', () => {
  test.use({ timezoneId: 'Pacific/Kiritimati' });
  test('today is today: the day of a result begins as the reader’s own and is taken', async ({ page }) => {
    await open(page, '/b/AC-0013/measure');
    // fourteen hours ahead of UTC: from 10:00 UTC on it is tomorrow there
    const here = await page.evaluate(() => {
      const [weekday, month, date, year] = new Date().toDateString().split(' ');
      return weekday && `${Number(date)} ${month} ${year}`;
    });
    await expect(page.getByRole('textbox', { name: 'Day' })).toHaveValue(here!);
    const id = await crateId(page, 'fernhollow');
    const builds = (await (await page.request.get(`/api/crates/${id}/builds`)).json()) as { id: string; tag: string }[];
    const build = builds.find(({ tag }) => tag === 'AC-0013')!;
    const ahead = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
    const send = (date: string) =>
      page.request.post(`/api/crates/${id}/builds/${build.id}/runs`, {
        ...OPTIONS,
        data: { protocol: 'pair-check', date, results: { writeMBps: 950 }, conditions: {} }
      });
    const taken = await send(ahead(1));
    expect(taken.status()).toBe(201);
    expect((await send(ahead(3))).status()).toBe(400);
    const { group } = (await taken.json()) as { group: string };
    expect((await page.request.post(`/api/crates/${id}/undo`, { ...OPTIONS, data: { group } })).status()).toBe(200);
  });
});

test('what cannot be taken back says why, and leads to what is in the way', async ({ page }) => {
  const made = (await (
    await page.request.post('/api/crates', { ...OPTIONS, data: { name: 'In the way' } })
  ).json()) as { id: string; slug: string; version: number };
  await open(page, `/c/${made.slug}/crate/drive/new`);
  await page.getByLabel('Name', { exact: true }).fill('Felt 1');
  await page.getByLabel('Media').selectOption({ index: 1 });
  await page.getByLabel('Form factor').selectOption({ index: 1 });
  await page.getByLabel('Capacity, TB').fill('1');
  await page.getByRole('button', { name: /^Add it, then/ }).click();
  const undo = page.getByRole('button', { name: 'Undo' });
  await expect(undo).toBeVisible();
  const [model] = (await (await page.request.get(`/api/crates/${made.id}/models`)).json()) as { id: string }[];
  const unit = { modelId: model!.id, tag: 'D-901', state: 'owned' };
  expect((await page.request.post(`/api/crates/${made.id}/units`, { ...OPTIONS, data: unit })).status()).toBe(201);
  await undo.click();
  await expect(page.getByText('The part Felt 1 cannot be undone: 1 item (D-901)', { exact: false })).toBeVisible();
  await page.getByRole('link', { name: 'Show D-901' }).click();
  await expect(page).toHaveURL(/\/u\/D-901$/);

  // the crate goes, and comes back
  await open(page, '/crates');
  await page.getByRole('button', { name: 'Delete In the way' }).click();
  await page.getByRole('button', { name: 'Delete it', exact: true }).click();
  await expect(page.getByText('Deleted In the way.')).toBeVisible();
  expect((await page.request.get(`/c/${made.slug}`)).status()).toBe(404);
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('link', { name: 'In the way' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete In the way' }).click();
  await page.getByRole('button', { name: 'Delete it', exact: true }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('link', { name: 'Download a backup' })).toBeVisible();
  await page.getByRole('button', { name: 'Delete it for good' }).click();
  await expect(page.getByText('is gone for good')).toBeVisible();
});
