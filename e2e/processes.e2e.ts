import { createServer, request } from 'node:http';
import { expect, test } from '@playwright/test';
import { fillLargeCrate } from '../bench/pages/large-crate.ts';
import { Program } from '../scripts/lib/endurance/program.ts';
import { connect } from '../src/lib/server/db/connection.ts';

/** Gives each request to the next of some addresses, as it is. */
async function proxyTo(port: number, addresses: readonly string[]): Promise<{ address: string; close: () => void }> {
  let turn = 0;
  const server = createServer((asked, answer) => {
    const to = addresses[(turn += 1) % addresses.length] as string;
    const passed = request(to + asked.url, { method: asked.method, headers: asked.headers }, (given) => {
      answer.writeHead(given.statusCode ?? 502, given.headers);
      given.pipe(answer);
    });
    passed.on('error', () => answer.writeHead(502).end());
    asked.pipe(passed);
  });
  await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
  return { address: `http://127.0.0.1:${port}`, close: () => server.close() };
}

// Two programs on one database, as behind a proxy that gives each request to either. What one begins the other knows.
test('two processes on one database do everything once, also when one of them is killed', async () => {
  test.setTimeout(300_000);
  const port = 4327;
  process.env.ASH_CRATE_ADDRESS = `http://127.0.0.1:${port}`;
  const first = new Program();
  await first.startOrThrow();
  const second = new Program(undefined, first.databaseUrl);
  const db = connect(first.databaseUrl, { patient: true });
  try {
    await second.startOrThrow();
    const proxy = await proxyTo(port, [first.address, second.address]);
    const crateId = await fillLargeCrate(db, { parts: 300, builds: 300, runs: 100 });
    const { slug } = (await db('crates').where({ id: crateId }).first('slug')) as { slug: string };
    const builds = `/c/${slug}/builds`;
    const page = async ({ address }: Program) => (await fetch(address + builds)).text();
    const judging = () => db('tasks').where({ title: 'Judging builds' }).orderBy('id');

    // Both are asked at once, again and again: one of them judges, and both show it.
    await Promise.all([first, second, first, second].map(page));
    expect(await judging()).toHaveLength(1);
    const [{ id: taskId }] = (await judging()) as [{ id: string }];
    for (const program of [first, second])
      expect((await program.send<{ id: string }>('GET', `/api/tasks/${taskId}`)).data.id).toBe(taskId);
    await expect.poll(() => page(second), { timeout: 60_000 }).not.toContain('being judged');
    expect(await page(first)).not.toContain('being judged');
    expect(await db('judgements').where({ crate_id: crateId, verdict: 9 })).toEqual([]);

    // A task of one is cancelled through the other.
    const job = (await db('jobs').where({ crate_id: crateId }).first('id')) as { id: string };
    const ranking = (
      await first.send<{ id: string }>('POST', `/api/crates/${crateId}/rank`, {
        jobId: job.id,
        everything: true,
        sure: true
      })
    ).data;
    await second.send('POST', `/api/tasks/${ranking.id}/cancel`, {});
    const stateIn = async (program: Program) =>
      (await program.send<{ state: string }>('GET', `/api/tasks/${ranking.id}`)).data.state;
    await expect.poll(() => stateIn(first), { timeout: 30_000 }).toMatch(/cancelled|done/);
    expect(await stateIn(second)).toBe(await stateIn(first));

    // Tags are given once, whoever gives them; what one did the other takes back.
    const { choice } = (await db('builds').where({ crate_id: crateId }).first('choice')) as { choice: object };
    const made = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        (i % 2 ? first : second).send<{ tag: string; id: string; group: string }>(
          'POST',
          `/api/crates/${crateId}/builds`,
          { name: `Made ${i}`, choice }
        )
      )
    );
    expect(made.map(({ status }) => status)).toEqual(made.map(() => 201));
    expect(new Set(made.map(({ data }) => data.tag)).size).toBe(12);
    const undone = await first.send('POST', `/api/crates/${crateId}/undo`, { group: made[0]!.data.group });
    expect(undone.status).toBe(200);
    expect(await db('builds').where({ id: made[0]!.data.id })).toEqual([]);

    // Through the proxy each request may come to another one than the one before.
    for (let i = 0; i < 4; i++) {
      const sent = await fetch(`${proxy.address}/api/crates/${crateId}/jobs`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: proxy.address },
        body: JSON.stringify({ spec: { name: `By proxy ${i}`, purposes: ['scratch'], transferGB: 1, direction: 'in' } })
      });
      expect(sent.status).toBe(201);
      expect(await (await fetch(`${proxy.address}/c/${slug}/jobs?find=proxy`)).text()).toContain(`By proxy ${i}`);
    }
    proxy.close();

    // One is killed while it judges: the other says so, and begins again once the lease has run out.
    await db('judgements').where({ crate_id: crateId }).delete();
    await page(first);
    first.kill('application');
    await first.gone();
    await expect.poll(() => page(second), { timeout: 90_000, intervals: [1000] }).not.toContain('being judged');
    const rows = await db('judgements').where({ crate_id: crateId });
    expect(rows).toHaveLength(311);
    expect(rows.every(({ verdict }) => verdict < 9)).toBe(true);
    const ended = (await judging()) as { state: string; only: string | null }[];
    expect(ended.every(({ only }) => only === null)).toBe(true);
  } finally {
    await db.destroy();
    await second.stop();
    await first.startOrThrow().catch(() => {});
    await first.stop();
  }
});
