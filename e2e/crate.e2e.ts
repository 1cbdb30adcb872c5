import { crateId, expect, open, test } from './test';

test('a specification is pasted, what is open is answered, and the part is saved', async ({ page }) => {
  await open(page, '/c/fernhollow/crate/paste');
  await page
    .getByLabel('What it says')
    .fill(
      'Andiron 40 enclosure\nUSB4, up to 40GB/s, USB-C port\nFor M.2 NVMe 2280, M key\nFanless aluminium, 180 g\nup to 8 TB'
    );
  await expect(page.getByText('40GB/s would be bytes; links are rated in bits', { exact: false })).toBeVisible();
  await page.getByLabel('USB4 40 Gb/s').check();
  await expect(page.getByRole('row', { name: /Weight/ })).toContainText('stated');
  await page.getByRole('button', { name: 'Go on to the enclosure' }).click();
  await expect(page.getByText('read from what you pasted', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Add the enclosure' }).click();
  await expect(page.getByRole('link', { name: 'Andiron 40 enclosure' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Andiron 40/ })).toContainText('USB4 40 Gb/s');
});

test('a CSV with errors shows them beside their rows, imports nothing, then all but the wrong rows, once', async ({
  page
}) => {
  await open(page, '/c/fernhollow/tables');
  const csv = 'Name,Media,Form factor,"Capacity, TB",colour\r\nKarst,nvme,M.2,2000 GB,red\r\nBad,nvme,m2,-1,blue\r\n';
  const file = { name: 'drives.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) };
  await page.getByLabel('Choose a file').setInputFiles(file);
  await expect(page.getByRole('row', { name: /Bad/ })).toContainText('less than 0.001 TB');
  const start = page.getByRole('button', { name: 'Import 1 row' });
  await expect(start).toBeDisabled();
  await page.getByText('leave out the wrong row', { exact: false }).click();
  await start.click();
  await expect(page.getByText('Imported: 1 new, 0 changed.')).toBeVisible();
  await page.getByLabel('Choose a file').setInputFiles([]);
  await page.getByLabel('Choose a file').setInputFiles(file);
  await expect(page.getByRole('row', { name: /Karst/ })).toContainText('is there already');
});

test('a table with the headings of a page is known, its wrong cells are put right in place, and undoing it is one line', async ({
  page
}) => {
  await open(page, '/c/fernhollow/tables');
  const csv =
    'Name,Kind,Interface,Capacity,Read,Write,Cells,Rd\r\n' +
    'Kame 1T,"NVMe, M.2",PCIe 4.0 x4,1 TB,fast,6000,TLC,50\r\nKame 2T,"NVMe, M.2",PCIe 4.0 x4,2 TB,7000,6000,floppy,60\r\n';
  const choose = async (name: string) =>
    page.getByLabel('Choose a file').setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await choose('one.csv');
  await expect(page.getByText('0 new, 0 changed, 0 there already, 2 wrong.')).toBeVisible();
  await expect(page.getByText('is not one of the choices: TLC, QLC, MLC, SLC.')).toBeVisible();
  await page.getByLabel('Rd', { exact: true }).selectOption('Random 4 KiB read, queue depth 1 (MB/s)');
  // the same columns in another file: what was assigned stays
  await choose('two.csv');
  await expect(page.getByLabel('Rd', { exact: true })).toHaveValue('random4kReadMBps');
  await page.getByLabel(/^Sequential read.*row 1$/).fill('7,0 GB/s');
  await page.keyboard.press('Tab');
  await expect(page.getByText('1 new, 0 changed, 0 there already, 1 wrong.')).toBeVisible();
  await page.getByLabel('Flash, cells, row 2').selectOption('TLC');
  await page.getByRole('button', { name: 'Import 2 rows' }).click();
  await expect(page.getByText('Imported: 2 new, 0 changed.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('Undone', { exact: false }).first()).toBeVisible();
  await open(page, '/c/fernhollow/history');
  await expect(page.getByRole('cell', { name: /^Undid a change: Imported/ })).toHaveCount(1);
  // and not one for each of its rows: others may take something back meanwhile
  await expect(page.getByRole('cell', { name: /^Undid a change: .*Kame/ })).toHaveCount(0);
});

test('units: added, lent by keyboard alone, found by a picture of their label, deleted and brought back', async ({
  page
}) => {
  await open(page, '/c/fernhollow/crate/drive?find=loam');
  await page.getByRole('link', { name: 'Loam S6 1TB' }).click();
  await page
    .getByRole('navigation', { name: 'About this part' })
    .getByRole('link', { name: /^Items/ })
    .click();
  await page.getByLabel('How many').fill('2');
  await page.getByRole('button', { name: 'Add items' }).click();
  await expect(page.getByText('Added 2 items.')).toBeVisible();

  // the palette: from anywhere to the unit, without a mouse
  await page.keyboard.press('Control+k');
  await page.keyboard.type('D-015');
  await expect(page.getByRole('option', { name: /D-015 · Loam/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/u\/D-015$/);
  await page.getByRole('button', { name: 'Lend' }).press('Enter');
  await page.getByLabel('Who takes it').fill('field crew');
  await page.getByRole('dialog', { name: /Lend/ }).getByRole('button', { name: 'Lend' }).press('Enter');
  await expect(page.getByText('field crew took D-015.')).toBeVisible();

  const code = await page.getByRole('img', { name: 'Code that opens this page' }).screenshot();
  await open(page, '/c/fernhollow/find');
  await page
    .getByLabel('photograph the label', { exact: false })
    .setInputFiles({ name: 'label.png', mimeType: 'image/png', buffer: code });
  await expect(page).toHaveURL(/\/u\/D-015$/);
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page).toHaveURL(/\/items$/);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Undone.')).toBeVisible();
  await open(page, '/c/fernhollow/u/D-015');
  await expect(page.getByRole('heading', { name: /D-015/ })).toBeVisible();
});

test('a build’s shopping list tells what is there, what is to buy and what is missing', async ({ page }) => {
  await open(page, '/b/AC-0001/buy');
  await expect(page.getByRole('row', { name: /Kiln/ })).toContainText('in the crate');
  await expect(page.getByRole('heading', { name: 'Before you can start' })).toBeVisible();
});

test('many parts at once: a field is set, and taken back', async ({ page }) => {
  await open(page, '/c/fernhollow/crate/drive?having=owned');
  await page.getByLabel('Choose all on this page').check();
  await page.getByRole('button', { name: 'Change a field' }).click();
  const dialog = page.getByRole('dialog', { name: /Change a field/ });
  await dialog.getByLabel('Field', { exact: true }).selectOption('warrantyYears');
  await dialog.getByLabel(/New value/).fill('4');
  await dialog.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByText(/^Set Warranty of \d+ drives\.$/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Undone.')).toBeVisible();
});

test('a host’s port is filled from what is printed beside it', async ({ page }) => {
  await open(page, '/c/fernhollow/crate/host/new');
  await page.getByRole('button', { name: 'Add a port' }).click();
  await page.getByLabel('What is printed beside it').selectOption('Thunderbolt 4 port');
  await expect(page.getByLabel('Plug', { exact: true })).toHaveValue('usb-c');
  await expect(page.getByLabel('Thunderbolt 4', { exact: true })).toBeChecked();
});

test('a bundle opens as a crate of its own', async ({ page }) => {
  const id = await crateId(page, 'fernhollow');
  const bundle = await (await page.request.get(`/api/crates/${id}/bundle`)).body();
  await open(page, '/c/fernhollow/tables');
  await page
    .getByLabel('Open a bundle', { exact: false })
    .setInputFiles({ name: 'b.json', mimeType: 'application/json', buffer: bundle });
  await expect(page).toHaveURL(/\/c\/fernhollow-2/);
  const schema = (await (await page.request.get('/api/bundle.schema.json')).json()) as { required: string[] };
  expect(schema.required).toContain('models');
});

test('keyboard only: a drive from its box, a quote that is corrected, and all of it in the history', async ({
  page
}) => {
  await open(page, '/c/fernhollow/crate/drive');
  const type = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).focus();
    await page.keyboard.type(text);
  };
  await page.getByRole('link', { name: 'Add a drive' }).focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/drive\/new$/);
  await type('Name', 'Tufa N3 2TB');
  await type('Media', 'NVMe');
  await type('Form factor', 'M.2');
  await type('Capacity, TB', '2000 GB');
  await type('Sequential read, “up to”, MB/s (optional)', '3,5 GB/s');
  await page.keyboard.press('Enter');
  const row = page.getByRole('row', { name: /Tufa N3/ });
  await expect(row).toContainText('3500');
  await expect(row).toContainText('2 TB');

  await row.getByRole('link', { name: 'Tufa N3 2TB' }).press('Enter');
  await page.getByRole('link', { name: /^Prices/ }).press('Enter');
  await type('Vendor', 'Nordlicht Depot');
  await type('List price', '100');
  await type('Discount, % (optional)', '10');
  await type('Shipping (optional)', '5');
  await type('Tax, % (optional)', '20');
  await page.keyboard.press('Enter');
  // (100 - 10 %) + 5 = 95, and 20 % tax on it: 114
  await expect(page.getByRole('row', { name: /Nordlicht Depot/ })).toContainText('114.00');
  await page.getByRole('button', { name: /^Edit the price of Nordlicht Depot/ }).press('Enter');
  await page.getByRole('textbox', { name: 'Valid until' }).fill('2026-13-01');
  await page.keyboard.press('Tab');
  await expect(page.getByText('“2026-13-01” is no day; write it like 27 Nov 2026.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Valid until' }).fill('31.1.2027');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('textbox', { name: 'Valid until' })).toHaveValue('31 Jan 2027');
  await page.getByLabel('Shipping (optional)').fill('');
  await page.keyboard.press('Enter');
  // without shipping: 90 x 1.2 = 108
  await expect(page.getByRole('row', { name: /Nordlicht Depot/ })).toContainText('108.00');
  await page.getByRole('link', { name: /^History/ }).press('Enter');
  await expect(page.getByRole('row', { name: /Tufa N3/ }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Undo/ }).first()).toBeVisible();
});

test('a unit is edited: a tag that is taken is said beside the field, nothing typed is lost', async ({ page }) => {
  await open(page, '/c/fernhollow/u/E-001');
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
  await page.getByLabel('Tag', { exact: true }).fill('D-001');
  await page.getByLabel('Serial number (optional)').fill('SN 4711');
  await page.getByLabel('Exact capacity, B (optional)').fill('1 TB');
  await page.getByRole('button', { name: 'Save the item' }).click();
  await expect(page.getByText('Is taken by another item.')).toBeVisible();
  await expect(page.getByLabel('Serial number (optional)')).toHaveValue('SN 4711');
  await page.getByLabel('Tag', { exact: true }).fill('E-900');
  await page.getByRole('button', { name: 'Save the item' }).click();
  await expect(page).toHaveURL(/\/u\/E-900$/);
  await expect(page.getByText('SN 4711')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(page.getByText('Undone.')).toBeVisible();
});

test('a term explains itself in place', async ({ page }) => {
  await open(page, '/c/fernhollow/crate/drive/new');
  await page.getByText('Warranty', { exact: false }).first().click();
  const note = page.getByText('How much the computer may write before the warranty ends', { exact: false });
  await expect(note).toBeHidden();
  await page.getByRole('button', { name: 'Explain Endurance' }).press('Enter');
  await expect(note).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(note).toBeHidden();
});

test('forty labels print on one sheet, the forty-first on a second', async ({ page }) => {
  const sheets = async () => {
    const pdf = await page.pdf({ preferCSSPageSize: true });
    return [...pdf.toString('latin1').matchAll(/\/Type\s*\/Page\b(?!s)/g)].length;
  };
  await open(page, '/c/fernhollow/labels');
  const labels = await page.getByRole('list').getByRole('listitem').count();
  // as many places used already as fill the sheet with what is there
  await page.getByLabel('Labels already used').fill(String(Math.max(0, 40 - labels)));
  await expect(page.getByRole('region', { name: /^Sheet/ })).toHaveCount(Math.ceil(Math.max(40, labels) / 40));
  expect(await sheets()).toBe(Math.ceil(Math.max(40, labels) / 40));
  await page.getByLabel('Labels already used').fill('39');
  await expect(page.getByRole('region', { name: 'Sheet 2' })).toBeVisible();
  expect(await sheets()).toBe(Math.ceil((39 + labels) / 40));
});
