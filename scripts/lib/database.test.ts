import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { startDatabase, type Database } from './database';

let folder: string;
let first: Database;
const pid = () => (JSON.parse(readFileSync(join(folder, 'mariadb.json'), 'utf8')) as { pid: number }).pid;
async function ask(url: string, sql: string): Promise<unknown> {
  const connection = await mysql.createConnection(url);
  try {
    const [rows] = await connection.query(sql);
    return rows;
  } finally {
    await connection.end();
  }
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'ash-crate-db-'));
  first = await startDatabase(folder);
}, 60_000);
afterAll(async () => {
  await first.stop();
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 });
});

it('listens on the loopback only, behind a password that only its owner can read', async () => {
  expect(new URL(first.url).hostname).toBe('127.0.0.1');
  expect(await ask(first.url, "show variables like 'bind_address'")).toMatchObject([{ Value: '127.0.0.1' }]);
  for (const file of ['mariadb.secret', 'mariadb-init.sql', 'mariadb.json'])
    expect(statSync(join(folder, file)).mode & 0o777, file).toBe(0o600);
  const wrong = new URL(first.url);
  wrong.password = 'guess';
  await expect(ask(wrong.href, 'select 1')).rejects.toThrow(/denied/);
}, 20_000);

it('is taken over, not started twice, while it still runs after an app that was killed', async () => {
  const before = pid();
  const second = await startDatabase(folder);
  second.leave();
  expect([second.adopted, second.url, pid()]).toEqual([true, first.url, before]);
}, 20_000);

it('killed hard, it is back by itself at the same address with everything that was committed', async () => {
  await ask(first.url, 'create table kept (n int)');
  await ask(first.url, 'insert into kept values (42)');
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => {});
  const before = pid();
  process.kill(before, 'SIGKILL');
  await expect
    .poll(() => ask(first.url, 'select n from kept').catch(() => 'away'), { timeout: 15_000, interval: 50 })
    .toEqual([{ n: 42 }]);
  expect(pid()).not.toBe(before);
  quiet.mockRestore();
}, 20_000);

describe('what a start finds', () => {
  const file = (name: string) => join(folder, name);
  const again = async () => {
    const found = await startDatabase(folder);
    found.leave();
    return { adopted: found.adopted, pid: pid(), answer: await ask(found.url, 'select 1 as one') };
  };
  it.each([
    ['an empty note of the last start', () => writeFileSync(file('mariadb.json'), '')],
    ['half a note', () => writeFileSync(file('mariadb.json'), '{"port":33')],
    ['no note', () => rmSync(file('mariadb.json'))],
    [
      'a note that names a process of somebody else',
      () => writeFileSync(file('mariadb.json'), `{"port":1,"pid":${process.pid}}`)
    ]
  ])(
    '%s: the database that runs is found by itself and taken over',
    async (_, spoil) => {
      const before = pid();
      spoil();
      expect(await again()).toEqual({ adopted: true, pid: before, answer: [{ one: 1 }] });
    },
    20_000
  );

  it('a password that was lost or torn is replaced, and the database told', async () => {
    writeFileSync(file('mariadb.secret'), '12');
    const before = pid();
    const quiet = vi.spyOn(console, 'error').mockImplementation(() => {});
    const found = await startDatabase(folder);
    quiet.mockRestore();
    expect(found.adopted).toBe(false);
    expect(pid()).not.toBe(before);
    expect(readFileSync(file('mariadb.secret'), 'utf8')).toMatch(/^[0-9a-f]{48}$/);
    expect(await ask(found.url, 'select n from kept')).toEqual([{ n: 42 }]);
    first.leave();
    first = found;
  }, 40_000);
});
