import type { Choice } from '#core/build/choice';

/** Why a change was not made: a sentence, its code, and what was wrong at which path. */
export type Refusal = {
  code: string;
  message: string;
  fields: readonly { path: string; message: string }[];
  details: Readonly<Record<string, unknown>>;
};
/** What a change answers with, where it makes something: its id, its tag, its address. */
export type Made = { id: string; version: number; tag?: string; slug?: string } & Partial<{
  choice: Partial<Choice>;
  added: number;
}>;
/** What is said of a change, and where it leads. */
export type Outcome = {
  words: string | ((made: Made) => string);
  /** The page to go to once it is made. */
  to?: (made: Made) => string;
  /** What else is done once it is made, before the page is left or loaded again. */
  then?: () => void;
  /** Where undo leads, or what it does besides. */
  undone?: string | (() => void);
  /** What a refusal is called by the page, where it knows better; nothing where the page shows it itself. */
  refused?: (refusal: Refusal) => string | undefined;
};
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
