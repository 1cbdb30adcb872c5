import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { Program } from '../scripts/lib/endurance/program';

/** A small disk of its own; undefined where this machine does not let one be mounted. */
function smallDisk(): string | undefined {
  const folder = mkdtempSync(join(tmpdir(), 'ash-crate-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=300m', 'tmpfs', folder], { stdio: 'ignore' });
    return folder;
  } catch {
    rmSync(folder, { recursive: true, force: true });
    return undefined;
  }
}

test('a full disk is named with its free bytes, nothing acknowledged is lost, and it goes on by itself', async () => {
  test.setTimeout(180_000);
  const disk = smallDisk();
  test.skip(
    disk === undefined,
    'mounting a small disk is not allowed here; the injected ENOSPC of db/errors.test.ts stands for it'
  );
  const program = new Program(disk);
  const free = () => {
    const { bavail, bsize } = statfsSync(disk!);
    return bavail * bsize;
  };
  try {
    expect(await program.start(), program.said).toBe(true);
    const crate = String((await program.send('POST', '/api/crates', { name: 'Full' })).data.id);
    const spec = (name: string) => ({ kind: 'drive', name, media: 'nvme', formFactor: 'm2', capacityTB: 1 });
    const part = String((await program.send('POST', `/api/crates/${crate}/models`, { spec: spec('Base') })).data.id);
    // what somebody else keeps there, and takes away in the end
    writeFileSync(join(disk!, 'somebody else'), Buffer.alloc(60_000_000));
    let acknowledged = 0;
    let refused: { status: number; data: Record<string, unknown> } | undefined;
    for (let i = 0; i < 60 && !refused; i++) {
      const content = randomBytes(4_000_000).toString('base64');
      const body = {
        subjectTable: 'models',
        subjectId: part,
        name: `${i}.bin`,
        type: 'application/octet-stream',
        content
      };
      const answer = await program.send('POST', `/api/crates/${crate}/attachments`, body);
      if (answer.status === 201) acknowledged += 1;
      else refused = answer;
    }
    expect(refused!.status).toBe(507);
    const { message, code } = (refused!.data as { error: { message: string; code: string } }).error;
    expect(code).toBe('disk-full');
    expect(message).toMatch(/^The disk that holds the data folder is full \(\d+ MB free, 24 MB needed\)/);

    // to the last byte, by something else; and the database ends in it
    writeFileSync(join(disk!, 'junk'), Buffer.alloc(Math.max(0, free() - 4096)));
    const before = program.databasePid;
    program.kill('database');
    await expect
      .poll(async () => (await program.send('GET', '/api/health')).data as { error?: { message: string } }, {
        timeout: 20_000
      })
      .toMatchObject({
        error: { message: expect.stringMatching(/disk that holds the data folder is full/) }
      });
    const page = await fetch(`${program.address}/c/fernhollow`);
    expect([page.status, await page.text()]).toEqual([
      503,
      expect.stringContaining('disk that holds the data folder is full')
    ]);
    await new Promise((done) => setTimeout(done, 4000));
    // not started again and again while there is no room
    expect(program.said.match(/The database ended/g)).toHaveLength(1);

    rmSync(join(disk!, 'junk'));
    rmSync(join(disk!, 'somebody else'));
    await expect.poll(async () => (await program.send('GET', '/api/health')).status, { timeout: 30_000 }).toBe(200);
    expect(program.databasePid).not.toBe(before);
    const files = (await program.send<object[]>('GET', `/api/crates/${crate}/attachments`)).data;
    expect(files).toHaveLength(acknowledged);
  } finally {
    await program.stop().catch(() => {});
    execFileSync('umount', ['-l', disk!]);
    rmSync(disk!, { recursive: true, force: true });
  }
});
