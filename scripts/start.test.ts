import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));
let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'ash-crate-'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const start = (env: Record<string, string>) =>
  spawnSync(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env: { ...process.env, ASH_CRATE_DATA: folder, ...env },
    encoding: 'utf8',
    timeout: 30_000
  });

describe('a start that cannot be', () => {
  it.each([
    [{ HOST: '0.0.0.0' }, 'HOST=0.0.0.0 is refused: Ash Crate serves this machine only'],
    [{ HOST: '192.168.1.5' }, 'HOST=192.168.1.5 is refused'],
    [{ PORT: 'many' }, 'PORT=many cannot be used'],
    [{ PORT: '70000' }, 'PORT=70000 cannot be used'],
    [{ DATABASE_URL: 'http://x' }, 'DATABASE_URL=http://x cannot be used']
  ])('%j is refused in one sentence', (env, sentence) => {
    const { status, stderr } = start(env);
    expect(status).toBe(1);
    expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stderr).toContain(sentence);
  });

  it('a taken port is named', async () => {
    const other = createServer();
    await new Promise<void>((done) => other.listen(0, '127.0.0.1', done));
    const { port } = other.address() as AddressInfo;
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, ASH_CRATE_DATA: folder, PORT: String(port) }
    });
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const status = await new Promise((done) => child.on('close', done));
    other.close();
    expect(status).toBe(1);
    expect(said.trim()).toBe(`Port ${port} is taken by another program; set PORT to a free one.`);
  });

  it('a data folder in use is named, and its holder is left alone', async () => {
    const { lockDataFolder } = await import('./lib/lock');
    const lock = await lockDataFolder(folder, 'http://127.0.0.1:1');
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, ASH_CRATE_DATA: folder, PORT: '4399' }
    });
    let said = '';
    child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const status = await new Promise((done) => child.on('close', done));
    expect(status).toBe(1);
    expect(said.trim()).toBe(`Ash Crate is already running on the data folder ${folder}, at http://127.0.0.1:1.`);
    expect(lock.listening).toBe(true);
    await new Promise((done) => lock.close(done));
  });
});
