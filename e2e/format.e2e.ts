import type { Page } from '@playwright/test';
import { crateId, expect, open, test } from './test';

/** A crate of its own for a test: a computer of a system, a drive in a case, and a build that is put together. */
async function begun(page: Page, name: string, os: { family: string; version?: string }) {
  const demo = await crateId(page, 'fernhollow');
  const models = (await (await page.request.get(`/api/crates/${demo}/models`)).json()) as {
    spec: { id?: string; name: string; os?: object };
  }[];
  const made = async <T>(path: string, data: object) => {
    const answer = await page.request.post(path, { data });
    expect(answer.status(), await answer.text()).toBeLessThan(300);
    return (await answer.json()) as T & { id: string };
  };
  const { id: crate, slug } = await made<{ slug: string }>('/api/crates', { name });
  const modelId = async (wanted: string, more: object = {}) => {
    const { id: _id, ...spec } = models.find((model) => model.spec.name === wanted)!.spec;
    return (await made(`/api/crates/${crate}/models`, { spec: { ...spec, ...more } })).id;
  };
  const choice = {
    hostId: await modelId('Kiln', { os }),
    portId: 'u4',
    cableId: await modelId('Withy 0.8 40G'),
    enclosureId: await modelId('Trivet 40'),
    driveId: await modelId('Chert T4 2TB')
  };
  const build = await made<{ tag: string; version: number }>(`/api/crates/${crate}/builds`, {
    name,
    stage: 'assembled',
    choice
  });
  return { crate, slug, choice, ...build, made };
}

const device = (name: string, size: number, serial: string | null, more: object = {}) => ({
  name,
  size,
  type: 'disk',
  tran: 'usb',
  serial,
  mountpoints: [null],
  ...more
});
const ROOT = device('nvme0n1', 1_000_204_886_016, 'MQ1T-55K20', {
  tran: 'nvme',
  children: [{ name: 'nvme0n1p1', size: 1, type: 'part', mountpoints: ['/'] }]
});
const listing = (...devices: object[]) => JSON.stringify({ blockdevices: [ROOT, ...devices] });
const CHERT = 2_000_398_934_016;
const commands = (page: Page) => page.getByRole('group', { name: 'A line for a terminal' });
const lastCommand = (page: Page) => commands(page).last();

test('by keyboard alone: from a listing to the recorded format', async ({ page }) => {
  const { tag, slug } = await begun(page, 'By keys', { family: 'linux', version: '6.1' });
  await open(page, `/b/${tag}/format/guard`);
  await page.getByLabel('What the system lists').focus();
  await page.keyboard.insertText(listing(device('sda', CHERT, 'FH24A07733')));
  await expect(page.getByText('/dev/sda is probably the drive of this build.')).toBeVisible();
  // on to the identity, past the device that is chosen already
  for (let n = 0; n < 12; n++) {
    await page.keyboard.press('Tab');
    if (
      await page
        .getByLabel('The end of its serial number', { exact: false })
        .evaluate((el) => el === document.activeElement)
    )
      break;
  }
  await expect(lastCommand(page)).toContainText('/dev/DEVICE');
  await page.keyboard.type('7733');
  await expect(page.getByText('/dev/sda is the device whose serial number was typed', { exact: false })).toBeVisible();
  await expect(lastCommand(page)).toContainText("mkfs.ext4 -L 'By-keys' /dev/sda1");
  await expect(lastCommand(page)).toContainText("= 'FH24A07733' ]");
  // the record: its field is reached from the pages of the station by arrows
  await page.getByRole('link', { name: 'Wrong-disk guard' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Before and after' })).toBeVisible();
  await page.getByLabel('Free, as the system reports it').focus();
  await page.keyboard.type('1.868 TB');
  await page.getByRole('button', { name: 'Keep the record' }).press('Enter');
  await expect(page.getByText('ext4, GPT, named By-keys, 1.87 TB free')).toBeVisible();
  await expect(page.getByText('The free room is as expected.')).toBeVisible();
  await page.getByRole('button', { name: `Mark ${tag} as formatted` }).press('Enter');
  await expect(page.getByRole('link', { name: /Next: measure it/ })).toBeVisible();
  await open(page, `/c/${slug}`);
  await expect(page.getByRole('listitem').filter({ hasText: tag })).toContainText('formatted');
});

test('look-alikes are refused, then told apart', async ({ page }) => {
  const { tag } = await begun(page, 'Look-alikes', { family: 'linux', version: '6.1' });
  await open(page, `/b/${tag}/format/guard`);
  const list = page.getByLabel('What the system lists');
  const paste = async (text: string) => {
    await list.fill(text);
    await expect(page.getByRole('heading', { name: '2. The device' })).toBeVisible();
  };
  // no serial, one size: neither bytes nor anything else unlocks
  await paste(listing(device('sda', CHERT, null), device('sdb', CHERT, null)));
  await page.getByRole('radio', { name: 'This one: /dev/sda' }).check();
  await page.getByLabel('Its exact size in bytes').fill(String(CHERT));
  await expect(page.getByText('another one has its size. Unplug one of them', { exact: false })).toBeVisible();
  await expect(lastCommand(page)).toContainText('/dev/DEVICE');
  // one serial for both: the same
  await paste(listing(device('sda', CHERT, 'FH24A07733'), device('sdb', CHERT, 'FH24A07733')));
  await page.getByRole('radio', { name: 'This one: /dev/sdb' }).check();
  await page.getByLabel('The end of its serial number', { exact: false }).fill('07733');
  await expect(page.getByText('Two devices show this serial number.', { exact: false })).toBeVisible();
  await expect(lastCommand(page)).toContainText('/dev/DEVICE');
  // one was unplugged
  await paste(listing(device('sda', CHERT, null)));
  await page.getByLabel('Its exact size in bytes').fill(String(CHERT));
  await expect(lastCommand(page)).toContainText('/dev/sda1');
  // what is to be erased is never the disk of the system
  await expect(page.getByRole('radio', { name: 'This one: /dev/nvme0n1' })).toBeDisabled();
});

test('a house rule changes the advice, and is named', async ({ page }) => {
  const { tag, slug, crate } = await begun(page, 'By rule', { family: 'windows', version: '11' });
  await open(page, `/b/${tag}/format`);
  const advice = page.getByRole('region', { name: 'Advice' });
  await expect(advice.locator('.first')).toContainText('NTFS');
  await expect(advice.getByRole('link', { name: 'house rule “Windows drive”' })).toHaveAttribute(
    'href',
    `/c/${slug}/house-rules`
  );
  const { version } = (await (await page.request.get(`/api/crates/${crate}`)).json()) as { version: number };
  const put = await page.request.put(`/api/crates/${crate}/house-rules`, {
    data: { version, rules: { 'windows-drive': 'exfat' } }
  });
  expect(put.status()).toBe(200);
  await page.reload();
  await page.locator('html[data-ready="yes"]').waitFor();
  await expect(advice.locator('.first')).toContainText('exFAT');
  await expect(
    advice
      .getByText('You lose nothing', { exact: false })
      .or(advice.getByText('You lose ', { exact: false }))
      .first()
  ).toBeVisible();
  await expect(advice.getByRole('link', { name: 'house rule “Windows drive”' })).toBeVisible();
});

test('while the commands are open somebody changes the build, or plugs something: locked again', async ({ page }) => {
  test.setTimeout(120_000);
  const { tag, crate, id } = await begun(page, 'Changed meanwhile', { family: 'linux', version: '6.1' });
  await open(page, `/b/${tag}/format/guard`);
  const plug = page.getByRole('button', { name: 'Plug or pull the next' });
  await expect(page.getByText('A stand-in, not this computer', { exact: false })).toBeVisible();
  for (let n = 0; n < 2; n++) {
    const event = await page.getByText('A stand-in, not this computer', { exact: false }).textContent();
    await plug.click();
    await expect(page.getByText('A stand-in, not this computer', { exact: false })).not.toHaveText(event ?? '');
  }
  await page.getByRole('button', { name: 'Take this list into the guard' }).click();
  const identity = page.getByLabel('The end of its serial number', { exact: false });
  await identity.fill('07733');
  await expect(lastCommand(page)).toContainText('/dev/sda1');
  await plug.click();
  await expect(page.getByText('A device was plugged or pulled since', { exact: false })).toBeVisible();
  await expect(lastCommand(page)).toContainText('/dev/DEVICE');

  await page.getByLabel('What the system lists').fill(listing(device('sda', CHERT, 'FH24A07733')));
  await identity.fill('07733');
  await expect(lastCommand(page)).toContainText('/dev/sda1');
  const build = (await (await page.request.get(`/api/crates/${crate}/builds/${id}`)).json()) as { version: number };
  const put = await page.request.put(`/api/crates/${crate}/builds/${id}/stage`, {
    data: { version: build.version, stage: 'formatted' }
  });
  expect(put.status()).toBe(200);
  await expect(page.getByText('Somebody changed this build since', { exact: false })).toBeVisible({ timeout: 30_000 });
  await expect(lastCommand(page)).toContainText('/dev/DEVICE');
});

test('volumes by keys and by typing; what cannot be is said at its field, and the sheet follows', async ({ page }) => {
  const { tag } = await begun(page, 'Volumes', { family: 'linux', version: '6.1' });
  await open(page, `/b/${tag}/format`);
  const volumes = page.getByRole('region', { name: 'Volumes' });
  await volumes.getByRole('button', { name: 'Add a volume for backups' }).click();
  await expect(volumes.getByText('Two volumes on one disk are one copy', { exact: false })).toBeVisible();
  const border = volumes.getByRole('slider', { name: 'Border between Volumes and BACKUP' });
  await expect(border).toHaveAttribute('aria-valuenow', '1000');
  await border.press('ArrowRight');
  // a hundredth of 2000 GB
  await expect(border).toHaveAttribute('aria-valuenow', '1020');
  await volumes.getByLabel('Size, GB').first().fill('2500');
  await volumes.getByLabel('Size, GB').first().press('Tab');
  await expect(volumes.getByText('is 500', { exact: false })).toBeVisible();
  await volumes.getByLabel('Size, GB').first().fill('1500');
  await volumes.getByLabel('Size, GB').first().press('Tab');
  await expect(border).toHaveAttribute('aria-valuenow', '1500');
  await page.getByLabel('Name of the volume').fill('two words');
  await page.getByLabel('Name of the volume').press('Tab');
  await expect(page.getByText('It may hold letters A to Z', { exact: false }).first()).toBeVisible();
  await page.getByLabel('Name of the volume').fill('DEEP');
  const kept = page.waitForResponse((response) => response.url().endsWith('/checks'));
  await page.getByLabel('Name of the volume').press('Tab');
  await kept;
  await open(page, `/b/${tag}/format/sheet`);
  await expect(page.getByText('Name it DEEP.').first()).toBeAttached();
  await expect(page.getByText(/Make the partitions in this order: “Volumes”, ext4, 1500/).first()).toBeAttached();
});

test('several alike: a sheet for each, and the guard of each looks for its own serial number', async ({ page }) => {
  const { tag, crate, choice, made } = await begun(page, 'Alike', { family: 'linux', version: '6.1' });
  for (const serial of ['CH-AA-10417', 'CH-AA-10418'])
    await made(`/api/crates/${crate}/units`, {
      modelId: choice.driveId,
      tag: serial.slice(-5),
      state: 'owned',
      serial
    });
  await open(page, `/b/${tag}/format/sheet`);
  for (const item of ['10417', '10418']) await page.getByText(item, { exact: true }).click();
  await page.getByRole('button', { name: 'Begin 2 sheets' }).click();
  await expect(page.getByText('Sheets of this build:')).toBeVisible();
  await page.getByRole('link', { name: '10417', exact: true }).click();
  // A tick goes to the sheet that is shown: both begin with the same stage, so its name tells which one that is.
  await expect(page.locator('strong', { hasText: /^10417$/ })).toBeVisible();
  await expect(page.getByText('Stage 1 of 4: Before anything is erased.', { exact: false })).toBeVisible();
  await page.getByRole('checkbox', { name: /^Look at what is on the drive/ }).check();
  await expect(page.getByText('1 of 20 steps', { exact: false })).toBeVisible();
  // the other one is as it was
  await page.getByRole('link', { name: '10418', exact: true }).click();
  await expect(page.locator('strong', { hasText: /^10418$/ })).toBeVisible();
  await expect(page.getByText('0 of 20 steps', { exact: false })).toBeVisible();
  await open(page, `/b/${tag}/format/guard`);
  await page.getByLabel('Which item is it?').selectOption({ label: '10418, CH-AA-10418' });
  await page
    .getByLabel('What the system lists')
    .fill(listing(device('sda', CHERT, 'CH-AA-10417'), device('sdb', CHERT, 'CH-AA-10418')));
  await expect(page.getByText('/dev/sdb is the drive of this build.')).toBeVisible();
});

test.describe('over the API', () => {
  test('a listing of 5 MB is refused in words, one of a megabyte is read', async ({ page }) => {
    await open(page, '/');
    const large = await page.request.post('/api/listing', { data: { text: 'a'.repeat(5_000_000) } });
    expect(large.status()).toBe(413);
    expect(((await large.json()) as { error: { message: string } }).error.message).toMatch(/larger than 4 MB/);
    const much = await page.request.post('/api/listing', {
      data: { text: `${listing(device('sda', CHERT, 'FH24A07733'))}\n${' '.repeat(900_000)}` }
    });
    expect(((await much.json()) as { match: { device: string } }).match.device).toBeNull();
    const over = await page.request.post('/api/listing', { data: { text: 'a'.repeat(1_000_001) } });
    expect(over.status()).toBe(400);
  });
  test('attached disks say what they are, and come as events', async ({ page }) => {
    const report = (await (await page.request.get('/api/disks?step=2')).json()) as {
      source: string;
      devices: object[];
    };
    expect(report.source).toBe('simulated');
    expect(report.devices).toHaveLength(2);
    await open(page, '/');
    const first = await page.evaluate(
      () =>
        new Promise<string>((resolve) => {
          const events = new EventSource('/api/disks/events?step=3');
          events.onmessage = ({ data }) => {
            events.close();
            resolve(String(data));
          };
        })
    );
    expect((JSON.parse(first) as { devices: object[] }).devices).toHaveLength(3);
  });
});
