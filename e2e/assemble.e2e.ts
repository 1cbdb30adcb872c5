import type { BrowserContext, Page } from '@playwright/test';
import sharp from 'sharp';
import { crateId, expect, open, test } from './test';

type Sheet = {
  stored: { id: string; unitIds: string[] };
  sheet: { stages: { id: string; checkId: string; steps: { id: string; code: string; text: string }[] }[] };
  entries: { key: string; stepId: string; done: boolean | null; note: string | null; by: string }[];
  photos: { id: string; type: string; name: string }[];
};

/** A crate of its own for a test, with a few parts of the demo, a build that was bought, and a sheet that was begun. */
async function begun(page: Page, name: string, parts = { enclosure: 'Trivet 40', drive: 'Chert T4 2TB' }) {
  const demo = await crateId(page, 'fernhollow');
  const models = (await (await page.request.get(`/api/crates/${demo}/models`)).json()) as {
    spec: { id?: string; name: string };
  }[];
  const made = async <T>(path: string, data: object) =>
    (await (await page.request.post(path, { data })).json()) as T & { id: string };
  const { id: crate, slug } = await made<{ slug: string }>('/api/crates', { name });
  const modelId = async (wanted: string) => {
    const { id: _id, ...spec } = models.find((model) => model.spec.name === wanted)!.spec;
    return (await made(`/api/crates/${crate}/models`, { spec })).id;
  };
  const choice = {
    hostId: await modelId('Kiln'),
    portId: 'u4',
    cableId: await modelId('Withy 0.8 40G'),
    enclosureId: await modelId(parts.enclosure),
    driveId: await modelId(parts.drive)
  };
  const data = { name, stage: 'bought', choice };
  const build = await made<{ tag: string; version: number }>(`/api/crates/${crate}/builds`, data);
  const { id: sheetId } = await made(`/api/crates/${crate}/builds/${build.id}/sheets`, { kind: 'assemble' });
  const read = async () => (await (await page.request.get(`/api/crates/${crate}/sheets/${sheetId}`)).json()) as Sheet;
  return { crate, slug, ...build, sheetId, read, choice, modelId };
}
const boxes = (page: Page, stage: string) => page.locator(`#stage-${stage} li input[type=checkbox]`);
/** What the sheet of the server holds, once it holds it. */
const settled = (read: () => Promise<Sheet>, done: number) =>
  expect.poll(async () => (await read()).entries.filter((entry) => entry.done).length, { timeout: 20_000 }).toBe(done);

test('by keyboard: a stage is ticked, checked, undone and found again, and Today names the next', async ({ page }) => {
  const { tag, slug, read } = await begun(page, 'By keyboard');
  await open(page, `/b/${tag}/assemble`);
  await expect(page.getByText('Stage 1 of 7: Lay out.')).toBeVisible();
  const ticks = boxes(page, 'lay-out');
  await expect(ticks).toHaveCount(4);
  await ticks.first().focus();
  for (let n = 0; n < 4; n++) {
    await ticks.nth(n).focus();
    await page.keyboard.press('Space');
    await expect(ticks.nth(n)).toBeChecked();
  }
  await page.getByRole('checkbox', { name: /^Everything is on the table/ }).press('Space');
  await expect(page.getByText('Stage 2 of 7: Open the enclosure.')).toBeVisible();
  await settled(read, 5);
  // the last entry is taken back, and stands again after the page is loaded anew
  await page.getByRole('button', { name: 'Undo the last entry' }).press('Enter');
  await expect(page.getByText('Stage 1 of 7: Lay out.')).toBeVisible();
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.getByRole('checkbox', { name: /^Everything is on the table/ })).not.toBeChecked();
  await page.getByRole('checkbox', { name: /^Everything is on the table/ }).check();
  await settled(read, 5);
  await open(page, `/c/${slug}`);
  const row = page.getByRole('listitem').filter({ hasText: tag });
  await expect(row).toContainText('Stage 2 of 7: open the enclosure.');
  await row.getByRole('link', { name: 'By keyboard' }).press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Assemble' })).toBeVisible();
  await open(page, `/b/${tag}/log`);
  await expect(page.getByText(/entries on the run sheet/)).toBeVisible();
});

test('two browsers: another goes on where the first stood, and what they contradict is shown to both', async ({
  page,
  browser
}) => {
  const { tag, crate, sheetId, read } = await begun(page, 'Two hands');
  await open(page, `/b/${tag}/assemble`);
  const other = await browser.newContext({ baseURL: new URL(page.url()).origin });
  const second = await other.newPage();
  await boxes(page, 'lay-out').first().check();
  await settled(read, 1);
  await open(second, `/b/${tag}/assemble`);
  await expect(boxes(second, 'lay-out').first()).toBeChecked();
  // the second ticks the next one; the first sees it when it looks
  await boxes(second, 'lay-out').nth(1).check();
  await settled(read, 2);
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(boxes(page, 'lay-out').nth(1)).toBeChecked();
  // a third hand unticks without having seen: both stand, and one of them decides
  const [stepId] = [(await read()).entries[0]!.stepId];
  const blind = { key: '01JDQ0000000000000000TW0AB', stepId, done: false, seen: null, at: new Date().toISOString() };
  const answer = await page.request.post(`/api/crates/${crate}/sheets/${sheetId}/checks`, {
    data: { checks: [blind] }
  });
  expect(((await answer.json()) as { conflicts: unknown[] }).conflicts).toHaveLength(1);
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(page.getByText('without having seen that')).toBeVisible();
  await page.getByRole('button', { name: 'It is done', exact: true }).click();
  await expect(page.getByText('without having seen that')).toBeHidden();
  await expect(boxes(page, 'lay-out').first()).toBeChecked();
  await other.close();
});

test('without a connection the page goes on: five ticks, a note and an answer wait, and are sent in order', async ({
  page,
  context
}) => {
  const { tag, read } = await begun(page, 'Away', { enclosure: 'Flue 80', drive: 'Skarn T5 2TB' });
  await open(page, `/b/${tag}/assemble`);
  await context.setOffline(true);
  const ticks = boxes(page, 'lay-out');
  for (let n = 0; n < 4; n++) await ticks.nth(n).check();
  await page.getByRole('checkbox', { name: /^Everything is on the table/ }).check();
  await expect(page.getByText('5 entries wait here')).toBeVisible();
  await expect(page.getByText('Do not reload this page until then')).toBeVisible();
  // The answer changes the steps here, before anybody has heard of it.
  await page
    .getByRole('group', { name: /How is Flue 80 opened/ })
    .getByRole('button', { name: 'sliding it apart' })
    .click();
  await expect(page.locator('#stage-open')).toContainText('Slide the case apart, straight and slowly.');
  await expect(page.getByText('6 entries wait here')).toBeVisible();
  expect((await read()).entries).toEqual([]);
  await context.setOffline(false);
  await settled(read, 5);
  await expect(page.getByText('No connection.')).toBeHidden();
  const { entries } = await read();
  expect(entries).toHaveLength(6);
  // in the order in which they were done
  expect(entries.map(({ key }) => key)).toEqual([...entries.map(({ key }) => key)].sort());
  expect(await page.evaluate(() => localStorage.getItem('sheet-queue'))).toBeNull();
  // and the part says it now: nobody is asked again
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.locator('#stage-open')).toContainText('Slide the case apart, straight and slowly.');
  await expect(page.getByText('How is Flue 80 opened')).toBeHidden();
});

test('what waited when its build was deleted is kept, told of, and can be saved as a file', async ({
  page,
  context
}) => {
  const { tag, crate, id, version } = await begun(page, 'Deleted meanwhile');
  await open(page, `/b/${tag}/assemble`);
  await context.setOffline(true);
  await boxes(page, 'lay-out').first().check();
  await boxes(page, 'lay-out').nth(1).check();
  await expect(page.getByText('2 entries wait here')).toBeVisible();
  const gone = await page.request.delete(`/api/crates/${crate}/builds/${id}`, { data: { version } });
  expect(gone.status()).toBe(200);
  await context.setOffline(false);
  await page.evaluate(() => window.dispatchEvent(new Event('online')));
  const told = page.getByText(/2 entries of the run sheet of AC-\d+ could not be sent/).last();
  await expect(told).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).last().click()
  ]);
  expect(file.suggestedFilename()).toMatch(/not sent\.json$/);
});

test('photographs: turned upright, small, nothing but the picture; what is none is refused with the way out', async ({
  page
}) => {
  test.setTimeout(120_000);
  const { tag, crate, read } = await begun(page, 'Photographs');
  await open(page, `/b/${tag}/assemble`);
  const input = page.getByLabel(/^Photograph for: Photograph the label/);
  // 3000 x 1500 pixels that the camera held sideways (orientation 6): upright it is 1500 x 3000, of which 1000 x 2000 are kept.
  const sideways = await sharp({ create: { width: 3000, height: 1500, channels: 3, background: '#573' } })
    .withExif({ IFD0: { Make: 'nobody' }, IFD3: { GPSLatitude: '51/1 30/1 0/1' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();
  await input.setInputFiles({ name: 'label.jpg', mimeType: 'image/jpeg', buffer: sideways });
  await expect.poll(async () => (await read()).photos.length).toBe(1);
  const [photo] = (await read()).photos;
  const kept = await (await page.request.get(`/api/crates/${crate}/attachments/${photo!.id}`)).body();
  const { width, height, exif, format } = await sharp(kept).metadata();
  expect({ width, height, exif, format }).toEqual({ width: 1000, height: 2000, exif: undefined, format: 'jpeg' });
  await expect(page.getByRole('img', { name: /^Photograph label/ })).toBeVisible();

  // About 60 MB, as a large camera makes them: noise does not compress.
  const large = await sharp({
    create: {
      width: 5600,
      height: 3800,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 128, sigma: 60 }
    }
  })
    .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
    .toBuffer();
  expect(large.length).toBeGreaterThan(45e6);
  const { writeFileSync, mkdtempSync } = await import('node:fs');
  const path = `${mkdtempSync('/tmp/photo-')}/large.jpg`;
  writeFileSync(path, large);
  await input.setInputFiles(path);
  await expect.poll(async () => (await read()).photos.length, { timeout: 60_000 }).toBe(2);
  const second = (await read()).photos[1]!;
  const reduced = await (await page.request.get(`/api/crates/${crate}/attachments/${second.id}`)).body();
  expect(reduced.length).toBeLessThanOrEqual(1e6);
  expect(Math.max((await sharp(reduced).metadata()).width, 0)).toBeLessThanOrEqual(2000);

  for (const [name, mimeType, buffer, said] of [
    ['letter.jpg', 'image/jpeg', Buffer.from('this is a letter'), 'no picture that this browser can read'],
    [
      'bad.svg',
      'image/svg+xml',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
      'is a drawing'
    ],
    ['IMG.HEIC', 'image/heic', Buffer.from('\0\0\0\x18ftypheic\0\0\0\0mif1heic', 'latin1'), 'share it as JPEG']
  ] as const) {
    await input.setInputFiles({ name, mimeType, buffer });
    await expect(page.getByText(said, { exact: false })).toBeVisible();
  }
  expect((await read()).photos).toHaveLength(2);
  await page.getByRole('button', { name: /^Delete the photograph label/ }).click();
  await expect.poll(async () => (await read()).photos.length).toBe(1);
});

test('three alike by touch on a phone: tick by tick, left and taken up again', async ({ browser, baseURL }) => {
  const context: BrowserContext = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    ...(baseURL ? { baseURL } : {})
  });
  const page = await context.newPage();
  await open(page, '/b/AC-0016/assemble');
  await page.getByRole('button', { name: 'One step at a time' }).tap();
  await expect(page.locator('.one')).toContainText('Slide the case apart');
  const open13 = page.getByRole('checkbox', { name: /D-013$/ });
  await expect(open13).not.toBeChecked();
  await open13.tap();
  // the step is done for all three: the next one comes, on which the third is open too
  await expect(page.locator('.one')).toContainText('Find the mark that shows which way round it closes.');
  await page.getByRole('button', { name: '← Back' }).tap();
  await expect(page.locator('.one')).toContainText('Slide the case apart');
  await expect(open13).toBeChecked();
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await page.getByRole('button', { name: 'First open step' }).tap();
  await expect(page.locator('.one')).toContainText('Find the mark that shows which way round it closes.');
  await context.close();
});

test('when the parts change the sheet says what is new, and what was done stays in the log', async ({ page }) => {
  const { tag, crate, id, version, choice, modelId, read } = await begun(page, 'Parts change');
  await open(page, `/b/${tag}/assemble`);
  await boxes(page, 'lay-out').nth(1).check();
  await settled(read, 1);
  const data = {
    version,
    name: 'Parts change',
    stage: 'bought',
    choice: { ...choice, driveId: await modelId('Skarn T5 2TB') }
  };
  expect((await page.request.put(`/api/crates/${crate}/builds/${id}`, { data })).status()).toBe(200);
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.getByText('The parts of this build were changed since the sheet was begun.')).toBeVisible();
  await expect(
    page.getByText('one of them was done', { exact: false }).or(page.getByText('1 of them was done', { exact: false }))
  ).toBeVisible();
  await page.getByRole('button', { name: 'I have looked through it' }).click();
  await expect(page.getByText('The parts of this build were changed since')).toBeHidden();
  await open(page, `/b/${tag}/log`);
  await expect(page.getByText('ticked “Photograph the label', { exact: false })).toBeVisible();
});

test('where the spare screws went is asked and kept', async ({ page }) => {
  const { tag, read } = await begun(page, 'Spares');
  await open(page, `/b/${tag}/assemble`);
  await page.locator('#stage-close > summary').click();
  await page.getByLabel('Where did the spare screws go?').fill('tin on the shelf');
  await page.getByLabel('Where did the spare screws go?').press('Enter');
  await expect.poll(async () => (await read()).entries.map(({ note }) => note)).toContain('tin on the shelf');
  await open(page, `/b/${tag}/assemble`);
  await page.locator('#stage-close > summary').click();
  await expect(page.locator('#stage-close')).toContainText('tin on the shelf');
});

test('it does not work: by keyboard to a cause, back to the step, and into the log', async ({ page }) => {
  const { tag } = await begun(page, 'Does not show up');
  await open(page, `/b/${tag}/assemble`);
  await page.getByRole('link', { name: 'It does not work' }).press('Enter');
  await page.getByRole('button', { name: 'It does not show up' }).press('Enter');
  await expect(page.getByRole('heading', { name: /lsblk/ })).toBeVisible();
  await page.getByRole('button', { name: 'Yes, of about the right size' }).press('Enter');
  await page.getByRole('button', { name: 'No, it is new or was erased' }).press('Enter');
  await expect(page.getByRole('heading', { name: /well and empty/ })).toBeVisible();
  // the address holds the path: a colleague sees the same
  await expect(page).toHaveURL(/symptom=not-detected&a=disk-list%3Aright\.seen-before%3Anever/);
  await page.getByRole('button', { name: 'Keep this in the log' }).press('Enter');
  await expect(page.getByText('Kept in the log.')).toBeVisible();
  await page.getByRole('link', { name: 'Back to that step of the sheet' }).press('Enter');
  await expect(page.locator('.one')).toContainText('look for a disk of about 2');
  await open(page, `/b/${tag}/log`);
  await expect(page.getByText('does not show up: The drive is well and empty', { exact: false })).toBeVisible();
  await open(page, `/b/${tag}/assemble/trouble?symptom=not-detected&a=nonsense:x.disk-list:right`);
  await expect(page.getByRole('heading', { name: /lsblk/ })).toBeVisible();
});

test('on paper the sheet has two pages at most, with boxes and a code; the leads are a card', async ({ page }) => {
  for (const tag of ['AC-0005', 'AC-0016']) {
    await open(page, `/b/${tag}/assemble`);
    const pdf = (await page.pdf({ format: 'A4' })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page[^s]/g)!.length).toBeLessThanOrEqual(2);
  }
  await page.emulateMedia({ media: 'print' });
  await expect(page.locator('.paper figure svg').first()).toBeVisible();
  expect(await page.locator('.paper .box').count()).toBeGreaterThan(40);
  await page.emulateMedia({ media: 'screen' });
  await open(page, '/b/AC-0004/assemble/leads');
  await expect(page.getByRole('heading', { name: 'Unplug', exact: true })).toBeVisible();
  await expect(page.getByText('switch its supply off', { exact: false })).toBeVisible();
});

test('the screen stays on where the browser allows it, and the page says where it does not', async ({ page }) => {
  await open(page, '/b/AC-0005/assemble');
  await expect(page.getByText('The screen stays on.')).toBeVisible();
  await page.addInitScript(() => Object.defineProperty(navigator, 'wakeLock', { value: undefined }));
  await open(page, '/b/AC-0005/assemble?view=step');
  await expect(page.getByText('The screen may go dark', { exact: false })).toBeVisible();
});
