import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { fileFields } from '../core/tables/kinds-of-table';
import { FILES } from '../core/tables/file-kind';
import { headingUnit, matchColumns, withHeadingUnit } from '../core/tables/headings';
import { phrasesOf, portsSaid, takeApart } from '../core/tables/phrases';
import { columnsOf, readRow } from '../core/tables/table';
import { formFields } from '../core/parts/form/form-fields';
import { readDraft, type Field } from '../core/parts/form/form';
import { text } from '../core/parts/form/field';
import { jobSchema } from '../core/parts/job';
import { KINDS } from '../core/parts/kinds';
import { MODEL_SCHEMAS } from '../core/parts/model';
import { tagKey, tagNumber } from '../core/parts/tag';
import { unitSchema } from '../core/parts/item';
import { readQuantity } from '../core/quantities/read';
import { readListing } from '../core/listing/read';
import { readSpecification } from '../core/box-text/read';
import { readPastedLog } from '../core/temperature-logs/log';
import { writerOf, type AnyOperation } from '../src/lib/server/api/operation';
import { operations } from '../src/lib/server/api/operations';
import { fromCsv } from '../src/lib/server/transfer/csv';
import { slugOf } from '../src/lib/server/repositories/crates';
import { checkedJson } from '../src/lib/server/problems/json';
import { oddTexts } from './odd-text';

/** Processor time of some work, ms: other programs on the machine do not count. */
function cpuMs(work: () => unknown): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1000;
}
/** The least of three, where the first was suspicious: it may have been the compiler. */
const leastMs = (work: () => unknown, first: number) => Math.min(first, cpuMs(work), cpuMs(work));
/** A loop that takes 60 ms of the processor on an idle machine of the size that the limit was set on. */
function reference(): number {
  let state = 1;
  for (let i = 0; i < 3e7; i++) {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
  }
  return state;
}
const REFERENCE_MS = 60;
/** What "100 ms on an idle machine" is here and now: a slower machine, or one that shares its cores, gets as much more. */
const limitMs = () => 100 * Math.max(1, Math.min(cpuMs(reference), cpuMs(reference)) / REFERENCE_MS);
const swallow = (work: () => unknown) => () => {
  try {
    work();
  } catch {
    // a refusal is fine: what counts is how long it took
  }
};

const drive = fileFields('models', 'drive');
const columns = columnsOf(drive);
/** Every field of the forms, the lists in them included. */
const fieldsBelow = (fields: readonly Field[], prefix = ''): { key: string; path: string }[] =>
  fields.flatMap((field) =>
    field.type === 'group'
      ? fieldsBelow(field.fields, `${prefix}${field.key}.`)
      : field.type === 'list'
        ? [] // its own entry is how many rows it has, which is no text
        : [{ key: field.key, path: `${prefix}${field.key}` }]
  );

/** Everything that takes a text from outside, by what it is. */
const TAKERS: Record<string, (odd: string) => unknown> = {
  'a name': (odd) => text('Name', 120).safeParse(odd),
  'every field of every kind of part': (odd) => {
    for (const kind of KINDS) {
      const fields = formFields(MODEL_SCHEMAS[kind]);
      readDraft(fields, Object.fromEntries(fieldsBelow(fields).map(({ path }) => [path, odd])));
    }
  },
  'every field of a unit and a job': (odd) => {
    for (const schema of [unitSchema, jobSchema])
      schema.safeParse(Object.fromEntries(Object.keys(schema.shape).map((key) => [key, odd])));
  },
  'headings of a file': (odd) => {
    matchColumns([odd, `Capacity,${odd}`, `${odd}(GB)`], columns);
    for (const column of columns.slice(0, 8)) headingUnit(odd, column);
  },
  'cells of a file': (odd) => {
    withHeadingUnit(odd, 'GB');
    portsSaid(odd);
    for (const kind of KINDS) {
      const phrases = phrasesOf('models', kind);
      takeApart(phrases, Object.fromEntries(phrases.map(({ path }) => [path, odd])));
    }
    // one of each sort of field; a row in which all sixty are so long is refused as a whole
    for (const file of [drive, ...FILES.map((what) => fileFields(what))]) {
      const some = columnsOf(file).filter((_, i) => i % 5 === 0);
      readRow(file, Object.fromEntries(some.map(({ path }) => [path, odd])));
    }
  },
  'a file as a whole': (odd) => swallow(() => fromCsv(odd))(),
  'a typed quantity': (odd) => {
    for (const unit of ['MB/s', 'mm', 'TB', '°C', ''] as const) readQuantity(odd, { unit });
  },
  'a pasted log': (odd) => readPastedLog(odd),
  'tags, addresses and names of writers': (odd) => {
    tagKey(odd);
    tagNumber(odd);
    slugOf(odd);
    writerOf(odd);
  },
  'the query and the path of every operation': (odd) => {
    for (const op of Object.values(operations) as AnyOperation[])
      for (const schema of [op.query, op.params])
        if (schema instanceof z.ZodObject)
          schema.safeParse(Object.fromEntries(Object.keys(schema.shape as object).map((key) => [key, odd])));
  },
  'the fields of every body': (odd) => {
    for (const op of Object.values(operations) as AnyOperation[])
      if (op.body instanceof z.ZodObject)
        op.body.safeParse(Object.fromEntries(Object.keys(op.body.shape as object).map((key) => [key, odd])));
  },
  'a body as text': (odd) => swallow(() => checkedJson(Buffer.from(JSON.stringify({ odd }))))(),
  'a body that is no JSON': (odd) => swallow(() => checkedJson(Buffer.from(odd)))(),
  ...Object.fromEntries(KINDS.map((kind) => [`pasted for a ${kind}`, (odd: string) => readSpecification(odd, kind)])),
  'a list of disks': (odd) => readListing(odd, { capacityTB: 2, serial: odd.slice(0, 80) || 'x' }),
  'pasted for what it may be': (odd) => readSpecification(odd)
};

/** What is pasted for a kind gets every sixth text, each kind others: together they get all. */
const HEAVY = new Set(['cells of a file', 'pasted for what it may be']);
const turn = (what: string) => KINDS.findIndex((kind) => what.endsWith(` ${kind}`));
const SEED = 20261127;
/** Under this the clock measures itself. */
const GRAIN_MS = 12;

describe('no text holds the program up', () => {
  it.each(Object.entries(TAKERS))(
    '%s: four times the text takes no seven times as long, and under 100 ms',
    (what, take) => {
      const texts = oddTexts(SEED)
        .filter((_, i) => !HEAVY.has(what) || i % 4 === SEED % 4)
        .filter((_, i) => !what.startsWith('pasted for a ') || i % KINDS.length === turn(what));
      for (const { name, make } of texts) {
        const [short, long] = [make(25_000), make(100_000)];
        let longMs = cpuMs(() => take(long));
        if (longMs <= GRAIN_MS) continue;
        longMs = leastMs(() => take(long), longMs);
        if (longMs >= 100) expect(longMs, `100 kB of ${name}`).toBeLessThan(limitMs());
        const shortMs = leastMs(() => take(short), Infinity);
        // What grows too fast does so every time; a garbage collection in one of the runs does not.
        for (let again = 0; again < 3 && longMs > GRAIN_MS && longMs / shortMs >= 7; again++)
          longMs = leastMs(() => take(long), longMs);
        if (longMs <= GRAIN_MS) continue;
        expect(longMs / shortMs, `${name}: ${shortMs} ms at 25 kB, ${longMs} ms at 100 kB`).toBeLessThan(7);
      }
    },
    60_000
  );
});
