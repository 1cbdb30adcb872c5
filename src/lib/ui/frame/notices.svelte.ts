export type Notice = {
  id: number;
  kind: 'success' | 'error' | 'info';
  text: string;
  action?: { label: string; run: () => void };
  /** Where to look for what the message is about. */
  links?: readonly { label: string; href: string }[];
};

/** Where a piece of the program that is loaded when it is needed did not come. */
export const NOT_LOADED = 'This could not be loaded. Reload the page once Ash Crate answers.';

let next = 1;
const list = $state<Notice[]>([]);

/** Short messages at the foot of the page, newest last. Those with an action stay long enough to reach it. */
export const notices = {
  get list(): readonly Notice[] {
    return list;
  },
  add(kind: Notice['kind'], text: string, action?: Notice['action'], links?: Notice['links']): void {
    const id = next++;
    // What went wrong before is over once something has gone right; what went right can still be undone.
    if (kind === 'success') for (const old of list.filter((notice) => notice.kind === 'error')) this.remove(old.id);
    list.push({ id, kind, text, ...(action ? { action } : {}), ...(links?.length ? { links } : {}) });
    if (list.length > 4) list.shift();
    if (kind !== 'error') setTimeout(() => this.remove(id), action ? 20_000 : 6_000);
  },
  remove(id: number): void {
    const at = list.findIndex((notice) => notice.id === id);
    if (at >= 0) list.splice(at, 1);
  }
};
