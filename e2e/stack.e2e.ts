import { readFile } from 'node:fs/promises';
import { crateId, expect, open, test } from './test';

/** CSS puts 96 px into an inch, on paper too. */
const PX_PER_MM = 96 / 25.4;

test('pads until all is good: a pad that does not touch, the best proposal, kept and taken back', async ({ page }) => {
  await open(page, '/b/AC-0014/pads');
  await expect(page.getByText('A 0.5 mm pad does not touch the controller')).toBeVisible();
  await expect(page.getByRole('button', { name: /^controller, upper side.*no-contact/ })).toBeVisible();
  // the imprint check of October says the same, and leads to what is next
  await page.getByRole('button', { name: 'Show the next proposal' }).click();
  await expect(page.getByRole('heading', { name: 'Pads, tried and not kept yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Back to what is kept' }).click();
  await page.getByRole('button', { name: /1 mm over controller and NAND \(best\)/ }).click();
  await expect(page.getByText('Every chip has contact, and the board stays flat.')).toBeVisible();
  await page.getByRole('button', { name: 'Use these pads' }).click();
  await expect(page.getByText('AC-0014: pads kept.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Pads, as kept' })).toBeVisible();
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.getByText('Every chip has contact, and the board stays flat.')).toBeVisible();
  // one by one they can be chosen too, down to none
  await page.getByLabel('Pad over controller 1').selectOption('');
  await expect(page.getByText('No pad lies over the controller')).toBeVisible();
  await page.getByRole('button', { name: 'Back to what is kept' }).click();
  // Pair shows the same pads, and its plan is made with them
  await open(page, '/b/AC-0014/pair');
  await expect(page.getByRole('option', { name: /Pad, controller.*1\.0/ })).toBeVisible();
});

test('the cutting template is true to size on paper and in its file', async ({ page }) => {
  await open(page, '/b/AC-0002/pads/cut');
  await page.emulateMedia({ media: 'print' });
  // as it lies on paper: what a millimetre of the drawing is there, and how many the bar and the pieces have
  const measured = (selector: string) =>
    page.locator(selector).evaluateAll((shapes) =>
      shapes.map((shape) => {
        const box = (shape as SVGGraphicsElement).getBBox();
        const scale = (shape as SVGGraphicsElement).getScreenCTM()!.a;
        return [box.width * scale, box.height * scale];
      })
    );
  const [[bar]] = (await measured('#check-bar')) as [[number]];
  expect(bar / PX_PER_MM).toBeCloseTo(50, 1);
  // the controller’s piece of 13 x 12 mm
  const [piece] = (await measured('svg .piece')) as [[number, number]];
  const sides = piece.map((px) => px / PX_PER_MM).sort((x, y) => x - y);
  expect(sides[0]).toBeCloseTo(12, 1);
  expect(sides[1]).toBeCloseTo(13, 1);
  await page.emulateMedia({ media: 'screen' });
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as SVG' }).click()
  ]);
  const svg = await readFile((await download.path())!, 'utf8');
  const [, mm, box] = /width="(\d+)mm"[^>]*viewBox="[-\d.]+ [-\d.]+ (\d+)/.exec(svg)!;
  expect(mm).toBe(box);
  expect(svg).toMatch(/h50M/);
});

test('two set-ups over each other, in a worker; a link shows the same; samples as CSV', async ({ page }) => {
  await open(page, '/b/AC-0001/pads/heat');
  await expect(page.getByText(/^Trivet 40: done after/)).toBeVisible();
  await expect(page.getByText(/^without pads: .*throttled/)).toBeVisible();
  await expect(page.locator('.plot').first().locator('.scatterlayer .trace')).toHaveCount(2);
  // the chart has the number, the table beside it the words
  const throttles = page.getByRole('row', { name: /throttles to half.*without pads/ });
  const number = await throttles.getByRole('cell').first().textContent();
  await expect(
    page
      .locator('.plot')
      .first()
      .locator('.annotation', { hasText: number ?? '?' })
      .first()
  ).toBeVisible();
  await page.getByLabel('Beside it').selectOption('with a fan');
  await expect(page.getByText(/^with a fan: done after/)).toBeVisible();
  await page.getByLabel('Minutes').fill('20');
  await page.getByLabel('Minutes').press('Tab');
  await expect(page).toHaveURL(/minutes=20.*beside=fan|beside=fan.*minutes=20/);
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.getByText(/^with a fan: done after/)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Samples as CSV' }).click()
  ]);
  const lines = (await readFile((await download.path())!, 'utf8')).trim().split('\r\n');
  // 20 minutes at a sample a second, begun at 0, twice
  expect(lines).toHaveLength(1 + 2 * 1201);
  await page.getByLabel('Room, °C').fill('900');
  await page.getByLabel('Room, °C').press('Tab');
  await expect(page.getByText('-20 to 60')).toBeVisible();
});

test('with the keyboard alone: to the station, along the chips, and a place that cannot be is refused', async ({
  page
}) => {
  await open(page, '/b/AC-0015/pair');
  await page.keyboard.press('g');
  await page.keyboard.press('s');
  await expect(page.getByRole('heading', { name: 'Pads and heat', exact: true })).toBeVisible();
  const controller = page.getByRole('button', { name: /^controller, upper side/ });
  await controller.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(controller).toHaveAccessibleName(/18\.5 mm from the gold edge, 5\.1 mm from the left edge/);
  const x = page.getByLabel('From the gold edge, mm');
  await expect(x).toHaveValue('18.5');
  await x.focus();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('75');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('alert')).toContainText('reaches to 88 mm; the board is 80 mm long');
  await expect(page.getByRole('button', { name: 'Keep these chips' })).toBeDisabled();
  await page.getByRole('button', { name: 'Discard' }).focus();
  await page.keyboard.press('Enter');
  await expect(controller).toHaveAccessibleName(/18 mm from the gold edge/);
  // The API refuses it too, at the place.
  const id = await crateId(page, 'fernhollow');
  const models = (await (await page.request.get(`/api/crates/${id}/models?kind=drive`)).json()) as {
    id: string;
    version: number;
    spec: { name: string; components?: { xMm: number }[] };
  }[];
  const drive = models.find((model) => model.spec.name === 'Chert T4 2TB')!;
  const { id: _, ...spec } = drive.spec as typeof drive.spec & { id?: string };
  const answer = await page.request.put(`/api/crates/${id}/models/${drive.id}`, {
    data: { version: drive.version, spec: { ...spec, components: [{ ...spec.components![0], xMm: 75 }] } }
  });
  expect(answer.status()).toBe(400);
  expect((await answer.json()).error.fields[0].path).toBe('spec.components.0.xMm');
});

test('temperatures are pasted, held against the forecast, and two of them fit the enclosure', async ({ page }) => {
  await open(page, '/b/AC-0015/pads/log');
  for (const [rate, last] of [
    [1000, 71],
    [500, 58]
  ]) {
    await page.getByLabel('Rate, MB/s').fill(String(rate));
    await page.getByLabel(/^Minutes since it began/).fill(`20 ${last! - 4}\n60 ${last! - 0.2}\n63 ${last}\nnonsense`);
    await expect(page.getByText(/No time and temperature in: “nonsense”/)).toBeVisible();
    await expect(page.getByText(/steady \(0\.07 K\/min\)/)).toBeVisible();
    await page.getByRole('button', { name: 'Keep these temperatures' }).click();
    await expect(page.getByRole('row', { name: new RegExp(`${rate}.MB/s`) })).toContainText(`${last}.0`);
  }
  await expect(page.getByText('2 settled readings: the case warms')).toBeVisible();
  await page.getByRole('button', { name: 'Use it for this enclosure from now on' }).click();
  await expect(page.getByText(/In use since it was taken over/)).toBeVisible();
  await open(page, '/b/AC-0015/pair');
  await page.getByRole('option', { name: /^Case, long write/ }).click();
  await expect(page.getByText(/fitted to 2 readings of this enclosure/)).toBeVisible();
});

test('the API plays a build, says that it is simulated, and names what is wrong', async ({ page }) => {
  await open(page, '/c/fernhollow');
  const id = await crateId(page, 'fernhollow');
  const builds = (await (await page.request.get(`/api/crates/${id}/builds`)).json()) as {
    tag: string;
    snapshot: Record<string, unknown>;
  }[];
  const { knownPairs: _, exchange: __, ...snapshot } = builds.find((b) => b.tag === 'AC-0002')!.snapshot;
  const play = (change: object) =>
    page.request.post('/api/simulate', { data: { ...snapshot, seconds: 600, ...change } });
  const answer = await play({ writeGB: 600 });
  expect(answer.status()).toBe(200);
  const { simulated, samples, events } = await answer.json();
  expect(simulated).toBe(true);
  expect(samples.t).toHaveLength(601);
  expect(events.map((e: { kind: string }) => e.kind)).toContain('cliff');
  const wrong = await play({ seconds: -1 });
  expect(wrong.status()).toBe(400);
  expect((await wrong.json()).error.fields[0].path).toBe('seconds');
  const nowhere = await play({ portId: 'nope' });
  expect((await nowhere.json()).error.fields[0].path).toBe('portId');
});
