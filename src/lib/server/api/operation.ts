import { json, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { text } from '#core/parts/form/field';
import { database } from '../db';
import { problemOf } from '../db/errors';
import { fieldsOf } from '../problems/fields';
import { labelAt } from '../problems/plain-words';
import { checkedJson, oddText } from '../problems/json';
import { getCrate } from '../repositories/crates';
import { Problem } from '../problems/problem';
import { keepUpload, type Upload } from '../transfer/uploads';
import type { Knex } from 'knex';

/** A body larger than this is refused while it is still coming in, unless its operation takes files. */
const BODY_LIMIT = 2_000_000;

type Method = 'get' | 'post' | 'put' | 'delete';

/** What one call of the API is: where, what it takes and gives, and how. The OpenAPI document is made from the same record. */
export type Operation<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, R extends z.ZodType> = {
  method: Method;
  path: string;
  summary: string;
  params?: P;
  query?: Q;
  body?: B;
  response: R;
  status?: number;
  /** Whether it is also for a crate that was deleted; all others find no such crate. */
  hidden?: boolean;
  /** Bytes of body it takes, where that is more than usual. */
  bodyLimit?: number;
  /** Types of content that it takes as a stream, kept in a file, beside JSON; `upload` is that file, JSON too. */
  streams?: readonly string[];
  /** A list that can be asked for in parts: its answer says in headers how many there are, and where the rest is. */
  inParts?: boolean;
  /** The type of what it gives where that is no JSON; `handle` then makes the whole answer. */
  produces?: string;
  handle(context: {
    db: Knex;
    params: z.output<P>;
    query: z.output<Q>;
    body: z.output<B>;
    by: string;
    at: string;
    request: Request;
    upload?: Upload;
  }): Promise<z.input<R> | Response>;
};

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- a list of operations holds every shape of them
export type AnyOperation = Operation<any, any, any, any>;

export function operation<
  R extends z.ZodType,
  P extends z.ZodType = z.ZodUndefined,
  Q extends z.ZodType = z.ZodUndefined,
  B extends z.ZodType = z.ZodUndefined
>(definition: Operation<P, Q, B, R>): Operation<P, Q, B, R> {
  return definition;
}

export const errorSchema = z.strictObject({
  error: z.strictObject({
    code: z.string(),
    message: z.string(),
    fields: z.array(z.strictObject({ path: z.string(), message: z.string() })),
    details: z.record(z.string(), z.unknown()).optional()
  })
});

/** The largest archive that is taken as a stream. */
const STREAM_LIMIT = 64e9;

const contentType = (request: Request): string =>
  (request.headers.get('content-type') ?? '').split(';')[0]!.trim().toLowerCase();

/** Bytes and time for which the rest of a refused body is still read. */
const DRAIN = { bytes: 64_000_000, ms: 15_000 };

/**
 * Reads the rest of a refused body and forgets it: whoever is still sending would see a broken connection instead of the sentence
 * that says why. What goes on for too long is cut off.
 */
async function drain(reader: ReadableStreamDefaultReader<Uint8Array> | undefined): Promise<void> {
  if (!reader) return;
  const until = Date.now() + DRAIN.ms;
  try {
    for (let size = 0; size < DRAIN.bytes && Date.now() < until;) {
      const { done, value } = await reader.read();
      if (done) return;
      size += value.length;
    }
    await reader.cancel();
  } catch {
    // the sender has gone
  }
}

/** Reads a JSON body, refusing other types and too much of it, without holding more than the limit in memory. */
async function readJson(request: Request, limit: number): Promise<unknown> {
  if (contentType(request) !== 'application/json') throw new Problem('wrong-type', 'Send application/json.');
  const tooLarge = () => new Problem('too-large', `The body is larger than ${limit / 1e6} MB.`);
  if (Number(request.headers.get('content-length') ?? 0) > limit) {
    void drain(request.body?.getReader());
    throw tooLarge();
  }
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > limit) {
      void drain(reader);
      throw tooLarge();
    }
    chunks.push(value);
  }
  return checkedJson(Buffer.concat(chunks));
}

/** What an address says: the same characters are refused there. */
function checkedQuery(query: URLSearchParams): Record<string, string> {
  const given = Object.fromEntries(query);
  const odd = oddText(given);
  if (odd) throw new Problem('bad-input', `${labelAt(undefined, odd.path)} ${odd.message}.`, [odd]);
  return given;
}

function parse<T extends z.ZodType>(schema: T, value: unknown): z.output<T> {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const fields = fieldsOf(parsed.error);
  const first = fields[0]!;
  throw new Problem('bad-input', `${labelAt(schema, first.path)} ${first.message}.`, fields);
}

function toResponse(error: unknown): Response {
  const problem = problemOf(error);
  if (!problem) {
    console.error(error);
    return json(
      {
        error: {
          code: 'internal',
          message: 'Something went wrong here; the log of the program has the details.',
          fields: []
        }
      },
      { status: 500 }
    );
  }
  const { code, message, fields, details, status } = problem;
  const body = { error: { code, message, fields, ...(Object.keys(details).length > 0 ? { details } : {}) } };
  return json(body, { status, headers: status === 503 ? { 'retry-after': '3' } : {} });
}

/** The cookie in which a browser keeps who sits at it. */
export const WRITER = 'writer';

/** Who the log names: what the person at this browser calls themselves, or the machine. */
export function writerOf(cookie: string | undefined): string {
  const name = (cookie ?? '').trim();
  return text('Name', 60).safeParse(name).success ? name : 'this machine';
}

/** Keeps a body that may be large in a file. A small one in JSON goes the same way. */
async function receive(request: Request, op: AnyOperation): Promise<Upload> {
  const type = contentType(request);
  const streamed = op.streams!.includes(type);
  if (!streamed && type !== 'application/json')
    throw new Problem('wrong-type', `Send ${['application/json', ...op.streams!].join(' or ')}.`);
  const length = Number(request.headers.get('content-length') ?? 0);
  const limit = streamed ? STREAM_LIMIT : (op.bodyLimit ?? BODY_LIMIT);
  return keepUpload(request.body, { type, length, limit });
}

/** A request handler for one operation: parse, do, answer; every failure mapped here and nowhere else. */
export function serve(op: AnyOperation): (event: RequestEvent) => Promise<Response> {
  // eslint-disable-next-line complexity -- one line for each part of a request that an operation may take
  return async ({ request, params, url, cookies }) => {
    try {
      const db = database();
      const parsed = op.params ? parse(op.params, params) : undefined;
      const { crateId } = (parsed ?? {}) as { crateId?: string };
      if (crateId !== undefined && !op.hidden) await getCrate(db, { id: crateId });
      const upload = op.streams ? await receive(request, op) : undefined;
      const context = {
        db,
        params: parsed,
        query: op.query ? parse(op.query, checkedQuery(url.searchParams)) : undefined,
        body: op.body && !upload ? parse(op.body, await readJson(request, op.bodyLimit ?? BODY_LIMIT)) : undefined,
        by: writerOf(cookies.get(WRITER)),
        at: new Date().toISOString(),
        request,
        ...(upload ? { upload } : {})
      };
      const answer = await op.handle(context);
      return answer instanceof Response ? answer : json(answer, { status: op.status ?? 200 });
    } catch (error) {
      return toResponse(error);
    }
  };
}
