import type { Knex } from 'knex';
import type { Expected } from '#core/listing/device';
import { plainSerial, tellingSerial } from '#core/listing/identity';
import { readListing } from '#core/listing/read';
import { eraseFor, type EraseReport, type EraseRequest } from '#core/erase/unlock';
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

/** What is looked for in a listing: the drive of a build, and of one item where it is known which. */
export function expectedOf(parts: PlanInput, item: DriveItem | undefined): Expected {
  return {
    capacityTB: parts.drive.capacityTB,
    model: parts.drive.name,
    ...(item?.serial ? { serial: item.serial } : {}),
    ...(item?.caseSerial ? { caseSerial: item.caseSerial } : {}),
    ...(item?.bytes ? { bytes: item.bytes } : {})
  };
}

/** How far a device may be from what its build states, as a share: bridges that stop early are no reason to refuse, another drive is. */
const SIZE_SHARE = 0.1;

/** Says why a device cannot be the drive of its build. */
async function notOfBuild(db: Knex, request: EraseRequest, build: StoredBuild): Promise<string | undefined> {
  const { snapshot } = buildNow(await loadLibrary(db, build.crateId, [build.choice]), build);
  const device = readListing(request.text).devices.find(({ device }) =>
    device.endsWith(request.device.replace(/^\/dev\//, ''))
  );
  const wanted = snapshot.drive.capacityTB * 1000;
  const said = device?.approxGB;
  if (said !== null && said !== undefined && Math.abs(said - wanted) > SIZE_SHARE * wanted)
    return `This device has ${Math.round(said)} GB, the drive of ${build.tag} ${Math.round(wanted)} GB: another drive, or the parts of the build were changed since.`;
  const listed = device && tellingSerial(device);
  const known = (await driveItems(db, build)).flatMap(({ serial, caseSerial }) =>
    [serial, caseSerial].filter((text) => text !== undefined)
  );
  const matches = known.some(
    (serial) => listed !== undefined && (plainSerial(serial).includes(listed) || listed.includes(plainSerial(serial)))
  );
  return listed !== undefined && known.length > 0 && !matches
    ? `No item of this drive has the serial number of this device: note it on the item “as the case shows it”, or take the drive that is in ${build.tag}.`
    : undefined;
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
  let report: EraseReport;
  try {
    report = eraseFor(request, now, quoteForShell);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    refuse([{ path: 'filesystem', message: 'is not made by this system with its own tools' }]);
    throw error;
  }
  if (buildId === undefined || !report.unlocked) return report;
  const build = await getBuild(db, { id: buildId });
  const changed = buildVersion !== undefined && build.version !== buildVersion;
  const why = changed
    ? `${build.tag} was changed since this list was pasted: look at it again, then type the identity once more.`
    : await notOfBuild(db, request, build);
  if (why === undefined) return report;
  // Locked again, by a device that no listing has.
  const locked = eraseFor({ ...request, device: 'DEVICE' }, now, quoteForShell);
  return { ...locked, code: changed ? 'old' : 'unsure', why };
}

/** The newest record of a format of a build; of one item, where it is said which. */
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
