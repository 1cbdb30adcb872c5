import { crateId, expect, open, test } from './test';

test('a cable is swapped with j, told against the starting point, and taken back with b', async ({ page }) => {
  await open(page, '/b/AC-0001/pair');
  const cable = page.getByRole('combobox', { name: 'Cable' });
  await expect(cable).toHaveValue('Rush C-C 10G');
  // other tests may add cables meanwhile: what counts is the step
  const at = async () => Number(/(\d+)\s*of/.exec(await page.locator('.tile.marked .step').innerText())![1]);
  const start = await at();
  await page.keyboard.press('j');
  await expect(cable).not.toHaveValue('Rush C-C 10G');
  expect(await at()).toBe(start + 1);
  await page.keyboard.press('k');
  await expect(cable).toHaveValue('Rush C-C 10G');
  await page.keyboard.press('k');
  expect(await at()).toBe(start - 1);
  // the offer under the finding puts in what is at hand
  await page.keyboard.press('b');
  await expect(cable).toHaveValue('Rush C-C 10G');
  await expect(
    page.getByText('With Withy 0.8 40G, which is in your crate: write 1750 → about 3400').first()
  ).toBeVisible();
  await page
    .getByRole('button', { name: /Use it.*Withy 0.8 40G/ })
    .first()
    .click();
  await expect(cable).toHaveValue('Withy 0.8 40G');
  const since = page.getByRole('region', { name: 'Compared with the parts you began with' });
  await expect(since).toContainText('cable: Rush C-C 10G → Withy 0.8 40G');
  await expect(since).toContainText('+1650');
  await expect(page.getByRole('option', { name: /^Write 3400/ })).toContainText('1650');
  // single keys rest while one types
  await cable.focus();
  await page.keyboard.press('k');
  await expect(page).toHaveURL(/cable=/);
  await page.keyboard.press('Escape');
});

test('what if: every other drive, all hosts, lower modes', async ({ page }) => {
  await open(page, '/b/AC-0001/pair');
  const panel = page.getByRole('region', { name: 'What if' });
  await panel.getByRole('button', { name: /^drive/ }).click();
  await expect(panel.getByRole('row', { name: /Skarn T5 2TB/ })).toBeVisible();
  await panel.getByRole('tab', { name: 'On all my computers' }).click();
  await expect(panel.getByRole('row', { name: /Lantern · Thunderbolt 5, rear 1/ })).toContainText('USB4 20 Gb/s');
  await panel.getByRole('tab', { name: 'If it falls back' }).click();
  await expect(panel.getByRole('row', { name: /USB 2.0/ })).toContainText('charging cable');
  await panel.getByRole('tab', { name: 'On all my computers' }).click();
  await panel.getByRole('button', { name: /Go there.*Lantern, Thunderbolt 5, rear 1/ }).click();
  await expect(page.getByRole('combobox', { name: 'Computer and port' })).toHaveValue(
    'Lantern · Thunderbolt 5, rear 1'
  );
});

test('rank, move a weight, look at what was rejected, and open the best in Pair', async ({ page }) => {
  await open(page, '/c/fernhollow/rank');
  await page.getByLabel('For the job').selectOption({ label: 'Scan day' });
  const table = page.getByRole('region', { name: 'Ranking' });
  const first = table.getByRole('row').nth(1);
  await expect(first).toContainText('%');
  await expect(page.getByText(/\d\d\s\d{3} combinations/)).toBeVisible();
  const before = await first.getByRole('link').innerText();
  // the price of a terabyte counts most now
  await page.getByText('Weights, limits and parts').click();
  await page.getByRole('slider', { name: 'Price of a terabyte' }).fill('5');
  for (const other of ['Write after the cache', 'Time of the job'])
    await page.getByRole('slider', { name: other }).fill('0');
  await expect(first.getByRole('link')).not.toHaveText(before);
  await expect(page).toHaveURL(/weights=/);
  const cheapest = await first.getByRole('link').innerText();
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(first.getByRole('link')).toHaveText(cheapest);

  await page.getByRole('tab', { name: 'Rejected' }).click();
  await page.getByText('Form factor mismatch').click();
  await expect(page.getByText('Connector and screw holes belong to a form factor')).toBeVisible();
  await page.getByRole('tab', { name: 'Ready-made' }).click();
  await expect(page.getByRole('row', { name: /Pebble portable 2TB/ })).toContainText('950');
  await page.getByRole('tab', { name: 'Ranking' }).click();

  const [enclosure, drive] = cheapest.split(' · ');
  await first.getByRole('link').click();
  await expect(page).toHaveURL(/\/pair\?/);
  await expect(page.getByRole('combobox', { name: 'Enclosure' })).toHaveValue(enclosure!);
  await expect(page.getByRole('combobox', { name: 'Drive' })).toHaveValue(drive!);
  await expect(page.getByRole('complementary', { name: 'Ticket' })).not.toContainText('Does not work');
});

test('a page that is loaded again finds its ranking still running, and starts no other', async ({ page }) => {
  const started: string[] = [];
  const watched: string[] = [];
  page.on('request', (request) => {
    if (request.method() === 'POST' && request.url().endsWith('/rank')) started.push(request.url());
  });
  // A ranking that has only begun, for as long as the test wants.
  let id = '';
  await page.route('**/api/tasks/*/events', async (route) => {
    id = route.request().url().split('/').at(-2)!;
    watched.push(id);
    const state = { id, title: 'Ranking', state: 'running', done: 5, total: 100, step: 'Combining' };
    await route.fulfill({ contentType: 'text/event-stream', body: `retry: 60000\ndata: ${JSON.stringify(state)}\n\n` });
  });
  await open(page, '/c/fernhollow/rank');
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await open(page, '/c/fernhollow/rank');
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  expect(started).toHaveLength(1);
  expect(new Set(watched).size).toBe(1);
  // let it go on: the result is there, for it was only the news of it that was held back
  await page.unroute('**/api/tasks/*/events');
  await open(page, '/c/fernhollow/rank');
  await expect(page.getByText('combinations:')).toBeVisible();
  expect(started).toHaveLength(1);
});

test('a house rule changes an advice, is named there, and is taken back', async ({ page }) => {
  const made = await page.request.post('/api/crates', { data: { name: 'Schools' } });
  const { id, slug } = (await made.json()) as { id: string; slug: string };
  const add = async (spec: object) => {
    const answer = await page.request.post(`/api/crates/${id}/models`, { data: { spec } });
    expect(answer.status()).toBe(201);
  };
  await add({
    kind: 'host',
    name: 'Desk',
    os: { family: 'windows', version: '11' },
    ports: [{ id: 'c', label: 'USB-C', plug: 'usb-c', modes: ['usb-10g'] }]
  });
  await add({
    kind: 'enclosure',
    name: 'Case',
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['usb-10g'],
    plug: 'usb-c'
  });
  await add({ kind: 'drive', name: 'Drive', media: 'nvme', formFactor: 'm2', capacityTB: 2 });
  await open(page, `/c/${slug}/pair`);
  // of what there is one of, it is chosen already
  await expect(page.getByRole('combobox', { name: 'Drive' })).toHaveValue('Drive');
  const ticket = page.getByRole('complementary', { name: 'Ticket' });
  await expect(ticket).toContainText('NTFS');
  await page.getByText(/house rules? decided something here/).click();
  await page.getByRole('link', { name: 'Windows drive' }).click();
  await page.getByRole('radio', { name: /^exFAT/ }).check();
  await expect(page.getByText('1 of 21 chosen here')).toBeVisible();
  await page.goBack();
  await expect(ticket).toContainText('exFAT');
  await page.getByText(/house rules? decided something here/).click();
  await expect(page.getByText('exFAT stands first among what would do')).toBeVisible();
  await page.getByRole('option', { name: /^Filesystem/ }).click();
  await expect(page.getByText('house rule “Windows drive”: exFAT').first()).toBeVisible();
  await page.goForward();
  await page.getByRole('button', { name: 'Back to the default' }).click();
  await expect(page.getByText('Every default stands.')).toBeVisible();
});

test('a job: from a template, its time on each build, deleted and brought back', async ({ page }) => {
  await open(page, '/c/fernhollow/jobs');
  await page.getByRole('button', { name: 'Add a job' }).click();
  await page.getByRole('button', { name: 'A day’s work onto a carried drive' }).click();
  await page.getByLabel('Name').fill('Journey offload');
  await page.getByLabel('Copied in one go, GB').fill('0,5 TB');
  await page.getByRole('button', { name: 'Add this job' }).click();
  await expect(page.getByRole('heading', { name: 'Journey offload' })).toBeVisible();
  await expect(page.getByText('500 GB in 3000 files')).toBeVisible();
  await expect(page.getByRole('row', { name: /AC-0001/ })).toContainText('the drive’s write cache');
  await page.getByRole('link', { name: 'Jobs', exact: true }).first().click();
  await page.getByRole('button', { name: 'Delete Journey offload' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Journey offload' })).toBeHidden();
  await page.locator('.notice', { hasText: 'Deleted the job' }).getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Journey offload' })).toBeVisible();
});

test('two builds on one controller slow each other down, and not on ports of their own', async ({ page }) => {
  const host = await page.request.get(
    `/api/crates/${await crateId(page, 'fernhollow')}/models/table?kind=host&find=Kiln`
  );
  const [{ id }] = ((await host.json()) as { rows: [{ id: string }] }).rows;
  await open(page, `/c/fernhollow/together?host=${id}&with=AC-0001/c1/write~AC-0003/c2/write`);
  await expect(page.getByText('The rear controller is full at 1100')).toBeVisible();
  await page.getByLabel('Port of AC-0003').selectOption('a1');
  await expect(page.getByText('The rear controller is full')).toBeHidden();
  await expect(page).toHaveURL(/AC-0003%2Fa1/);
});

test('the stopwatch starts and stops with Space, and says what a hand is worth', async ({ page }) => {
  await open(page, '/b/AC-0003/measure');
  const watch = page.getByRole('region', { name: 'Stopwatch' });
  await watch.getByLabel('What is copied, GB').fill('1 GB');
  await page.getByRole('heading', { name: 'Measure', exact: true }).click();
  await page.keyboard.press('Space');
  await expect(watch.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.waitForTimeout(1000);
  await page.keyboard.press('Space');
  await expect(watch).toContainText('your finger may be off by ±0.28');
});

test.describe('ranking over the API', () => {
  const part = (kind: string, more: object) => ({ kind, name: `a ${kind}`, ...more });
  const body = () => ({
    hosts: [
      part('host', {
        os: { family: 'linux', version: '6.1' },
        ports: [{ id: 'p', label: 'p', plug: 'usb-c', modes: ['usb4-40g'] }]
      })
    ],
    cables: [part('cable', { ends: ['usb-c', 'usb-c'], modes: ['usb4-40g'], lengthM: 0.8 })],
    enclosures: [
      part('enclosure', { formFactor: 'm2', protocols: ['nvme'], modes: ['usb4-40g', 'usb-10g'], plug: 'usb-c' })
    ],
    drives: [
      part('drive', { media: 'nvme', formFactor: 'm2', capacityTB: 2 }),
      part('drive', { media: 'hdd', formFactor: '3.5in', capacityTB: 8 })
    ],
    job: { name: 'j', purposes: [], transferGB: 10, direction: 'in' }
  });
  test('takes parts in full and gives rows, counts and rejections', async ({ request }) => {
    const answer = await request.post('/api/rank', { data: body() });
    expect(answer.status()).toBe(200);
    const report = (await answer.json()) as {
      considered: number;
      rows: { driveId: string }[];
      rejected: { code: string; count: number }[];
    };
    expect(report).toMatchObject({ considered: 2, rejected: [{ code: 'form-factor-mismatch', count: 1 }] });
    expect(report.rows.map((row) => row.driveId)).toEqual(['drive-1']);
  });
  test('bad input is a 400 with its path; an empty list, a negative weight, an unknown filter, another type', async ({
    request
  }) => {
    const paths = async (data: object) => {
      const answer = await request.post('/api/rank', { data });
      expect(answer.status()).toBe(400);
      return ((await answer.json()) as { error: { fields: { path: string }[] } }).error.fields.map((f) => f.path);
    };
    expect(await paths({ ...body(), drives: [] })).toContain('drives');
    expect(await paths({ ...body(), weights: { cost: -1 } })).toContain('weights.cost');
    const twice = { ...body().drives[0], id: '0'.repeat(26) };
    expect(await paths({ ...body(), drives: [twice, twice] })).toContain('drives');
    expect(await paths({ ...body(), filters: { constructor: 1 } })).toContain('filters');
    expect(
      await paths({
        ...body(),
        drives: [{ kind: 'drive', name: 'x', media: 'nvme', formFactor: 'm2', capacityTB: -2 }]
      })
    ).toContain('drives.0.capacityTB');
    expect((await request.post('/api/rank', { headers: { 'content-type': 'text/plain' }, data: '{}' })).status()).toBe(
      415
    );
  });
  test('of a crate it is a task that can be watched and cancelled', async ({ page }) => {
    const base = `/api/crates/${await crateId(page, 'fernhollow')}`;
    const [job] = (await (await page.request.get(`${base}/jobs`)).json()) as { id: string }[];
    const started = await page.request.post(`${base}/rank`, { data: { jobId: job!.id, limit: 3 } });
    expect(started.status()).toBe(202);
    const { id } = (await started.json()) as { id: string };
    await expect.poll(async () => (await (await page.request.get(`/api/tasks/${id}`)).json()).state).toBe('done');
    const { result } = (await (await page.request.get(`/api/tasks/${id}`)).json()) as { result: { rows: unknown[] } };
    expect(result.rows).toHaveLength(3);
    const missing = await page.request.post(`${base}/rank`, { data: { jobId: job!.id, hostIds: [job!.id] } });
    expect(missing.status()).toBe(400);
    expect((await page.request.post(`${base}/rank`, { data: { jobId: '0'.repeat(26) } })).status()).toBe(404);
  });
});
