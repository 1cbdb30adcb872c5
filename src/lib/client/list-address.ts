import { keepAddress, withQuery } from './address';

type Change = Record<string, string | undefined>;

/** How a list keeps what it shows in its address, so that the same address shows the same rows to everyone. */
export function listAddress(url: () => URL) {
  const href = (change: Change): string => withQuery(url(), change);
  /** Shows something else of the list, without moving the page or the cursor. */
  const show = (change: Change): void => void keepAddress(href(change));
  return {
    href,
    show,
    look: (find: string): void => show({ find }),
    pageHref: (page: number): string => href({ page: page > 1 ? String(page) : '' }),
    /** Sorts by a column; by the one that it is sorted by already, the other way round. */
    sortBy: (sort: string, now: { sort: string; down: boolean }): void =>
      show({ sort, down: now.sort === sort && !now.down ? 'yes' : '' })
  };
}
