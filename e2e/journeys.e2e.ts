import { crateId, expect, open, pick, test } from './test';

test.describe('from the parts to a measured build', () => {
  test('pair, save, enter a result, see it against the plan', async ({ page }) => {
    await open(page, '/c/fernhollow/pair');
    await pick(page, 'Computer and port', 'Kiln · front USB4');
    await pick(page, 'Enclosure', 'Trivet 40');
    await pick(page, 'Drive', 'Chert T4 2TB');
    await pick(page, 'Cable', 'Rush C-C 10G');
    const ticket = page.getByRole('complementary', { name: 'Ticket' });
    await expect(ticket.getByRole('heading', { name: 'Works, limited' })).toBeVisible();
    await expect(page.getByText('The cable is the slowest link').first()).toBeVisible();
    // a box that is opened shows all there is, not only what is chosen
    await page.getByRole('combobox', { name: 'Cable' }).click();
    await expect(page.getByRole('option', { name: 'Osier 0.8 80G' })).toBeVisible();
    await page.keyboard.press('Escape');
    // The better cable: the limit goes, the figures follow at once.
    await pick(page, 'Cable', 'Withy 0.8 40G');
    await expect(page.getByText('The cable is the slowest link')).toHaveCount(0);
    await expect(ticket.getByText('2800 – 3900').first()).toBeVisible();
    await expect(page).toHaveURL(/cable=.*enclosure=.*drive=/);

    await page.getByRole('button', { name: 'Save as build' }).click();
    await page.getByLabel('Name of the build').fill('Journey carrier');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page).toHaveURL(/\/b\/AC-\d{4}\/pair/);
    await expect(page.getByRole('heading', { name: 'Journey carrier' })).toBeVisible();

    await page.getByRole('link', { name: /^Measure/ }).click();
    await page.getByLabel('Write, MB/s', { exact: true }).fill('3,3 GB/s');
    await page.getByLabel('Read, MB/s', { exact: true }).fill('3350');
    await page.getByRole('button', { name: 'Keep the result' }).click();
    await expect(page.getByText('Write: 3300 MB/s, inside the forecast of 2800 – 3900 MB/s.')).toBeVisible();
    await page.reload();
    await page.locator('html[data-ready="yes"]').waitFor();
    await expect(page.getByText('Read: 3350 MB/s')).toBeVisible();

    await open(page, '/c/fernhollow/builds?find=Journey');
    await expect(page.getByRole('row', { name: /Journey carrier/ })).toContainText('3300');
  });

  test('the impossible is refused with what was meant, the suspicious asked about', async ({ page }) => {
    await open(page, '/b/AC-0003/measure'); // 900 - 1070, ceiling 1212
    const write = page.getByLabel('Write, MB/s', { exact: true });
    await write.fill('7600');
    await page.getByRole('button', { name: 'Keep the result' }).click();
    await expect(page.getByText('cannot pass this chain: its ceiling is 1210 MB/s', { exact: false })).toBeVisible();
    await page.getByRole('button', { name: 'Make it 950 MB/s' }).click();
    await expect(write).toHaveValue('950 MB/s');

    await write.fill('1190');
    await page.getByRole('button', { name: 'Keep the result' }).click();
    await expect(page.getByText('more than a tenth above', { exact: false })).toBeVisible();
    await page.getByRole('button', { name: 'Keep it as it is' }).click();
    await expect(page.getByText('Write: 1190 MB/s, 11 % above the high end', { exact: false })).toBeVisible();
    // and taken back
    await page.locator('.notice', { hasText: 'The result is kept' }).getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Nothing measured yet', { exact: false })).toBeVisible();
  });

  test('a figure shows its working, by mouse and by arrow keys', async ({ page }) => {
    await open(page, '/b/AC-0002/pair');
    const working = page.getByRole('region', { name: 'Working of the chosen figure' });
    await page.getByRole('option', { name: /Random 4 KiB read/ }).click();
    await expect(working).toContainText('4096 B / (t_media + t_link)');
    await page.getByRole('listbox', { name: 'Figures of the plan' }).press('ArrowDown');
    await expect(working).toContainText('Random 4 KiB write');
    await page.getByRole('button', { name: /^slot/ }).click();
    await expect(working).toContainText('lanes × payload of a lane');
  });
});

test('the first evening: an own crate, three parts from their boxes, a plan', async ({ page }) => {
  await open(page, '/crates');
  await page.getByLabel('Name of the new crate').fill('Evening <b>crate</b>');
  await page.getByRole('button', { name: 'Make the crate' }).click();
  await expect(page.getByText('The first evening')).toBeVisible();
  // a name is text, never markup
  await expect(page.getByRole('link', { name: /Evening <b>crate<\/b>/ })).toBeVisible();

  await page.getByRole('link', { name: 'Add a computer' }).first().click();
  await page.getByLabel('Name', { exact: true }).fill('My laptop');
  await page.getByLabel('System').selectOption('windows');
  await page.getByRole('button', { name: 'Add a port' }).click();
  await page.getByLabel('Short id').fill('c1');
  await page.getByLabel('Label', { exact: true }).fill('left USB-C');
  await page.getByLabel('Plug', { exact: true }).selectOption('usb-c');
  await page.getByText('USB 10 Gb/s', { exact: true }).click();
  await page.getByRole('button', { name: 'Add it, then: add a drive' }).click();
  await expect(page.getByRole('heading', { name: 'New drive' })).toBeVisible();

  await page.getByRole('link', { name: 'Add an enclosure' }).click();
  await expect(page.getByRole('heading', { name: 'New enclosure' })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Blue case');
  await page.getByLabel('Form factor').selectOption('m2');
  await page.getByText('NVMe', { exact: true }).click();
  await page.getByText('USB 10 Gb/s', { exact: true }).click();
  await page.getByLabel('Plug', { exact: true }).first().selectOption('usb-c');
  await page.getByRole('button', { name: /^Add it, then/ }).click();
  await expect(page.getByRole('heading', { name: 'New cable' })).toBeVisible();

  await page.getByRole('link', { name: 'Add a drive' }).click();
  await expect(page.getByRole('heading', { name: 'New drive' })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('<img src=x onerror=alert(1)> 1TB');
  await page.getByLabel('Media').selectOption('nvme');
  await page.getByLabel('Form factor').selectOption('m2');
  await page.getByLabel('Capacity, TB').fill('-1');
  await page.getByRole('button', { name: /^Add it, then/ }).click();
  await expect(page.getByText('-1 TB is less than 0.001 TB', { exact: false })).toBeVisible();
  // what was typed survives a reload
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('<img src=x onerror=alert(1)> 1TB');
  await page.getByLabel('Capacity, TB').fill('1000 GB');
  await page.getByRole('button', { name: /^Add it, then/ }).click();
  await expect(page.getByText('Added <img src=x onerror=alert(1)> 1TB.')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'New cable' })).toBeVisible();

  await page.getByRole('link', { name: 'Pair', exact: true }).click();
  // of what there is one of, it is chosen already
  await expect(page.getByRole('combobox', { name: 'Enclosure' })).toHaveValue('Blue case');
  const ticket = page.getByRole('complementary', { name: 'Ticket' });
  await expect(ticket.getByText('USB 10 Gb/s').first()).toBeVisible();
  await expect(ticket.getByText(/\d+ values/)).toBeVisible();
  await expect(ticket.getByText('NTFS, GPT').first()).toBeVisible();
});

test('a part is edited, deleted, and brought back', async ({ page }) => {
  await open(page, '/c/fernhollow/crate/pad');
  await page.getByRole('link', { name: 'Add a pad' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Trial pad');
  await page.getByLabel('Thickness, mm').fill('0,5 mm');
  await page.getByLabel('Width, mm').fill('10');
  await page.getByLabel('Length, mm').fill('2 cm');
  await page.getByRole('button', { name: 'Add the pad' }).click();
  await page.getByRole('link', { name: 'Trial pad' }).click();
  await expect(page.getByLabel('Length, mm')).toHaveValue('20');
  await page.getByLabel('Thickness, mm').fill('1.5');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('row', { name: /Trial pad/ })).toContainText('1.5');
  await page.getByRole('link', { name: 'Trial pad' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByText('Deleted Trial pad.')).toBeVisible();
  await expect(page).toHaveURL(/crate\/pad$/);
  await expect(page.getByRole('link', { name: 'Trial pad' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByRole('link', { name: 'Trial pad' })).toBeVisible();
});

test('two tabs saving the same build: the second is shown both versions', async ({ page, context }) => {
  const other = await context.newPage();
  await open(page, '/b/AC-0009/pair');
  await open(other, '/b/AC-0009/pair');
  await pick(page, 'Cable', 'Rush C-C 10G');
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('button', { name: 'Save the change' })).toBeHidden();

  await pick(other, 'Enclosure', 'Grate 10');
  await other.getByRole('button', { name: 'Save the change' }).click();
  const dialog = other.getByRole('dialog');
  await expect(dialog).toContainText('saved elsewhere in the meantime');
  await expect(dialog).toContainText('Rush C-C 10G');
  await expect(dialog).toContainText('Grate 10');
  await other.getByRole('button', { name: 'Show theirs' }).click();
  await expect(other.getByRole('combobox', { name: 'Enclosure' })).toHaveValue('Scuttle 20');
});

test('a build whose part changed since says so and offers to plan again', async ({ page }) => {
  const id = await crateId(page, 'fernhollow');
  const cables = (await (await page.request.get(`/api/crates/${id}/models?kind=cable`)).json()) as {
    id: string;
    version: number;
    spec: { name: string };
  }[];
  const sedge = cables.find((cable) => cable.spec.name === 'Sedge charge-only')!;
  await open(page, '/b/AC-0012/pair');
  await pick(page, 'Cable', 'Sedge charge-only');
  await page.getByRole('button', { name: 'Save the change' }).click();
  await expect(page.getByRole('button', { name: 'Save the change' })).toBeHidden();
  await page.request.put(`/api/crates/${id}/models/${sedge.id}`, {
    data: { version: sedge.version, spec: { ...sedge.spec, lengthM: 3 } }
  });
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await page.getByText('its parts have changed since', { exact: false }).click();
  await expect(page.getByRole('row', { name: /cable lengthM/ })).toContainText('3');
  await page.getByRole('button', { name: 'Plan again' }).click();
  await expect(page.getByText('its parts have changed since', { exact: false })).toBeHidden();
});

test('an address with a drive that is not there says so and keeps the rest', async ({ page }) => {
  await open(page, '/c/fernhollow/pair?drive=01ARZ3NDEKTSV4RRFFQ69G5FAV&host=nonsense&port=u4');
  await expect(page.getByText('This drive is not in the crate.').first()).toBeVisible();
  await pick(page, 'Computer and port', 'Moss · Thunderbolt 4, right');
  await pick(page, 'Drive', 'Chert T4 2TB');
  await pick(page, 'Enclosure', 'Trivet 40');
  await expect(page.getByRole('complementary', { name: 'Ticket' }).getByText('APFS, GPT').first()).toBeVisible();
  const answer = await page.goto('/b/AC-9999/pair');
  expect(answer!.status()).toBe(404);
  await expect(page.getByText('There is no such build.')).toBeVisible();
});

test('Today marks the next stage of a build, and takes it back', async ({ page }) => {
  await open(page, '/c/fernhollow');
  const row = page.getByRole('listitem').filter({ hasText: 'Two-lane trial' });
  await row.getByRole('button', { name: 'Mark formatted' }).click();
  await expect(row).toContainText('formatted');
  await expect(row.getByRole('button', { name: 'Mark formatted' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toContainText('assembled');
});
