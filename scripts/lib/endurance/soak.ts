import { seeded } from '../../../core/quantities/random.ts';
import { setTimeout as sleep } from 'node:timers/promises';
import { argumentsOf, Program } from './program.ts';

/** Many mixed requests, then rest: does it grow? */
const { count, seed } = argumentsOf(20_000);
const random = seeded(seed);
const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
/** After so many, everything that is loaded on first use is there. */
const FIRST = Math.min(1000, Math.floor(count / 2));
const REST_MS = 10_000;
/** By so much it may be larger at the end. */
const GROWTH = 0.3;
const FILES = 12;
const THREADS = 4;

const program = new Program();
await program.startOrThrow();
const crate = String((await program.send('POST', '/api/crates', { name: 'Soak' })).data.id);
const crates = await program.send<{ id: string; demo: boolean }[]>('GET', '/api/crates');
const demo = crates.data.find((c) => c.demo)!.id;
const PAGES = ['', '/crate/drive', '/builds', '/pair', '/items', '/jobs', '/prices', '/history', '/rank', '/together'];
const { data: builds } = await program.send<{ choice: object; tag: string }[]>('GET', `/api/crates/${demo}/builds`);

async function one(i: number): Promise<number> {
  const kind = random();
  if (kind < 0.35) return (await program.send('GET', `/c/fernhollow${pick(PAGES)}`)).status;
  if (kind < 0.45)
    return (await program.send('GET', `/b/${pick(builds).tag}/${pick(['pair', 'buy', 'pads', 'measure', 'log'])}`))
      .status;
  if (kind < 0.6)
    return (await program.send('GET', `/api/crates/${demo}/${pick(['models', 'units', 'builds', 'quotes', 'events'])}`))
      .status;
  if (kind < 0.8) {
    const spec = { kind: 'drive', name: `S${i}`, media: 'nvme', formFactor: 'm2', capacityTB: 1 };
    const made = await program.send('POST', `/api/crates/${crate}/models`, { spec });
    const undone = await program.send('POST', `/api/crates/${crate}/undo`, { group: made.data.group });
    return Math.max(made.status, undone.status);
  }
  if (kind < 0.95) {
    const { hostId, portId, cableId, enclosureId, driveId } = pick(builds).choice as Record<string, string>;
    const ref = (id: string | undefined) => (id ? { id } : undefined);
    return (
      await program.send('POST', '/api/plan', {
        crateId: demo,
        host: ref(hostId),
        portId,
        ...(cableId ? { cable: ref(cableId) } : {}),
        enclosure: ref(enclosureId),
        drive: ref(driveId)
      })
    ).status;
  }
  return (await program.send('GET', `/api/crates/${demo}/search?q=${pick(['trivet', 'D-00', 'kiln'])}`)).status;
}

const AT_ONCE = 4;
let failed = 0;
async function run(from: number, to: number): Promise<void> {
  for (let i = from; i < to; i += AT_ONCE)
    for (const status of await Promise.all(Array.from({ length: Math.min(AT_ONCE, to - i) }, (_, n) => one(i + n))))
      if (status === 0 || status >= 400) failed += 1;
}
await run(0, FIRST);
await sleep(Math.min(REST_MS, count));
const early = program.size;
await run(FIRST, count);
await sleep(Math.min(REST_MS, count));
const late = program.size;
const grown = late.MB / early.MB - 1;
const say = ({ MB, files, threads }: typeof late) => `${MB.toFixed(0)} MB, ${files} files, ${threads} threads`;
console.log(
  `${count} requests, seed ${seed}: after ${FIRST} ${say(early)}; at the end, after rest, ${say(late)}: ${(grown * 100).toFixed(0)} % more memory; ${failed} failed`
);
await program.stop();
const bad = grown > GROWTH || late.files - early.files > FILES || late.threads - early.threads > THREADS || failed > 0;
process.exit(bad ? 1 : 0);
