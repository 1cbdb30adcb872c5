import { readFile } from 'node:fs/promises';
import { Hand } from './hand';
import { expect, open, test } from './test';

const BOX = `Sorrel N5 2TB
M.2 2280 NVMe SSD, PCIe 4.0 x4
Sequential read up to 7,000 MB/s, write up to 6,200 MB/s
TLC, DRAM cache, 1200 TBW, 5 years warranty`;

test('the first page says what this is and opens three doors; the demo says that it is one', async ({ page }) => {
  await open(page, '/');
  await expect(page.getByText('whether the parts go together')).toBeVisible();
  for (const door of ['Judge one pairing right now', 'Start my own', 'Look at the demo'])
    await expect(page.getByRole('heading', { name: door })).toBeVisible();
  await page.getByRole('link', { name: 'Look at the demo' }).click();
  await expect(page.getByText('This is the demo')).toBeVisible();
  await page.getByRole('link', { name: 'Builds', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
  await expect(page.getByText('This is the demo')).toBeVisible();
  await page.getByRole('link', { name: 'Start your own' }).click();
  await expect(page.getByRole('heading', { name: 'Start my own' })).toBeVisible();
});

test('a pairing is judged by classes, and kept as a crate of one’s own', async ({ page }) => {
  await open(page, '/judge');
  const ticket = page.getByRole('complementary', { name: 'Ticket' });
  await expect(ticket.getByRole('heading', { level: 2 })).toHaveText(/Works|Check first/);
  await page.getByRole('combobox', { name: 'Enclosure' }).click();
  await page.getByRole('option', { name: '3.5-inch SATA case with its own supply, 5 Gb/s' }).click();
  // a module does not go into a case for 3.5-inch drives
  await expect(ticket.getByRole('heading', { level: 2 })).toHaveText('Does not work');
  await expect(ticket.getByRole('status')).toContainText('It does not go together');
  await page.getByRole('combobox', { name: 'Drive' }).click();
  await page.getByRole('option', { name: 'Hard disk of 8 TB, 3.5-inch, CMR' }).click();
  await page.getByRole('combobox', { name: 'Cable' }).click();
  await page.getByRole('option', { name: 'A USB-C cable of 1 m, 10 Gb/s' }).click();
  await expect(ticket.getByRole('heading', { level: 2 })).not.toHaveText('Does not work');
  await page.getByRole('button', { name: 'Keep it as my own' }).click();
  await expect(page).toHaveURL(/\/b\/AC-\d+\/pair$/);
  await expect(page.getByText('This is the demo')).toBeHidden();
  await expect(page.getByRole('combobox', { name: 'Drive' })).toHaveValue('Hard disk of 8 TB, 3.5-inch, CMR');
});

test('from an empty crate to the first judged build, and to two enclosures compared with prices', async ({ page }) => {
  const hand = new Hand(page);
  await open(page, '/');
  await hand.type(page.getByLabel('Name of the crate'), 'Mine');
  await hand.click(page.getByRole('button', { name: 'Start my own' }));
  await expect(page.getByRole('heading', { name: 'The first evening' })).toBeVisible();

  await hand.click(page.getByRole('link', { name: 'Add a computer' }).first());
  await hand.choose(page.getByLabel('Begin from its class'), 'Windows laptop with USB-C 10 Gb/s');
  await hand.click(page.getByRole('button', { name: 'Add it, then: add a drive' }));

  await expect(page.getByRole('heading', { name: 'New drive' })).toBeVisible();
  await hand.click(page.getByRole('link', { name: 'paste it' }));
  await hand.paste(page.getByLabel('What it says'), BOX);
  await hand.click(page.getByRole('button', { name: /^Go on/ }));
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Sorrel N5 2TB');
  await hand.choose(page.getByLabel('Do you have it?'), 'yes');
  await hand.click(page.getByRole('button', { name: 'Add it, then: add an enclosure' }));

  await expect(page.getByRole('heading', { name: 'New enclosure' })).toBeVisible();
  await hand.choose(page.getByLabel('Begin from its class'), 'M.2 NVMe case, 10 Gb/s');
  await hand.click(page.getByRole('button', { name: 'Add it, then: add a cable' }));
  await expect(page.getByRole('heading', { name: 'New cable' })).toBeVisible();
  await hand.choose(page.getByLabel('Begin from its class'), 'A USB-C cable of 1 m, 10 Gb/s');
  await hand.click(page.getByRole('button', { name: 'Add it, then: pair them' }));

  // of what there is one of, it is chosen already
  const ticket = page.getByRole('complementary', { name: 'Ticket' });
  await expect(ticket.getByRole('heading', { level: 2 })).toHaveText(/Works|Check first/);
  await hand.click(page.getByRole('button', { name: 'Save as build' }));
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Save' }));
  await expect(page).toHaveURL(/\/b\/AC-\d+\/pair$/);
  await expect(ticket).toContainText('still to be bought');
  hand.within({ minutes: 3, clicks: 40, keys: 60 });

  // the price of the case, on the shopping row
  await hand.click(page.getByRole('link', { name: /Buy/ }));
  const row = page.getByRole('row', { name: /M\.2 NVMe case, 10/ }).first();
  await expect(page.getByRole('row', { name: /Sorrel/ })).toContainText('in the crate');
  await expect(page.getByRole('row', { name: /Windows laptop/ })).not.toContainText('to buy');
  await hand.type(row.getByLabel(/^Price/), '29.90');
  await hand.click(row.getByRole('button', { name: 'Save the price' }));
  await expect(row).toContainText('29.90');

  // a second enclosure, with its price, laid beside the first
  await hand.click(page.getByRole('link', { name: 'Crate', exact: true }));
  await hand.click(page.getByRole('link', { name: /^Enclosures/ }));
  await hand.click(page.getByRole('link', { name: 'Add an enclosure' }));
  await hand.choose(page.getByLabel('Begin from its class'), 'M.2 NVMe case, USB4 40 Gb/s');
  await hand.click(page.getByRole('button', { name: 'Add the enclosure' }));
  await expect(page.getByText(/^Added M\.2 NVMe case, USB4 40/)).toBeVisible();
  await hand.click(page.getByRole('link', { name: 'Pair', exact: true }));
  await expect(page.getByRole('heading', { name: 'Pair', level: 1 })).toBeVisible();
  await hand.click(page.getByRole('combobox', { name: 'Enclosure' }));
  await hand.click(page.getByRole('option', { name: 'M.2 NVMe case, USB4 40 Gb/s' }));
  await hand.click(page.getByRole('button', { name: 'Save as build' }));
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Save' }));
  await expect(page).toHaveURL(/\/b\/AC-\d+\/pair$/);
  await hand.click(page.getByRole('link', { name: /Buy/ }));
  const other = page.getByRole('row', { name: /USB4 40/ }).first();
  await hand.type(other.getByLabel(/^Price/), '89');
  await hand.click(other.getByRole('button', { name: 'Save the price' }));
  await expect(other).toContainText('89.00');
  await hand.click(page.getByRole('link', { name: 'Builds', exact: true }));
  await expect(page.getByRole('heading', { name: 'Builds' })).toBeVisible();
  for (const box of await page.getByRole('checkbox', { name: /^Compare/ }).all()) await hand.click(box);
  await hand.click(page.getByRole('link', { name: 'Compare these 2' }));
  await expect(page.getByRole('row', { name: /^Price delivered|^Still to pay/ }).first()).toBeVisible();
  await expect(page.getByRole('status').first()).toContainText(/equally fast|better one|faster one|fastest/);
  hand.within({ minutes: 6, clicks: 90, keys: 120 });
});

test('a pad that must not be cut has no template, in red; the right one is on the shopping list', async ({ page }) => {
  await open(page, '/b/AC-0013/pads/cut');
  const alarm = page.getByRole('alert').filter({ hasText: 'Not to be cut' });
  await expect(alarm).toContainText('0.92 mm');
  await expect(page.getByRole('region', { name: 'Cutting template' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print at true size' })).toBeHidden();
  // a gap that somebody measures on the spot: 1.2 mm is closed by a pad of 1.5 mm
  await open(page, '/b/AC-0013/pads');
  await page.getByText('Measured a gap yourself?').click();
  await page.getByLabel(/^Gap over controller 1/).fill('1.2');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('row', { name: /controller 1/ })).toContainText('measured');
  await expect(page.getByRole('row', { name: /controller 1/ })).toContainText('1.2');
  await page.getByRole('button', { name: 'Back to what is kept' }).click();
});

test('a plan is kept as a file and as a page of its own, and opens in another crate', async ({ page, context }) => {
  const made = await page.request.post('/api/crates', { data: { name: 'Elsewhere' } });
  const { slug } = (await made.json()) as { slug: string };
  await open(page, '/judge?host=host-mac-tbt4&port=c1&cable=cable-40g&enclosure=case-m2-40g&drive=nvme-4-2');
  const saved = async (button: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click()
    ]);
    return { name: file.suggestedFilename(), path: await file.path() };
  };
  const html = await saved('Save as a page');
  const alone = await context.newPage();
  await alone.setContent(await readFile(html.path, 'utf8'));
  await expect(alone.getByRole('heading', { level: 2 })).toContainText('Judge a pairing');
  await expect(alone.getByText('How each figure was worked out')).toBeVisible();
  await expect(alone.getByRole('row', { name: /NVMe drive of 2 TB/ })).toBeVisible();
  await alone.close();

  const file = await saved('Save as a plan file');
  await open(page, `/c/${slug}/crate/drive`);
  // an empty crate takes its first parts from the file; what is no plan is said, and nothing is taken over
  await open(page, `/c/${slug}/pair`);
  const chooser = page.locator('input[type=file]');
  await chooser.setInputFiles({ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') });
  await expect(page.getByText('This is no plan file of Ash Crate.')).toBeVisible();
  await chooser.setInputFiles(file.path);
  await expect(page.getByText(/4 parts added/)).toBeVisible();
  await expect(page.getByText('This is no plan file of Ash Crate.')).toBeHidden();
  await expect(page.getByRole('combobox', { name: 'Drive' })).toHaveValue('NVMe drive of 2 TB, PCIe 4, TLC');
});

test('a link can be copied by hand where there is no clipboard', async ({ page }) => {
  await page.addInitScript(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  await open(page, '/judge');
  await page.getByRole('button', { name: 'Copy the link' }).click();
  const field = page.getByRole('textbox', { name: 'Link to this plan' });
  await expect(field).toHaveValue(/\/judge/);
  expect(await field.evaluate((input: HTMLInputElement) => input.selectionEnd === input.value.length)).toBe(true);
});

test('Rank answers before it asks', async ({ page }) => {
  await open(page, '/c/fernhollow/rank');
  const answer = page.getByRole('region', { name: 'Which should I buy?' });
  await expect(answer).toContainText('First because it comes to');
  await expect(answer).toContainText('It would be first');
  await expect(answer).toContainText('Cheapest that does the job');
  await answer.getByRole('link', { name: 'Lay the first two side by side' }).click();
  await expect(page.getByRole('heading', { name: 'Side by side' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Write after the cache/ })).toBeVisible();
});
