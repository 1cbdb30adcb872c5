type FieldProblem = { path: string; message: string };

export type Failure = {
  status: number;
  code: string;
  message: string;
  fields: FieldProblem[];
  details: Record<string, unknown>;
};
export type Answer<T> = { ok: true; data: T } | { ok: false; failure: Failure };

/** What a change answers with; `group` takes it back. */
export type ChangeAnswer = { id: string; version: number; group: string; tag?: string };

/** Sends a file as it is, however large: the browser reads it while it goes. */
export const sendFile = <T>(path: string, file: File): Promise<Answer<T>> =>
  request(path, { method: 'POST', headers: { 'content-type': typeOf(file) }, body: file });

const typeOf = (file: File) => (/\.json$/i.test(file.name) ? 'application/json' : 'application/gzip');

/** Sends JSON to this server. Every failure comes back as a value with a sentence to show; nothing is thrown. */
export const send = <T = ChangeAnswer>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown
): Promise<Answer<T>> =>
  request(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

/** Asks this server for something. Failures come back as values, as those of `send`. */
export const ask = <T>(path: string): Promise<Answer<T>> => request(path, { method: 'GET' });

async function request<T>(path: string, init: RequestInit): Promise<Answer<T>> {
  const fail = (status: number, code: string, message: string): Answer<T> => ({
    ok: false,
    failure: { status, code, message, fields: [], details: {} }
  });
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    return fail(0, 'offline', 'Ash Crate is not answering. What you typed is still here; try again when it is back.');
  }
  const data: unknown = await response.json().catch(() => undefined);
  if (response.ok) return { ok: true, data: data as T };
  const error = (data as { error?: Partial<Failure> } | undefined)?.error;
  if (!error?.message)
    return fail(response.status, 'internal', `The server answered ${response.status} without a reason.`);
  return {
    ok: false,
    failure: {
      status: response.status,
      code: error.code ?? 'internal',
      message: error.message,
      fields: error.fields ?? [],
      details: error.details ?? {}
    }
  };
}
