/** Stations and pages that had another name once: links that were kept, and codes that were printed, go on working. */
const MOVED: readonly (readonly [RegExp, string])[] = [
  [/^(\/b\/[^/]+)\/stack(?=\/|$)/, '$1/pads'],
  [/^(\/b\/[^/]+)\/bench$/, '$1/measure'],
  [/^(\/c\/[^/]+)\/units$/, '$1/items'],
  [/^(\/c\/[^/]+)\/pairs$/, '$1/combinations'],
  [/^(\/c\/[^/]+)\/exchange$/, '$1/tables']
];

/**
 * Finds where a page has gone to, with its query.
 * @returns the address now, a path of this server; undefined for a page that never moved
 * @example movedTo(new URL('http://h/b/AC-0001/stack/heat?fan=1')) // '/b/AC-0001/pads/heat?fan=1'
 */
export function movedTo({ pathname, search }: URL): string | undefined {
  for (const [was, now] of MOVED) if (was.test(pathname)) return pathname.replace(was, now) + search;
  return undefined;
}
