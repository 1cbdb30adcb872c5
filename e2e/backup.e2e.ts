import { readFileSync } from 'node:fs';
import { expect, open, test } from './test';

test('a backup is downloaded, something is changed, and the backup brings the old state back', async ({ page }) => {
  await open(page, '/backup');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download a backup' }).click()
  ]);
  const content = readFileSync((await download.path())!);
  await page.request.post('/api/crates', { data: { name: 'After the backup' } });
  await open(page, '/backup');
  const file = page.getByLabel('Backup file');
  await file.setInputFiles({ name: 'broken.gz', mimeType: 'application/gzip', buffer: content.subarray(0, 900) });
  await page.getByLabel(/To go on, type/).fill('replace everything');
  await page.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(page.getByText(/is damaged/)).toBeVisible();
  await file.setInputFiles({ name: 'backup.gz', mimeType: 'application/gzip', buffer: content });
  await page.getByRole('button', { name: 'Restore', exact: true }).click();
  await expect(page).toHaveURL(/\/crates$/, { timeout: 20_000 });
  await expect(page.getByText('After the backup')).toBeHidden();
  await expect(page.getByRole('link', { name: /Fernhollow/ }).first()).toBeVisible();
});
