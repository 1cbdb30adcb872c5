import type { Cable } from '../parts/cable.ts';
import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { ExchangeRate } from '../parts/exchange-rate.ts';
import type { Host } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { isPairOf, type KnownPair } from '../parts/known-pair.ts';
import type { Pad } from '../parts/pad.ts';
import type { Quote } from '../parts/quote.ts';
import { portOf } from '../plan/study.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Choice } from './build.ts';

type WithId<T> = T & { id: string };

/** What choices refer to: the parts and jobs of a crate by id, its pads, quotes and house rules. */
export type Library = {
  host: ReadonlyMap<string, WithId<Host>>;
  cable: ReadonlyMap<string, WithId<Cable>>;
  enclosure: ReadonlyMap<string, WithId<Enclosure>>;
  drive: ReadonlyMap<string, WithId<Drive>>;
  job: ReadonlyMap<string, WithId<Job>>;
  pads: readonly Pad[];
  quotes: readonly Quote[];
  houseRules: Record<string, string>;
  knownPairs: readonly KnownPair[];
  exchange: { currency: string; rates: readonly ExchangeRate[] };
  /** Units at hand, by model. */
  stock: ReadonlyMap<string, InStock>;
};

/** How many units of a model are owned, how many of them are in no build, and the builds that hold the others. */
export type InStock = { owned: number; free: number; builds: readonly string[]; resale?: number };

export type Slot = Exclude<keyof Choice, 'stack'>;
export type Missing = { slot: Slot; chosen: boolean; message: string };
export type Assembled = { ok: true; input: PlanInput } | { ok: false; missing: Missing[] };

const WORDS = {
  hostId: 'host',
  portId: 'port',
  cableId: 'cable',
  enclosureId: 'enclosure',
  driveId: 'drive',
  jobId: 'job'
} as const;

/** The plan's input for a choice of stored parts; or what is missing: not chosen yet, or chosen and not in the crate. */
export function assemble(library: Library, choice: Partial<Choice>): Assembled {
  const missing: Missing[] = [];
  const find = <T>(slot: Slot, among: ReadonlyMap<string, T>, needed: boolean): T | undefined => {
    const id = choice[slot];
    const found = id === undefined ? undefined : among.get(id);
    if (id !== undefined && !found)
      missing.push({ slot, chosen: true, message: `This ${WORDS[slot]} is not in the crate.` });
    else if (needed && !found) missing.push({ slot, chosen: false, message: `Choose a ${WORDS[slot]}.` });
    return found;
  };
  const host = find('hostId', library.host, true);
  const cable = find('cableId', library.cable, false);
  const enclosure = find('enclosureId', library.enclosure, true);
  const drive = find('driveId', library.drive, true);
  const job = find('jobId', library.job, false);
  const portId = choice.portId;
  if (host && !(portId && portOf(host, portId))) {
    missing.push({
      slot: 'portId',
      chosen: portId !== undefined,
      message: portId ? `${host.name} has no port “${portId}”.` : 'Choose a port.'
    });
  }
  if (missing.length > 0 || !host || !enclosure || !drive || !portId) return { ok: false, missing };
  // Only what is known of this very pair: a plan keeps what it was made from, and no more.
  const knownPairs = library.knownPairs.filter((pair) => isPairOf(pair, drive, enclosure.bridge));
  const ids = new Set([cable?.id, enclosure.id, drive.id, ...library.pads.map((pad) => pad.id)]);
  return {
    ok: true,
    input: {
      host,
      portId,
      ...(cable ? { cable } : {}),
      enclosure,
      drive,
      ...(library.pads.length > 0 ? { pads: [...library.pads] } : {}),
      ...(job ? { job } : {}),
      ...(choice.stack ? { stack: choice.stack } : {}),
      quotes: library.quotes.filter((quote) => ids.has(quote.partId)),
      houseRules: library.houseRules,
      ...(knownPairs.length > 0 ? { knownPairs } : {}),
      ...(library.exchange.rates.length > 0
        ? { exchange: { currency: library.exchange.currency, rates: [...library.exchange.rates] } }
        : {})
    }
  };
}

/** Stored parts of every kind, sorted into a library. */
export function libraryOf(
  parts: readonly ({ id: string } & { kind: string })[],
  jobs: readonly WithId<Job>[],
  quotes: readonly Quote[],
  houseRules: Record<string, string>,
  knownPairs: readonly KnownPair[] = [],
  exchange: Library['exchange'] = { currency: 'EUR', rates: [] },
  stock: Library['stock'] = new Map()
): Library {
  const byKind = <T>(kind: string) =>
    new Map(parts.filter((part) => part.kind === kind).map((part) => [part.id, part as unknown as WithId<T>]));
  return {
    host: byKind<Host>('host'),
    cable: byKind<Cable>('cable'),
    enclosure: byKind<Enclosure>('enclosure'),
    drive: byKind<Drive>('drive'),
    job: new Map(jobs.map((job) => [job.id, job])),
    pads: [...byKind<Pad>('pad').values()],
    quotes,
    houseRules,
    knownPairs,
    exchange,
    stock
  };
}
