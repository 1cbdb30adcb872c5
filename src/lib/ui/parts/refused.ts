/** Why a change was not made: a sentence, and what was wrong at which path. */
export type Refusal = { message: string; fields: readonly { path: string; message: string }[] };
/** What is said of a change, and where it leads: to a page, by the id of what was made, and where its undo leads. */
export type Outcome = { words: string; to?: (id: string) => string; undone?: string };
/** Sends a change and says what became of it. @returns the refusal, or nothing when it was made */
export type SentChange = (
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown,
  outcome: string | Outcome
) => Promise<Refusal | undefined>;

/** What the server refused, by the path that the form uses. */
export function refusedFields(
  fields: readonly { path: string; message: string }[],
  prefix: string
): Record<string, string> {
  return Object.fromEntries(
    fields.map(({ path, message }) => [
      path.startsWith(prefix) ? path.slice(prefix.length) : path,
      `${message.charAt(0).toUpperCase()}${message.slice(1)}.`
    ])
  );
}
