import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open, readFile, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { constants, createGunzip, createGzip, type Gzip, type ZlibParams } from 'node:zlib';
import { jsonShape } from '../../problems/json';
import { withoutOddText } from '../../db/mend';
import { Problem } from '../../problems/problem';

/**
 * The form of a backup and of a large bundle: JSON, one value a line, gzipped. First what it is, then one row of one table a line, last
 * how many lines there were and their digest. So it is written and read a line at a time, however large it is, and one that ends too
 * early is known as such.
 */
export type Line = Record<string, unknown>;

/** How packed lines call themselves; one document is version 1. */
export const LINES_VERSION = 2;
/** Characters of lines that are gathered into one piece before they are packed. */
const PIECE = 64_000;
/** Bytes of a packed piece: few enough to hold, many enough to be worth handing on. */
const CHUNK = 256 * 1024;
/** The longest line: more than any row, and more than a content of 8 MB in base64 in one. */
const LONGEST_LINE = 16_000_000;
/** How far an archive may unpack: this much, and so many times its own size. Rows of text shrink thirtyfold at the most. */
const UNPACKED = { bytes: 64_000_000, times: 100 };
/** An archive of before there were lines is one document, and has to be held as a whole. */
const WHOLE = { bytes: 500_000_000, containers: 6_000_000 };
/** Plans and specifications are nested less than this. */
const DEEPEST = 60;

export const refuseArchive = (message: string, path = 'content') =>
  new Problem('bad-input', path === 'content' ? message : `${path}: ${message}.`, [{ path, message }]);
const DAMAGED = 'It is damaged: it ends too early or was changed. Nothing was changed here.';
const UNKNOWN = 'This is no backup of Ash Crate, or it is damaged.';

/** Lines as text with the closing one, in pieces worth packing. */
async function* textOf(lines: AsyncIterable<Line>): AsyncGenerator<string> {
  const hash = createHash('sha256');
  let count = 0;
  let piece = '';
  for await (const line of lines) {
    const text = `${JSON.stringify(line)}\n`;
    hash.update(text);
    count += 1;
    piece += text;
    if (piece.length < PIECE) continue;
    yield piece;
    piece = '';
  }
  yield `${piece}${JSON.stringify({ end: true, lines: count, sha256: hash.digest('hex') })}\n`;
}

/** Base64 of what does not shrink: letters by how often they come is all there is to gain, and three times as fast. */
const CONTENTS = { level: 1, strategy: constants.Z_HUFFMAN_ONLY };
const ROWS = { level: 6, strategy: constants.Z_DEFAULT_STRATEGY };

/** Packs text. @param gzip what packs it, where it is not all rows */
export function packed(
  pieces: AsyncIterable<string>,
  gzip: Gzip = createGzip({ ...ROWS, chunkSize: CHUNK })
): Readable {
  // A failure of the source ends what is read; whoever reads sees it.
  pipeline(Readable.from(pieces, { objectMode: false }), gzip).catch((error: Error) => gzip.destroy(error));
  return gzip;
}
/** Packs lines: contents quickly, and rows well, from the first row on. */
export function packedLines(lines: AsyncIterable<Line>): Readable {
  const gzip = createGzip({ ...CONTENTS, chunkSize: CHUNK }) as Gzip & ZlibParams;
  async function* watched(): AsyncGenerator<Line> {
    let rows = false;
    for await (const line of lines) {
      if (!rows && line.table !== undefined && line.table !== 'files') {
        rows = true;
        await new Promise<void>((done) => gzip.params(ROWS.level, ROWS.strategy, () => done()));
      }
      yield line;
    }
  }
  return packed(textOf(watched()), gzip);
}

/** Writes an archive: whole, or not at all. */
export async function writeArchive(path: string, lines: AsyncIterable<Line>): Promise<void> {
  const part = `${path}.part`;
  try {
    await pipeline(packedLines(lines), createWriteStream(part, { mode: 0o600 }));
    const file = await open(part, 'r+');
    await file.sync();
    await file.close();
    await rename(part, path);
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

async function* unpack(path: string): AsyncGenerator<Buffer> {
  const file = await open(path, 'r');
  const head = Buffer.alloc(2);
  await file.read(head, 0, 2, 0);
  const { size } = await file.stat();
  await file.close();
  const source = createReadStream(path, { highWaterMark: CHUNK });
  const most = UNPACKED.bytes + UNPACKED.times * size;
  const gunzip = head[0] === 0x1f && head[1] === 0x8b ? createGunzip({ chunkSize: CHUNK }) : undefined;
  if (gunzip) pipeline(source, gunzip).catch((error: Error) => gunzip.destroy(error));
  let unpacked = 0;
  try {
    for await (const chunk of gunzip ?? source) {
      unpacked += (chunk as Buffer).length;
      if (unpacked > most) throw refuseArchive('It unpacks to far more than an archive holds.');
      yield chunk as Buffer;
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    if (/^Z_|incorrect|unexpected end/.test(String((error as { code?: string }).code) + (error as Error).message))
      throw refuseArchive(unpacked === 0 ? UNKNOWN : DAMAGED);
    throw error;
  } finally {
    source.destroy();
    gunzip?.destroy();
  }
}

function parseJson(bytes: Buffer, name: string): unknown {
  if (jsonShape(bytes).depth > DEEPEST) throw refuseArchive(`is nested more than ${DEEPEST} deep`, name);
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw refuseArchive('is not valid JSON', name);
  }
}

const isObject = (value: unknown): value is Line =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/** What the first line of packed lines says of the rest; nothing where it is the beginning of something else. */
function headIn(firstLine: Buffer): Line | undefined {
  try {
    const head = parseJson(firstLine, 'line 1');
    return isObject(head) && head.formatVersion === LINES_VERSION ? head : undefined;
  } catch {
    return undefined;
  }
}

/** Splits pieces into lines, each with its end; what follows the last end is a line without one. */
class LineReader {
  /** Pieces that have no end of a line in them, but for the last one. */
  #rest: Buffer[] = [];
  constructor(readonly pieces: AsyncGenerator<Buffer>) {}

  /** @returns the next line; what there is of it where it is longer than this; nothing at the end */
  async next(longest: number): Promise<Buffer | undefined> {
    for (let length = this.#rest.reduce((sum, piece) => sum + piece.length, 0); ;) {
      const last = this.#rest.at(-1);
      const end = last?.indexOf(LINE_END) ?? -1;
      if (last && end >= 0) {
        const line = Buffer.concat([...this.#rest.slice(0, -1), last.subarray(0, end + 1)]);
        this.#rest = [last.subarray(end + 1)];
        return line;
      }
      if (length > longest) return this.#all();
      const piece = await this.pieces.next();
      if (piece.done) return this.#all();
      this.#rest.push(piece.value);
      length += piece.value.length;
    }
  }
  /** What was not read as lines. */
  async *rest(): AsyncGenerator<Buffer> {
    yield* this.#rest.splice(0);
    yield* this.pieces;
  }
  #all(): Buffer | undefined {
    const all = Buffer.concat(this.#rest);
    this.#rest = [];
    return all.length > 0 ? all : undefined;
  }
}
const LINE_END = 0x0a;
const endsLine = (line: Buffer) => line.at(-1) === LINE_END;

/** What a file holds: packed lines, as they come, or one document, of an earlier version or for other programs. */
export type Opened = { form: 'lines'; head: Line; lines: AsyncGenerator<Line> } | { form: 'document'; document: Line };

/**
 * Opens an archive. Lines are read one at a time; the last of them is checked here and not given on.
 * @throws Problem `bad-input` where it is none, is damaged, or is a bomb
 */
export async function openArchive(path: string): Promise<Opened> {
  const reader = new LineReader(unpack(path));
  const first = await reader.next(LONGEST_LINE);
  const head = first && endsLine(first) ? headIn(first) : undefined;
  if (first && head) return { form: 'lines', head, lines: linesAfter(first, reader) };
  return { form: 'document', document: await documentFrom(first, reader) };
}

async function* linesAfter(first: Buffer, reader: LineReader): AsyncGenerator<Line> {
  const hash = createHash('sha256').update(first);
  for (let count = 1; ; count++) {
    const bytes = await reader.next(LONGEST_LINE);
    if (!bytes) throw refuseArchive(DAMAGED);
    if (bytes.length > LONGEST_LINE) throw refuseArchive('is longer than any row', `line ${count + 1}`);
    if (!endsLine(bytes)) throw refuseArchive(DAMAGED);
    const line = parseJson(bytes, `line ${count + 1}`);
    if (!isObject(line)) throw refuseArchive('is no object', `line ${count + 1}`);
    if (line.end === true) {
      if (line.lines !== count || line.sha256 !== hash.digest('hex') || (await reader.next(1)))
        throw refuseArchive(DAMAGED);
      return;
    }
    hash.update(bytes);
    yield bytes.includes('\\u') ? withoutOddText(line) : line;
  }
}

const OPENING_BRACE = 0x7b;
const isBlank = (byte: number) => byte === 0x20 || (byte >= 0x09 && byte <= 0x0d);

/** Reads the whole of a document; its lines mean nothing. */
async function documentFrom(first: Buffer | undefined, reader: LineReader): Promise<Line> {
  const pieces = first ? [first] : [];
  let size = first?.length ?? 0;
  // Something else is known by its first character, and not read to its end.
  const begins = first?.find((byte) => !isBlank(byte));
  if (begins !== undefined && begins !== OPENING_BRACE) throw refuseArchive(UNKNOWN);
  for await (const piece of reader.rest()) {
    size += piece.length;
    if (size > WHOLE.bytes) throw refuseArchive('It is larger than a document can be.');
    pieces.push(piece);
  }
  const bytes = Buffer.concat(pieces);
  if (jsonShape(bytes).containers > WHOLE.containers) throw refuseArchive('It holds more than an archive does.');
  let document: unknown;
  try {
    document = parseJson(bytes, 'content');
  } catch {
    throw refuseArchive(UNKNOWN);
  }
  if (!isObject(document)) throw refuseArchive(UNKNOWN);
  return document;
}

/** Whether a file holds an archive as one document, which has to be held as a whole. */
export async function isDocument(path: string): Promise<boolean> {
  const pieces = unpack(path);
  try {
    const first = await new LineReader(pieces).next(CHUNK);
    return !(first && endsLine(first) && headIn(first));
  } catch {
    return true;
  } finally {
    await pieces.return(undefined);
  }
}

/** Longest body that wraps an archive as base64 in JSON; larger ones are sent as they are. */
export const WRAPPED_LIMIT = 256_000_000;

/** The archive that a JSON body wraps as base64, read from the file that the body was kept in.
 *  @throws Problem `bad-input` where it wraps none */
export async function readWrapped(path: string): Promise<Buffer> {
  const bytes = await readFile(path);
  if (bytes.length > WRAPPED_LIMIT || jsonShape(bytes).depth > 2) throw refuseArchive('must be base64');
  let body: unknown;
  try {
    body = JSON.parse(bytes.toString('utf8'));
  } catch {
    throw refuseArchive('is not valid JSON', 'body');
  }
  if (!isObject(body)) throw refuseArchive('is not valid JSON', 'body');
  if (body.confirm !== CONFIRM) throw refuseArchive(`must be “${CONFIRM}”`, 'confirm');
  const extra = Object.keys(body).find((key) => key !== 'content' && key !== 'confirm');
  if (extra !== undefined) throw refuseArchive('is not known here', extra.slice(0, 40));
  if (typeof body.content !== 'string' || !/^[A-Za-z0-9+/]+={0,2}$/.test(body.content))
    throw refuseArchive('must be base64', 'content');
  return Buffer.from(body.content, 'base64');
}
/** What a person types who wants everything replaced. */
export const CONFIRM = 'replace everything';
