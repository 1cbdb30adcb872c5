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
export type Changed = { id: string; version: number; group: string; tag?: string };

/** Sends JSON to this server. Every failure comes back as a value with a sentence to show; nothing is thrown. */
export async function send<T = Changed>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown
): Promise<Answer<T>> {
  const fail = (status: number, code: string, message: string): Answer<T> => ({
    ok: false,
    failure: { status, code, message, fields: [], details: {} }
  });
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body)
    });
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
