import { untrack } from 'svelte';

export type Shortcut = { keys: string; label: string; run: () => void };

const STORE = 'single-keys';
// Replaced, never changed in place: the effects that add keys must not come to depend on them.
let sets = $state.raw<readonly Shortcut[][]>([]);
const setting = $state({ on: true, help: false });

/** What letters are typed into. */
const FIELD = 'input, textarea, select, [contenteditable="true"], [role="combobox"]';
const within = (target: EventTarget | null, selector: string) =>
  target instanceof Element && target.closest(selector) !== null;

/** Single keys must never fire while someone types, picks from a menu or answers a dialog. */
export function isTyping(target: EventTarget | null): boolean {
  return within(target, `${FIELD}, [role="menu"], [role="dialog"], dialog`);
}

export const keys = {
  get list(): readonly Shortcut[] {
    return sets.flat();
  },
  setting,
  load(): void {
    setting.on = localStorage.getItem(STORE) !== 'off';
  },
  turn(on: boolean): void {
    setting.on = on;
    localStorage.setItem(STORE, on ? 'on' : 'off');
  },
  /** @returns takes the keys away again */
  add(list: Shortcut[]): () => void {
    sets = [...untrack(() => sets), list];
    return () => {
      sets = untrack(() => sets).filter((set) => set !== list);
    };
  }
};

/** What Space presses, opens or chooses by itself. */
const PRESSABLE = 'button, a, summary, label, [role="tab"], [role="option"], [role="listbox"], [role="button"]';

/**
 * Whether the last key went into a field that was not left since: by a press elsewhere, by Tab, Escape or Enter, or by the focus going
 * to something else. Where a page redraws what one types in, the focus is lost, and the next letters are still meant for the field.
 */
let inField = false;

/** For the window: a press, or the focus arriving somewhere, leaves the field for good. */
export function onleave(event: Event): void {
  if (event.type === 'pointerdown' || !isTyping(event.target)) inField = false;
}

let pending = '';
let pendingAt = 0;

/** For the window's keydown: one key, or two in a row (`g` then a letter) within a second and a half. */
// eslint-disable-next-line complexity -- one line for each state in which a key is no shortcut
export function onkeydown(event: KeyboardEvent): void {
  if (isTyping(event.target)) {
    inField = within(event.target, FIELD) && !['Tab', 'Escape', 'Enter'].includes(event.key);
    return;
  }
  if (inField && event.key.length === 1) return;
  if (!setting.on || event.ctrlKey || event.metaKey || event.altKey || document.querySelector('.bx--modal.is-visible'))
    return;
  if (event.key === ' ' && within(event.target, PRESSABLE)) return;
  if (event.key === '?') {
    setting.help = true;
    event.preventDefault();
    return;
  }
  const typed = event.timeStamp - pendingAt < 1500 ? `${pending} ${event.key}`.trim() : event.key;
  const found =
    sets.flat().findLast((key) => key.keys === typed) ?? sets.flat().findLast((key) => key.keys === event.key);
  if (found) {
    pending = '';
    event.preventDefault();
    found.run();
    return;
  }
  pending = sets.flat().some((key) => key.keys.startsWith(`${event.key} `)) ? event.key : '';
  pendingAt = event.timeStamp;
}
