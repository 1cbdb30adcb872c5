import { chromium, expect, test } from '@playwright/test';
import { Program } from '../scripts/lib/endurance/program.ts';

// A program of its own, killed while a sheet is open: what was ticked meanwhile is there when it is back, once each.
test('five ticks while the server is dead are there after it was started again', async () => {
  test.setTimeout(300_000);
  const program = new Program();
  await program.startOrThrow();
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const page = await browser.newPage();
    await page.goto(`${program.address}/b/AC-0005/assemble`);
    await page.locator('html[data-ready="yes"]').waitFor();
    const ticks = page.locator('#stage-dry-fit li input[type=checkbox]');
    await page.locator('#stage-dry-fit > summary').click();
    await expect(ticks).toHaveCount(5);
    program.kill('application');
    await program.gone();
    for (let n = 0; n < 5; n++) await ticks.nth(n).check();
    await expect(page.getByText('5 entries wait here')).toBeVisible({ timeout: 20_000 });
    await program.startOrThrow();
    const entries = async () => {
      const crates = (await program.send<{ id: string }[]>('GET', '/api/crates')).data;
      const builds = (await program.send<{ id: string; tag: string }[]>('GET', `/api/crates/${crates[0]!.id}/builds`))
        .data;
      const id = builds.find(({ tag }) => tag === 'AC-0005')!.id;
      const sheets = (await program.send<{ id: string }[]>('GET', `/api/crates/${crates[0]!.id}/builds/${id}/sheets`))
        .data;
      const whole = await program.send<{ entries: { stepId: string; done: boolean }[] }>(
        'GET',
        `/api/crates/${crates[0]!.id}/sheets/${sheets[0]!.id}`
      );
      return whole.data.entries.map(({ stepId }) => stepId.split('.')[0]);
    };
    const five = ['cut-pads', 'lay-on-trial', 'dry-fit', 'open-again', 'check-imprint'];
    await expect.poll(async () => (await entries()).slice(-5), { timeout: 40_000 }).toEqual(five);
    // Nothing is doubled, and nothing waits any more.
    await page.waitForTimeout(5000);
    expect((await entries()).filter((code) => code === 'dry-fit')).toHaveLength(1);
    await expect(page.getByText('entries wait here')).toBeHidden();
  } finally {
    await browser.close();
    await program.stop();
  }
});
