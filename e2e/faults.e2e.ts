import { readFileSync } from 'node:fs';
import { expect, open, pick, test } from './test';

const databasePid = () => (JSON.parse(readFileSync('.data/e2e/mariadb.json', 'utf8')) as { pid: number }).pid;

test('the database is killed under an open page: it says so, keeps what was typed, and recovers by itself', async ({
  page
}) => {
  await open(page, '/c/fernhollow/pair');
  await pick(page, 'Computer and port', 'Kiln · front USB4');
  await pick(page, 'Enclosure', 'Trivet 40');
  await pick(page, 'Drive', 'Chert T4 2TB');
  await page.getByRole('button', { name: 'Save as build' }).click();
  await page.getByLabel('Name of the build').fill('Survives');
  const before = databasePid();
  process.kill(before, 'SIGKILL');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  // either it was saved by the new database, or the dialog says why not and still holds the name
  const said = page.getByText('The database is not answering', { exact: false }).first();
  const done = page.getByRole('heading', { name: 'Survives' });
  await expect(said.or(done)).toBeVisible();
  if (!(await done.isVisible())) {
    await expect(page.getByLabel('Name of the build')).toHaveValue('Survives');
    await expect.poll(async () => (await page.request.get('/api/health')).status(), { timeout: 20_000 }).toBe(200);
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(done).toBeVisible();
  }
  expect(databasePid()).not.toBe(before);
});

test('a page asked for while the database is away shows itself when it is back', async ({ page }) => {
  const health = async () => (await page.request.get('/api/health')).status();
  await expect.poll(health).toBe(200);
  process.kill(databasePid(), 'SIGKILL');
  const from = Date.now();
  const answer = await page.goto('/c/fernhollow');
  if (answer!.status() === 503)
    await expect(page.getByText('The database is not answering', { exact: false })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible({ timeout: 20_000 });
  console.log(`back after ${((Date.now() - from) / 1000).toFixed(1)} s`);
  // nothing that was committed is lost
  await expect(page.getByText('Scan-day carrier')).toBeVisible();
});

test('an open page notices that the database is away', async ({ page }) => {
  await page.route('**/api/health', (route) => route.fulfill({ status: 503, json: { error: {} } }));
  await open(page, '/c/fernhollow');
  await expect(page.getByRole('alert')).toContainText('The database is not answering', { timeout: 12_000 });
  await page.unroute('**/api/health');
  await expect(page.getByRole('alert')).toBeHidden({ timeout: 12_000 });
});

test('a database that hangs is told of within its limit in time, and goes on when it can', async ({ page }) => {
  test.setTimeout(120_000);
  const health = async () => (await page.request.get('/api/health', { timeout: 40_000 })).status();
  await expect.poll(health).toBe(200);
  const pid = databasePid();
  process.kill(pid, 'SIGSTOP');
  try {
    const from = Date.now();
    const answer = await page.goto('/c/fernhollow', { timeout: 40_000 });
    expect(answer!.status()).toBe(503);
    expect(Date.now() - from).toBeLessThan(30_000);
    await expect(page.getByText('The database is not answering', { exact: false }).first()).toBeVisible();
  } finally {
    process.kill(pid, 'SIGCONT');
  }
  await expect.poll(health, { timeout: 30_000 }).toBe(200);
  await expect(page.getByRole('heading', { name: 'Today' })).toBeVisible({ timeout: 20_000 });
  expect(databasePid()).toBe(pid);
});
