import type { Knex } from 'knex';
import { eraseFor, type DriveOfBuild, type EraseReport, type EraseRequest } from '#core/erase/unlock';
import type { FormatRecord } from '#core/format/record';
import { LINK_MODES } from '#core/facts/link-modes';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { systemDisks } from '../machine/disks/system';
import { simulatedDisks, type SimulatedSystem } from '../machine/disks/simulated';
import type { DiskSource } from '../machine/disks/source';
import { quoteForShell } from '../machine/quote';
import { refuse } from '../problems/problem';
import { getBuild, type StoredBuild } from '../repositories/builds';
import { getCrate } from '../repositories/crates';
import { listObservations } from '../repositories/observations';
import { listUnits } from '../repositories/units';
import { buildNow, loadLibrary } from './planning';

/** An item that the drive of a build may be, with what tells it. */
export type DriveItem = { id: string; tag: string; serial?: string; caseSerial?: string; bytes?: number };

/** Items that the drive of a build is or can be: those in it, else the free ones. */
export async function driveItems(db: Knex, build: StoredBuild): Promise<DriveItem[]> {
  const units = await listUnits(db, { crateId: build.crateId, modelId: build.choice.driveId });
  const own = units.filter(({ unit }) => unit.buildId === build.id);
  const free = units.filter(({ unit }) => unit.state === 'owned' && unit.buildId === undefined);
  return (own.length > 0 ? own : free).map(({ id, unit }) => ({
    id,
    tag: unit.tag,
    ...(unit.serial ? { serial: unit.serial } : {}),
    ...(unit.caseSerial ? { caseSerial: unit.caseSerial } : {}),
    ...(unit.capacityBytes ? { bytes: unit.capacityBytes } : {})
  }));
}

/**
 * Gives the commands that erase a device, where what was typed proves which one it is, and where it can be the drive of its build.
 * @throws Problem `bad-input` where the system does not make this filesystem; `not-found` without such a build
 */
export async function eraseChecked(
  db: Knex,
  {
    buildId,
    buildVersion,
    ...request
  }: EraseRequest & { buildId?: string | undefined; buildVersion?: number | undefined },
  now: string
): Promise<EraseReport> {
  const ofBuild = buildId === undefined ? undefined : await driveOfBuild(db, buildId, buildVersion);
  try {
    return eraseFor(request, now, quoteForShell, ofBuild);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    refuse([{ path: 'filesystem', message: 'is not made by this system with its own tools' }]);
    throw error;
  }
}

/** What the drive of a build is known by. @throws Problem `not-found` */
async function driveOfBuild(db: Knex, buildId: string, seen: number | undefined): Promise<DriveOfBuild> {
  const build = await getBuild(db, { id: buildId });
  const [library, items] = await Promise.all([loadLibrary(db, build.crateId, [build.choice]), driveItems(db, build)]);
  return {
    tag: build.tag,
    capacityTB: buildNow(library, build).snapshot.drive.capacityTB,
    serials: items.flatMap(({ serial, caseSerial }) => [serial, caseSerial].filter((text) => text !== undefined)),
    changed: seen !== undefined && build.version !== seen
  };
}

/** The newest record of a format of a build. */
export async function formatOf(
  db: Knex,
  args: { crateId: string; buildId: string }
): Promise<(FormatRecord & { date: string }) | undefined> {
  for (const seen of await listObservations(db, args))
    if (seen.kind === 'formatted') return { ...seen.seen, date: seen.date };
  return undefined;
}

/** Where the attached disks of a build are read from: this machine where its computer is this one, else the stand-in. */
export async function diskSource(
  db: Knex,
  args: { buildId?: string | undefined; step?: number | undefined; system?: SimulatedSystem | undefined }
): Promise<DiskSource> {
  const { buildId, step = 0, system } = args;
  if (buildId === undefined)
    return simulatedDisks({ model: 'Chert T4 2TB', capacityTB: 2, linkGbps: 10 }, step, system);
  const build = await getBuild(db, { id: buildId });
  const [crate, library] = await Promise.all([
    getCrate(db, { id: build.crateId }),
    loadLibrary(db, build.crateId, [build.choice])
  ]);
  const { snapshot, report } = buildNow(library, build);
  if (
    !crate.demo &&
    snapshot.host.runsHere === true &&
    snapshot.host.os.family === 'linux' &&
    process.platform === 'linux'
  )
    return systemDisks();
  const { family } = snapshot.host.os;
  const own = family === 'windows' || family === 'macos' ? family : 'linux';
  return simulatedDisks(await standIn(db, build, snapshot, report), step, system ?? own);
}

async function standIn(db: Knex, build: StoredBuild, { drive }: PlanInput, { link }: PlanReport) {
  const [item] = await driveItems(db, build);
  return {
    model: drive.name,
    capacityTB: drive.capacityTB,
    serial: item?.serial ?? item?.caseSerial,
    linkGbps: link.mode ? LINK_MODES[link.mode].lineGbps : 5
  };
}
