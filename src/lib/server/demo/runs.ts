import type { Knex } from 'knex';
import { briefOf } from '#core/protocols/brief';
import { summarise } from '#core/protocols/summary';
import { testedBuild } from '#core/protocols/tested';
import type { Alternative } from '#core/parts/alternative';
import type { Host } from '#core/parts/host';
import type { Conditions } from '#core/results/conditions';
import type { ProtocolId } from '#core/results/protocol-ids';
import type { Settings } from '#core/results/settings';
import { seeded } from '#core/quantities/random';
import type { SimulatedFault } from '#core/simulate/faults';
import { playRig } from '#core/simulate/rig';
import { chainOf, internalChain, readyMadeChain } from '../planning/measuring';
import { listBuilds } from '../repositories/builds';
import { getModel } from '../repositories/models';
import { createRun, type Chain } from '../repositories/runs';
import { listUnits } from '../repositories/units';
import { demoId } from './id';

/** A run of the stand-in rig on a build of the demo: day, seed, and the fault to be found in it. */
type DemoRun = {
  build: string;
  protocol: ProtocolId;
  date: string;
  seed: number;
  fault?: SimulatedFault;
  settings?: Settings;
  conditions?: Conditions;
  /** Another cable than that of the build, by its name, and where the item that was used lies. */
  cable?: { name: string; location: string };
};

/** A cable that goes round in the house, and is the culprit in three builds: to be found across them. */
export const FIELD_BAG = { name: 'Rush C-C 10G', location: 'field bag' } as const;

const SOAK: Settings = { seconds: 1200 };

/** Older than the newest speed check of each build, which stays what its figures come from. */
export const DEMO_RUNS: readonly DemoRun[] = [
  { build: 'Curator’s project drive', protocol: 'acceptance', date: '2026-02-10', seed: 11 },
  { build: 'Curator’s project drive', protocol: 'soak', date: '2026-02-16', seed: 12, settings: SOAK },
  {
    build: 'Curator’s project drive',
    protocol: 'soak',
    date: '2026-08-20',
    seed: 13,
    fault: 'thermal-throttle',
    settings: { seconds: 1800 },
    conditions: { notes: 'Lay under a folder of sheets.' }
  },
  { build: 'Curator’s project drive', protocol: 'loop', date: '2026-09-12', seed: 14 },
  {
    build: 'Curator’s project drive',
    protocol: 'copy',
    date: '2026-09-14',
    seed: 15,
    settings: { GB: 80, files: 920 },
    conditions: { source: 'internal', target: 'drive', files: 920 }
  },
  {
    build: 'Curator’s project drive',
    protocol: 'cross-copy',
    date: '2026-09-15',
    seed: 16,
    settings: { GB: 80, files: 920 }
  },
  {
    build: 'Curator’s project drive',
    protocol: 'retest',
    date: '2026-09-25',
    seed: 17,
    settings: { fillPercent: 50 },
    conditions: { fillPercent: 50 }
  },
  {
    build: 'Curator’s project drive',
    protocol: 'own-program',
    date: '2026-09-27',
    seed: 18,
    conditions: { tool: 'sheet exporter of the house', toolVersion: '4' }
  },
  { build: 'Specimen archive', protocol: 'acceptance', date: '2026-01-12', seed: 21 },
  { build: 'Specimen archive', protocol: 'sweep', date: '2026-01-15', seed: 22, settings: { fillPercent: 5 } },
  {
    build: 'Specimen archive',
    protocol: 'sweep',
    date: '2026-07-15',
    seed: 23,
    fault: 'weak-surface',
    settings: { fillPercent: 60 },
    conditions: { fillPercent: 60, notes: 'After it fell off the trolley.' }
  },
  {
    build: 'Specimen archive',
    protocol: 'copy',
    date: '2026-07-18',
    seed: 24,
    settings: { GB: 200, files: 2100 },
    conditions: { source: 'internal', target: 'drive', files: 2100 }
  },
  { build: 'Label photos', protocol: 'soak', date: '2026-08-01', seed: 31, settings: SOAK },
  { build: 'Label photos', protocol: 'loop', date: '2026-08-03', seed: 32, fault: 'bulk-only' },
  {
    build: 'Label photos',
    protocol: 'soak',
    date: '2026-08-05',
    seed: 33,
    fault: 'background-load',
    settings: SOAK,
    conditions: { indexing: true }
  },
  {
    build: 'Label photos',
    protocol: 'copy',
    date: '2026-08-07',
    seed: 34,
    settings: { GB: 32, files: 8200 },
    conditions: { source: 'drive', target: 'internal', files: 8200 }
  },
  { build: 'Imaging scratch', protocol: 'soak', date: '2026-10-01', seed: 41, settings: SOAK },
  {
    build: 'Imaging scratch',
    protocol: 'soak',
    date: '2026-10-05',
    seed: 42,
    fault: 'pad-no-contact',
    settings: SOAK,
    conditions: { notes: 'After the lid had been off.' }
  },
  { build: 'Imaging scratch', protocol: 'loop', date: '2026-10-07', seed: 43 },
  {
    build: 'Imaging scratch',
    protocol: 'copy',
    date: '2026-10-12',
    seed: 44,
    fault: 'host-disk-cliff',
    settings: { GB: 200, files: 460 },
    conditions: { source: 'drive', target: 'internal', files: 460 }
  },
  {
    build: 'Imaging scratch',
    protocol: 'retest',
    date: '2026-10-20',
    seed: 45,
    fault: 'drive-nearly-full',
    settings: { fillPercent: 90 },
    conditions: { fillPercent: 90 }
  },
  {
    build: 'Front desk exchange',
    protocol: 'soak',
    date: '2026-03-20',
    seed: 51,
    fault: 'unstable-link',
    settings: SOAK
  },
  {
    build: 'Front desk exchange',
    protocol: 'soak',
    date: '2026-03-22',
    seed: 52,
    settings: SOAK,
    conditions: { notes: 'With the short cable.' }
  },
  {
    build: 'Label photos',
    protocol: 'loop',
    date: '2026-08-11',
    seed: 55,
    fault: 'usb2-fallback',
    cable: FIELD_BAG
  },
  {
    build: 'Curator’s project drive',
    protocol: 'loop',
    date: '2026-09-18',
    seed: 56,
    fault: 'usb2-fallback',
    cable: FIELD_BAG
  },
  {
    build: 'Imaging scratch',
    protocol: 'loop',
    date: '2026-10-24',
    seed: 57,
    fault: 'usb2-fallback',
    cable: FIELD_BAG
  },
  { build: 'Bench spare', protocol: 'soak', date: '2026-05-10', seed: 61, settings: SOAK },
  { build: 'Bench spare', protocol: 'loop', date: '2026-05-12', seed: 62, fault: 'usb2-fallback' },
  {
    build: 'Bench spare',
    protocol: 'loop',
    date: '2026-05-14',
    seed: 63,
    fault: 'encryption-cost',
    conditions: { encrypted: true }
  },
  {
    build: 'Bench spare',
    protocol: 'retest',
    date: '2026-06-01',
    seed: 64,
    settings: { fillPercent: 75 },
    conditions: { fillPercent: 75 }
  }
];
/** Internal disks, played on a build of their computer; and what was bought complete. */
export const DEMO_INTERNAL = [
  { host: 'Kiln', date: '2026-04-02', seed: 71 },
  { host: 'Moss', date: '2026-04-03', seed: 72 },
  { host: 'Lantern', date: '2026-10-02', seed: 73 },
  { host: 'Drift', date: '2026-04-04', seed: 74 }
] as const;
export const DEMO_READY_MADE = [
  { name: 'Pebble portable 2TB', date: '2026-06-10', seed: 81, share: 0.93 },
  { name: 'Flint stick 1TB', date: '2026-06-11', seed: 82, share: 0.61 },
  { name: 'Mica card 512GB', date: '2026-06-12', seed: 83, share: 0.88 }
] as const;

const BY = 'scanning desk';
const usual = (host: string): Conditions => ({ power: 'mains', ambientC: 21, osVersion: host, tool: 'stand-in rig' });

type Playable = Awaited<ReturnType<typeof listBuilds>>[number];

type Played = NonNullable<ReturnType<typeof playedAnew>>;
/** What was played once is the same every time: a demo that is reset does not wait for it again. */
const known = new Map<string, Played>();
function played(build: Playable, demo: Omit<DemoRun, 'build' | 'date' | 'cable'>): Played | undefined {
  const key = `${build.name} ${JSON.stringify(demo)}`;
  const made = known.get(key) ?? playedAnew(build, demo);
  if (made) known.set(key, made);
  return made;
}

/** Plays a protocol on a build, from its first to its last step. */
function playedAnew(
  { snapshot, report }: Playable,
  { protocol, settings = {}, seed, fault }: Omit<DemoRun, 'build' | 'date'>
) {
  const brief = briefOf(protocol, settings, testedBuild(snapshot, report));
  const { GB, fillPercent, taskS } = brief.settings;
  const run = playRig(
    snapshot,
    brief.phases,
    {
      seed,
      ...(fault ? { fault } : {}),
      ...(GB === undefined ? {} : { boundedGB: GB }),
      ...(protocol === 'cross-copy' ? { other: { readMBps: 980, writeMBps: 940 } } : {}),
      ...(fillPercent === undefined ? {} : { fillFraction: fillPercent / 100 })
    },
    brief.seconds?.typical ?? 600
  );
  if (!run) return undefined;
  const phases = run.phases.map(({ label, fromS, toS, work }) => ({ label, fromS, toS, work }));
  const timed = run.phases.map(({ work, movedGB, fromS, toS }) => ({ work, GB: movedGB, seconds: toS - fromS }));
  return {
    results: summarise(protocol, timed, run.series, taskS),
    series: run.series,
    settings: brief.settings,
    phases
  };
}

/** The chain of a demo run, with another cable where it was one, and the item of it that was used. */
async function measuredWith(
  db: Knex,
  crateId: string,
  { choice, snapshot, report }: Playable,
  cable: DemoRun['cable']
): Promise<{ chain: Chain; unitIds: string[] }> {
  const chain = chainOf(choice, snapshot, report);
  if (!cable) return { chain, unitIds: [] };
  const cableId = demoId(cable.name);
  const items = await listUnits(db, { crateId, modelId: cableId });
  return {
    chain: { ...chain, cable: cable.name, ids: { ...chain.ids, cableId } },
    unitIds: items.filter(({ unit }) => unit.location === cable.location).map(({ id }) => id)
  };
}

/** Runs on builds, several with a fault to be found. */
async function seedBuildRuns(db: Knex, crateId: string, builds: readonly Playable[]): Promise<void> {
  for (const { build: name, cable, ...demo } of DEMO_RUNS) {
    const build = builds.find((one) => one.name === name);
    const made = build && played(build, demo);
    if (!build || !made) continue;
    const { chain, unitIds } = await measuredWith(db, crateId, build, cable);
    await createRun(db, {
      crateId,
      subject: { build_id: build.id },
      of: build.tag,
      run: {
        protocol: demo.protocol,
        date: demo.date,
        results: made.results,
        settings: made.settings,
        conditions: { ...usual(chain.os), ...(unitIds.length > 0 ? { unitIds } : {}), ...demo.conditions },
        chain,
        simulated: true,
        accepted: []
      },
      series: made.series,
      phases: made.phases,
      by: BY,
      at: `${demo.date}T16:30:00.000Z`
    });
  }
}

/** Results of every protocol, on builds, internal disks and ready-made drives; several with a fault to be found. All of it is simulated. */
export async function seedRuns(db: Knex, crateId: string): Promise<void> {
  const builds = await listBuilds(db, crateId);
  await seedBuildRuns(db, crateId, builds);
  for (const { host, date, seed } of DEMO_INTERNAL) {
    const id = demoId(host);
    const { spec } = await getModel(db, { crateId, id });
    const build = builds.find(({ choice, report }) => choice.hostId === id && report.throughput.read !== null);
    const made = build && played(build, { protocol: 'baseline', seed });
    if (!made) continue;
    const chain = internalChain(id, spec as Host);
    await createRun(db, {
      crateId,
      subject: { host_id: id },
      of: `the internal disk of ${host}`,
      run: {
        protocol: 'baseline',
        date,
        results: made.results,
        settings: made.settings,
        conditions: usual(chain.os),
        chain,
        simulated: true,
        accepted: []
      },
      series: made.series,
      phases: made.phases,
      by: BY,
      at: `${date}T16:30:00.000Z`
    });
  }
  for (const { name, date, seed, share } of DEMO_READY_MADE) {
    const id = demoId(name);
    const spec = (await getModel(db, { crateId, id })).spec as Alternative;
    const random = seeded(seed);
    const rated = (value: number) => Number((value * share * (0.98 + random() * 0.04)).toPrecision(4));
    await createRun(db, {
      crateId,
      subject: { model_id: id },
      of: name,
      run: {
        protocol: 'pair-check',
        date,
        results: { readMBps: rated(spec.readMBps ?? 100), writeMBps: rated(spec.writeMBps ?? 100) },
        conditions: usual('Linux 6.1'),
        chain: readyMadeChain(id, name),
        simulated: true,
        accepted: []
      },
      by: BY,
      at: `${date}T16:30:00.000Z`
    });
  }
}
