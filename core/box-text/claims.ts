import type { Kind } from '../parts/kinds.ts';

/** A stretch of the text, as offsets into what was pasted. */
export type Span = { start: number; end: number };

/**
 * One claim that the text makes about one field.
 * `sure`: the words name the field and its unit; `likely`: it follows from them by what is usual.
 */
export type Claim = Span & { path: string; value: unknown; sure: boolean };

/** A field that was read: the value, the words it came from, and how sure it is. */
export type Found = { path: string; value: unknown; words: string[]; spans: Span[]; sure: boolean };

/** A field on which the text is open or at odds with itself: it is asked, never guessed. */
export type OpenQuestion = {
  path: string;
  why: string;
  options: { value: unknown; words: string }[];
  spans: Span[];
};

export type BoxReading = {
  kind: Kind;
  /** False where the text could be of another kind too. */
  kindSure: boolean;
  name: string;
  found: Found[];
  questions: OpenQuestion[];
};

/** What one kind's extractor gives: claims to be settled, and questions that are already clear. */
export type Gathered = { claims: Claim[]; questions: OpenQuestion[] };
