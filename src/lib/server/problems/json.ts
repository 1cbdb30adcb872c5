import { Problem, type FieldProblem } from './problem';

/** Nothing that is sent here is nested deeper; more would run out of stack somewhere behind. */
export const DEEPEST = 40;

const OPEN = new Set([0x5b, 0x7b]);
const CLOSE = new Set([0x5d, 0x7d]);
const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** How deep lists and objects are nested in a JSON text, and how many there are; in one pass over its bytes, before it is parsed. */
export function jsonShape(bytes: Uint8Array): { depth: number; containers: number } {
  let [depth, deepest, containers] = [0, 0, 0];
  let inText = false;
  for (let i = 0; i < bytes.length; i++) {
    const byte = bytes[i]!;
    if (inText) {
      if (byte === BACKSLASH) i++;
      else if (byte === QUOTE) inText = false;
    } else if (byte === QUOTE) inText = true;
    else if (OPEN.has(byte)) {
      containers++;
      if (++depth > deepest) deepest = depth;
    } else if (CLOSE.has(byte)) depth--;
  }
  return { depth: deepest, containers };
}

/** Half of a character that needs two, or a control character that is no line end and no tab. */
// eslint-disable-next-line no-control-regex -- control characters are what it looks for
const ODD = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|\p{Cs}/u;

/** @returns where in a value there is text that no person can have typed: the one place in which it is looked for */
export function oddText(value: unknown, path = ''): FieldProblem | undefined {
  if (typeof value === 'string')
    return ODD.test(value) ? { path, message: 'holds characters that cannot be shown' } : undefined;
  if (value === null || typeof value !== 'object') return undefined;
  for (const [key, inner] of Object.entries(value)) {
    const below = path ? `${path}.${key}` : key;
    if (ODD.test(key)) return { path, message: 'holds a name with characters that cannot be shown' };
    const found = oddText(inner, below);
    if (found) return found;
  }
  return undefined;
}

/**
 * Parses a JSON text that came from outside.
 * @param under the path of the field that holds it, where it is a text within a body
 * @throws Problem `bad-input` where it is no JSON, nested too deep, or holds characters that cannot be shown
 */
export function checkedJson(bytes: Uint8Array, under = ''): unknown {
  const refuse = (message: string, path = '') => {
    // The sentence is for people; the path, which is for programs, stands in the list of fields.
    const what = path ? 'A text in it' : under ? 'The file' : 'The body';
    return new Problem('bad-input', `${what} ${message}.`, [
      { path: [under, path].filter(Boolean).join('.'), message }
    ]);
  };
  const { depth } = jsonShape(bytes);
  if (depth > DEEPEST) throw refuse(`is nested more than ${DEEPEST} deep`);
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    throw refuse('is not valid JSON');
  }
  const odd = oddText(value);
  if (odd) throw refuse(odd.message, odd.path);
  return value;
}
