import type { Kind } from '../parts/kinds.ts';
import type { Model } from '../parts/model.ts';
import type { HouseRules } from '../house-rules/house-rules.ts';
import { gather, type Known } from './gather.ts';
import type { Cable } from '../parts/cable.ts';
import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Host } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { portOf } from '../plan/resolve-build.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Choice } from './choice.ts';

type WithId<T> = T & { id: string };

/** Known parts by id. */
export type PartSource = Known & {
  host: ReadonlyMap<string, WithId<Host>>;
  cable: ReadonlyMap<string, WithId<Cable>>;
  enclosure: ReadonlyMap<string, WithId<Enclosure>>;
  drive: ReadonlyMap<string, WithId<Drive>>;
  job: ReadonlyMap<string, WithId<Job>>;
};

/** A source that knows what is at hand too: what pages with pickers and swaps take. */
export type Library = PartSource & {
  /** Units at hand, by model. */
  stock: ReadonlyMap<string, InStock>;
};

/** How many items of a part are owned, how many of them are in no build, the builds that hold the others, and how many are ordered. */
export type InStock = { owned: number; free: number; builds: readonly string[]; ordered?: number; resale?: number };

export type Slot = Exclude<keyof Choice, 'stack' | 'writeCache'>;
export type Missing = { slot: Slot; chosen: boolean; message: string };
export type Assembled = { ok: true; input: PlanInput } | { ok: false; missing: Missing[] };

const WORDS = {
  hostId: 'computer',
  portId: 'port',
  cableId: 'cable',
  enclosureId: 'enclosure',
  driveId: 'drive',
  jobId: 'job'
} as const;

/**
 * Gathers the input of a plan for ids; or says what is missing: not chosen yet, or chosen and not in the crate.
 * @example assemble(libraryOf([], []), {}).ok // false
 */
export function assemble(source: PartSource, choice: Partial<Choice>): Assembled {
  const missing: Missing[] = [];
  const find = <T>(slot: Slot, among: ReadonlyMap<string, T>, needed: boolean): T | undefined => {
    const id = choice[slot];
    const found = id === undefined ? undefined : among.get(id);
    if (id !== undefined && !found)
      missing.push({ slot, chosen: true, message: `This ${WORDS[slot]} is not in the crate.` });
    else if (needed && !found)
      missing.push({ slot, chosen: false, message: `Choose ${slot === 'enclosureId' ? 'an' : 'a'} ${WORDS[slot]}.` });
    return found;
  };
  const host = find('hostId', source.host, true);
  const cable = find('cableId', source.cable, false);
  const enclosure = find('enclosureId', source.enclosure, true);
  const drive = find('driveId', source.drive, true);
  const job = find('jobId', source.job, false);
  const { portId, stack, writeCache } = choice;
  if (host && !(portId && portOf(host, portId))) {
    missing.push({
      slot: 'portId',
      chosen: portId !== undefined,
      message: portId ? `${host.name} has no port “${portId}”.` : 'Choose a port.'
    });
  }
  if (missing.length > 0 || !host || !enclosure || !drive || !portId) return { ok: false, missing };
  return { ok: true, input: gather({ host, portId, cable, enclosure, drive, job, stack, writeCache }, source) };
}

/**
 * Gives a source in which the parts that a plan was made from are found even where they have been deleted since: a build keeps its own copy
 * of them, so that it can still be renamed, moved on and changed elsewhere.
 * @example withPartsOf(libraryOf([], []), { hostId: 'h', portId: 'p', enclosureId: 'e', driveId: 'd' }, anInput()).drive.get('d').capacityTB // 2
 */
export function withPartsOf<S extends PartSource>(source: S, choice: Choice, snapshot: PlanInput): S {
  const keep = <T>(among: ReadonlyMap<string, WithId<T>>, id: string | undefined, part: T | undefined) =>
    id === undefined || part === undefined || among.has(id) ? among : new Map([...among, [id, { ...part, id }]]);
  return {
    ...source,
    host: keep(source.host, choice.hostId, snapshot.host),
    cable: keep(source.cable, choice.cableId, snapshot.cable),
    enclosure: keep(source.enclosure, choice.enclosureId, snapshot.enclosure),
    drive: keep(source.drive, choice.driveId, snapshot.drive),
    job: keep(source.job, choice.jobId, snapshot.job)
  };
}

/**
 * Sorts stored parts of every kind into a library.
 * @example libraryOf([{ ...aDrive(), id: 'd' }], []).drive.size // 1
 */
export function libraryOf(
  parts: readonly WithId<Model>[],
  jobs: readonly WithId<Job>[],
  known: Partial<Omit<Known, 'pads'>> & { houseRules?: HouseRules | undefined } = {},
  stock: Library['stock'] = new Map()
): Library {
  const ofKind = <K extends Kind>(kind: K) =>
    parts.filter((part): part is WithId<Extract<Model, { kind: K }>> => part.kind === kind);
  const byKind = <K extends Kind>(kind: K) => new Map(ofKind(kind).map((part) => [part.id, part]));
  return {
    host: byKind('host'),
    cable: byKind('cable'),
    enclosure: byKind('enclosure'),
    drive: byKind('drive'),
    job: new Map(jobs.map((job) => [job.id, job])),
    pads: ofKind('pad'),
    quotes: known.quotes ?? [],
    houseRules: known.houseRules ?? {},
    knownPairs: known.knownPairs ?? [],
    exchange: known.exchange ?? { currency: 'EUR', rates: [] },
    measured: known.measured ?? new Map(),
    stock
  };
}

/**
 * Joins two libraries of one crate: what either holds. Where both hold a thing, the second one’s is taken, for it was loaded later.
 * @example joined(libraryOf([], []), libraryOf([{ ...aDrive(), id: 'd' }], [])).drive.size // 1
 */
export function joined(first: Library, second: Library): Library {
  const parts = new Set(
    [second.host, second.cable, second.enclosure, second.drive].flatMap((kind) => [...kind.keys()])
  );
  for (const { id } of second.pads) if (id !== undefined) parts.add(id);
  const drives = new Set(second.drive.keys());
  return {
    ...second,
    host: new Map([...first.host, ...second.host]),
    cable: new Map([...first.cable, ...second.cable]),
    enclosure: new Map([...first.enclosure, ...second.enclosure]),
    drive: new Map([...first.drive, ...second.drive]),
    job: new Map([...first.job, ...second.job]),
    quotes: [...first.quotes.filter(({ partId }) => !parts.has(partId)), ...second.quotes],
    knownPairs: [
      ...first.knownPairs.filter(({ driveId }) => driveId === undefined || !drives.has(driveId)),
      ...second.knownPairs
    ],
    measured: new Map([...first.measured, ...second.measured]),
    stock: new Map([...first.stock, ...second.stock])
  };
}
