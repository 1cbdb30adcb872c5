import type { Knex } from 'knex';
import { composeSheet, type SheetKind } from '#core/format/compose';
import type { PlanInput } from '#core/plan/report';
import {
  changesSince,
  progressOf,
  seenSteps,
  type Entry,
  type SheetChanges,
  type SheetProgress
} from '#core/sheets/progress';
import { tickable, type RunSheet } from '#core/sheets/sheet';
import type { ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { refuse } from '../problems/problem';
import { createPhoto } from '../repositories/attachments';
import { getBuild, type StoredBuild } from '../repositories/builds';
import { checksBySheet, listChecks } from '../repositories/checks';
import { createSheet, getSheet, listSheets, noteSeen, type StoredSheet } from '../repositories/sheets';
import { listUnits } from '../repositories/units';
import { buildNow, loadLibrary } from './planning';

type By = { by: string; at: string };

/** The parts of a build as they are now. */
export async function partsNow(db: Knex, build: StoredBuild): Promise<PlanInput> {
  return buildNow(await loadLibrary(db, build.crateId, [build.choice]), build).snapshot;
}

/** The sheet as its parts make it now, with what was answered on it where a part does not say. */
export const composed = (
  parts: PlanInput,
  build: Pick<StoredBuild, 'name'>,
  sheet: Pick<StoredSheet, 'kind' | 'unitIds' | 'from'>,
  entries: readonly Entry[]
) => composeSheet(parts, { ...sheet, title: build.name }, entries);

/** A stored sheet with everything that is on it. */
export type WholeSheet = {
  stored: StoredSheet;
  sheet: RunSheet;
  entries: Entry[];
  progress: SheetProgress;
  changes: SheetChanges;
};

/** Puts together what a sheet is now. */
export function wholeSheet(
  parts: PlanInput,
  build: Pick<StoredBuild, 'name'>,
  stored: StoredSheet,
  entries: Entry[]
): WholeSheet {
  const sheet = composed(parts, build, stored, entries);
  return {
    stored,
    sheet,
    entries,
    progress: progressOf(sheet, entries, stored.unitIds),
    changes: changesSince(stored.seen, sheet, entries)
  };
}

/** One sheet with everything on it. @throws Problem `not-found` */
export async function readSheet(db: Knex, args: { crateId: string; id: string }): Promise<WholeSheet> {
  const stored = await getSheet(db, args);
  const build = await getBuild(db, { crate_id: args.crateId, id: stored.buildId });
  const entries = await listChecks(db, { crateId: args.crateId, sheetId: stored.id });
  return wholeSheet(await partsNow(db, build), build, stored, entries);
}

/** The newest sheet of this kind of a build with everything on it, or the one that is asked for, where it has one. */
// eslint-disable-next-line max-params -- a build as it is stored, and its parts as they are now
export async function newestSheet(
  db: Knex,
  kind: SheetKind,
  build: StoredBuild,
  parts: PlanInput,
  id?: string | null
): Promise<WholeSheet | undefined> {
  const sheets = await listSheets(db, { crateId: build.crateId, buildId: build.id, kind });
  const stored = sheets.find((sheet) => sheet.id === id) ?? sheets[0];
  if (!stored) return undefined;
  return wholeSheet(parts, build, stored, await listChecks(db, { crateId: build.crateId, sheetId: stored.id }));
}

/** The newest sheet of a build of either kind with what is on it, where one was begun. */
export type NewestSheets = (buildId: string, kind: SheetKind) => { stored: StoredSheet; entries: Entry[] } | undefined;

/** Loads the newest sheets of builds, of either kind. */
export async function newestSheets(
  db: Knex,
  args: { crateId: string; buildIds: readonly string[] }
): Promise<NewestSheets> {
  const sheets = await listSheets(db, args);
  const entries = await checksBySheet(
    db,
    sheets.map(({ id }) => id)
  );
  return (buildId, kind) => {
    const stored = sheets.find((sheet) => sheet.buildId === buildId && sheet.kind === kind);
    return stored && { stored, entries: entries.get(stored.id) ?? [] };
  };
}

/** How far the newest sheet of a build is; nothing where none was begun. */
export function progressNow(
  newest: ReturnType<NewestSheets>,
  build: Pick<StoredBuild, 'name'>,
  parts: PlanInput
): SheetProgress | undefined {
  return newest && wholeSheet(parts, build, newest.stored, newest.entries).progress;
}

/**
 * Begins a sheet.
 * @param unitIds items of the build's drive that are put together alike; fewer than two are one sheet without columns
 * @throws Problem `bad-input` where an item is none of this drive
 */
export async function beginSheet(
  db: Knex,
  args: {
    crateId: string;
    buildId: string;
    id?: string;
    kind: SheetKind;
    unitIds: readonly string[];
    from?: 'ready-made' | undefined;
  } & By
): Promise<{ id: string; version: number; group: string; sheet: RunSheet }> {
  const { crateId, buildId, kind, unitIds, from } = args;
  return writing(db, crateId, async (trx) => {
    const build = await getBuild(trx, { crate_id: crateId, id: buildId });
    const items = await listUnits(trx, { crateId, ids: unitIds });
    refuse(
      unitIds.flatMap((id, i) =>
        items.some(({ unit }) => unit.id === id && unit.modelId === build.choice.driveId)
          ? []
          : [{ path: `unitIds.${i}`, message: 'is no item of the drive of this build' }]
      )
    );
    const sheet = composed(await partsNow(trx, build), build, { kind, unitIds: [...unitIds], from }, []);
    const made = await createSheet(trx, { ...args, tag: build.tag, seen: seenSteps(sheet) });
    return { ...made, sheet };
  });
}

/** Notes that the steps of a sheet as they are now have been looked through. */
export async function lookedThrough(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<{ id: string; version: number; group: string }> {
  return writing(db, args.crateId, async (trx) => {
    const { stored, sheet } = await readSheet(trx, args);
    const { tag } = await getBuild(trx, { crate_id: args.crateId, id: stored.buildId });
    const event = { kind: 'sheet', message: `Looked through what is new on the run sheet of ${tag}.` };
    return noteSeen(trx, { ...args, seen: seenSteps(sheet), event });
  });
}

/** What a step was called that is on the sheet no more; nothing where it never was. */
export function wordsBefore(stepId: string, { seen }: StoredSheet, entries: readonly Entry[]): string | undefined {
  return Object.hasOwn(seen, stepId) ? seen[stepId] : entries.find((entry) => entry.stepId === stepId)?.stepId;
}

/**
 * Keeps a photograph of a step of a sheet.
 * @throws Problem `bad-input` where the step or the item was never on the sheet, and for what is no plain picture
 */
export async function takePhoto(
  db: Knex,
  args: {
    crateId: string;
    id: string;
    key: string;
    stepId: string;
    unitId?: string | undefined;
    name: string;
    content: Buffer;
  } & By
): Promise<ChangeResult> {
  const { crateId, id, stepId, unitId } = args;
  const { stored, sheet, entries } = await readSheet(db, args);
  const { tag } = await getBuild(db, { crate_id: crateId, id: stored.buildId });
  const text = tickable(sheet).find((step) => step.id === stepId)?.text ?? wordsBefore(stepId, stored, entries);
  refuse([
    ...(text === undefined ? [{ path: 'stepId', message: 'is no step of this sheet' }] : []),
    ...(unitId !== undefined && !stored.unitIds.includes(unitId)
      ? [{ path: 'unitId', message: 'is no item of this sheet' }]
      : [])
  ]);
  const message = `${tag}: photographed “${(text ?? '').slice(0, 160)}”.`;
  return createPhoto(db, { ...args, sheetId: id, message });
}
