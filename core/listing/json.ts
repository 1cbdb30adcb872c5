/** What was read of JSON that may be cut: its value, and whether its end is missing. */
export type LooseJson = { value: unknown; cut: boolean };

/** Deepest nesting that any listing has, with room to spare. */
const DEEPEST = 64;

/** Follows a text of JSON and notes where an object last ended, and what was open then. */
// eslint-disable-next-line complexity -- one line for each mark of JSON
function lastWhole(text: string): string | null {
  const open: string[] = [];
  let inText = false;
  let best: string | null = null;
  for (let i = 0; i < text.length; i++) {
    const char = text[i];
    if (inText) {
      if (char === '\\') i++;
      else if (char === '"') inText = false;
    } else if (char === '"') inText = true;
    else if (char === '{') open.push('}');
    else if (char === '[') open.push(']');
    else if (char === '}' || char === ']') {
      if (open.pop() !== char) return best;
      if (char === '}') best = text.slice(0, i + 1) + [...open].reverse().join('');
      if (open.length === 0) return text.slice(0, i + 1);
    }
    if (open.length > DEEPEST) return null;
  }
  return best;
}

/**
 * Reads JSON out of a text, with a prompt before it or without its end.
 * @returns null where there is none
 * @example readLooseJson('{"a":[{"b":1},{"b"')?.cut // true
 */
export function readLooseJson(text: string): LooseJson | null {
  const start = text.search(/[[{]/);
  if (start < 0) return null;
  const body = text.slice(start);
  const whole = lastWhole(body);
  if (whole === null) return null;
  const cut = !body.startsWith(whole);
  // A terminal may have broken a line within a word: between words a line end means nothing, so all of them can go.
  for (const text of [whole, whole.replaceAll('\n', '')])
    try {
      return { value: JSON.parse(text) as unknown, cut };
    } catch {
      // the other way, or none
    }
  return null;
}

/**
 * Gives a value as a record, nothing else.
 * @example asRecord(null) // {}
 */
export const asRecord = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {};

/**
 * Gives the members of a list; one thing alone is a list of one.
 * @example asList('a') // ['a']
 */
export const asList = (value: unknown): unknown[] =>
  Array.isArray(value) ? value : value === undefined || value === null ? [] : [value];
