import { browser } from '$app/environment';
import { goto } from '$app/navigation';

/** An address with some of its query changed; what is empty is taken out, and a change of anything else begins at page one. */
export function withQuery(url: URL, change: Record<string, string | undefined>): string {
  const query = new URLSearchParams(url.searchParams);
  if (!('page' in change)) query.delete('page');
  for (const [key, value] of Object.entries(change)) {
    if (value === undefined || value === '') query.delete(key);
    else query.set(key, value);
  }
  const text = query.toString();
  return text ? `${url.pathname}?${text}` : url.pathname;
}

/** Goes there without moving the page or the cursor: for searching while typing. */
export const keepAddress = (href: string): Promise<void> =>
  goto(href, { keepFocus: true, noScroll: true, replaceState: true });

/**
 * What the address bar asks for. A page that keeps its state there with `replaceState` finds it again when one comes back to it:
 * the page's own `url` is then still the one that was first gone to.
 */
export const queryOf = (url: URL): URLSearchParams =>
  browser ? new URLSearchParams(location.search) : url.searchParams;
