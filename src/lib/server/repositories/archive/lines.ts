import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open, readFile, rename, rm } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { constants, createGunzip, createGzip, type Gzip, type ZlibParams } from 'node:zlib';
import { shapeOf } from '../../api/json';
import { withoutOddText } from '../../db/mend';
import { Problem } from '../../problem';

/**
 * The form of a backup and of a large bundle: JSON, one value a line, gzipped. First what it is, then one row of one table a line, last
 * how many lines there were and their digest. So it is written and read a line at a time, however large it is, and one that ends too
 * early is known as such.
 */
export type Line = Record<string, unknown>;

/** Characters of lines that are gathered into one piece before they are packed. */
const PIECE = 64_000;
/** Bytes of a packed piece: few enough to hold, many enough to be worth handing on. */
const CHUNK = 256 * 1024;
/** The longest line: more than any row, and more than a content of 8 MB in base64 in one. */
const LONGEST_LINE = 16_000_000;
/** How far an archive may unpack: this much, and so many times its own size. Rows of text shrink thirtyfold at the most. */
const UNPACKED = { bytes: 200_000_000, times: 100 };
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
  if (shapeOf(bytes).depth > DEEPEST) throw refuseArchive(`is nested more than ${DEEPEST} deep`, name);
  try {
    const text = bytes.toString('utf8');
    const value: unknown = JSON.parse(text);
    // Half characters and control characters, which an earlier version let in, are taken out of what is read back.
    return text.includes('\\u') ? withoutOddText(value) : value;
  } catch {
    throw refuseArchive('is not valid JSON', name);
  }
}

/** What a file holds: lines as they come, or the one document of an earlier version. */
export type Opened = { form: 'lines'; head: Line; lines: AsyncGenerator<Line> } | { form: 'document'; document: Line };

const isObject = (value: unknown): value is Line =>
  value !== null && typeof value === 'object' && !Array.isArray(value);

/**
 * Opens an archive. Its lines are read one at a time; the last of them is checked here and not given on.
 * @throws Problem `bad-input` where it is none, is damaged, or is a bomb
 */
export async function openArchive(path: string): Promise<Opened> {
  const chunks = unpack(path);
  const hash = createHash('sha256');
  let rest: Buffer[] = [];
  let length = 0;
  /** The bytes of the next line, or nothing at the end; a document without line ends comes back as a whole. */
  async function nextLine(whole: boolean): Promise<{ bytes: Buffer; ended: boolean } | undefined> {
    for (;;) {
      const last = rest.at(-1);
      const at = last?.indexOf(0x0a) ?? -1;
      if (last && at >= 0) {
        rest.splice(-1, 1, last.subarray(0, at + 1));
        const bytes = Buffer.concat(rest);
        rest = [last.subarray(at + 1)];
        length = rest[0]!.length;
        return { bytes, ended: true };
      }
      const next = await chunks.next();
      if (next.done) {
        const bytes = Buffer.concat(rest);
        rest = [];
        length = 0;
        return bytes.length > 0 ? { bytes, ended: false } : undefined;
      }
      // A piece may hold several ends of lines: the first is found above only in the last piece, so what has none is kept apart.
      rest.push(next.value);
      length += next.value.length;
      if (length > (whole ? WHOLE.bytes : LONGEST_LINE) && next.value.indexOf(0x0a) < 0) {
        if (whole || !looksLikeDocument(rest[0]!)) throw refuseArchive('One line of it is longer than any row.');
        whole = true;
      }
    }
  }
  const first = await nextLine(false);
  if (!first) throw refuseArchive(UNKNOWN);
  if (first.bytes.length > LONGEST_LINE || looksLikeDocument(first.bytes) || !first.ended) {
    const pieces = [first.bytes];
    let size = first.bytes.length;
    for (let line = await nextLine(true); line; line = await nextLine(true)) {
      size += line.bytes.length;
      if (size > WHOLE.bytes) throw refuseArchive('It is larger than a document can be.');
      pieces.push(line.bytes);
    }
    const bytes = pieces.length === 1 ? pieces[0]! : Buffer.concat(pieces);
    if (shapeOf(bytes).containers > WHOLE.containers) throw refuseArchive('It holds more than an archive does.');
    let document: unknown;
    try {
      document = parseJson(bytes, 'content');
    } catch {
      throw refuseArchive(UNKNOWN);
    }
    if (!isObject(document)) throw refuseArchive(UNKNOWN);
    return { form: 'document', document };
  }
  const head = parseJson(first.bytes, 'line 1');
  if (!isObject(head)) throw refuseArchive(UNKNOWN);
  hash.update(first.bytes);
  async function* lines(): AsyncGenerator<Line> {
    let count = 1;
    for (;;) {
      const next = await nextLine(false);
      if (!next) throw refuseArchive(DAMAGED);
      const line = parseJson(next.bytes, `line ${count + 1}`);
      if (!isObject(line)) throw refuseArchive('is no object', `line ${count + 1}`);
      if (line.end === true) {
        if (line.lines !== count || line.sha256 !== hash.digest('hex') || (await nextLine(false)))
          throw refuseArchive(DAMAGED);
        return;
      }
      hash.update(next.bytes);
      count += 1;
      yield line;
    }
  }
  return { form: 'lines', head, lines: lines() };
}

/** Longest body that wraps an archive as base64 in JSON; larger ones are sent as they are. */
export const WRAPPED_LIMIT = 256_000_000;

/** The archive that a JSON body wraps as base64, read from the file that the body was kept in.
 *  @throws Problem `bad-input` where it wraps none */
export async function readWrapped(path: string): Promise<Buffer> {
  const bytes = await readFile(path);
  if (bytes.length > WRAPPED_LIMIT || shapeOf(bytes).depth > 2) throw refuseArchive('must be base64');
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

/** Whether a file holds an archive as one document, which has to be held as a whole. */
export async function isDocument(path: string): Promise<boolean> {
  const chunks = unpack(path);
  try {
    const { value } = await chunks.next();
    return value !== undefined && looksLikeDocument(value);
  } catch {
    return false;
  } finally {
    await chunks.return(undefined);
  }
}

/** An archive of before there were lines says so near its beginning; a bundle as one document does too. */
function looksLikeDocument(beginning: Buffer): boolean {
  return /"formatVersion"\s{0,4}:\s{0,4}1\b/.test(beginning.subarray(0, 300).toString('latin1'));
}
