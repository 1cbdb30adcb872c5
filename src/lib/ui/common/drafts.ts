/**
 * What was typed and not saved yet, in this browser: a reload, a crash or a page that is left by mistake loses nothing. Read after
 * the page has come alive, for the server knows nothing of it.
 */
export function keptDraft<T>(key: string): T | undefined {
  const text = localStorage.getItem(key);
  if (text === null) return undefined;
  try {
    return JSON.parse(text) as T;
  } catch {
    localStorage.removeItem(key);
    return undefined;
  }
}

/** Keeps it; where the browser has no room for it, typing goes on without. */
export function keepDraft(key: string, value: unknown): void {
  try {
    localStorage.setItem(key, JSON.stringify(value));
  } catch {
    // full, or forbidden: nothing that the person could do about it while typing
  }
}

export const dropDraft = (key: string): void => localStorage.removeItem(key);
