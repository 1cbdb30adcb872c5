<script lang="ts" module>
  export type Entry = { title: string; detail: string; href?: string; run?: () => void; term?: string };
</script>

<script lang="ts">
  import { Modal } from 'carbon-components-svelte';

  type Props = {
    open: boolean;
    /** What is looked for. */
    words: string;
    /** Places and things to do. */
    commands: readonly Entry[];
    /** Looks for words in everything; answers with what was found. */
    find: (words: string) => Promise<Entry[]>;
    onpick: (entry: Entry) => void;
  };
  let { open = $bindable(), words = $bindable(), commands, find, onpick }: Props = $props();

  let found = $state.raw<Entry[]>([]);
  let busy = $state(false);
  let at = $state(0);
  let input = $state<HTMLInputElement>();

  $effect(() => {
    if (!open) return;
    found = [];
    at = 0;
    requestAnimationFrame(() => input?.focus());
  });
  // The newest question wins, whatever order the answers come in.
  $effect(() => {
    const asked = words.trim();
    if (asked.length < 2) {
      found = [];
      return;
    }
    busy = true;
    const timer = setTimeout(async () => {
      const answer = await find(asked);
      if (asked !== words.trim()) return;
      found = answer;
      busy = false;
    }, 120);
    return () => clearTimeout(timer);
  });
  const matching = $derived.by(() => {
    const parts = words.toLowerCase().split(/\s+/).filter(Boolean);
    return commands.filter((entry) => parts.every((p) => `${entry.title} ${entry.detail}`.toLowerCase().includes(p)));
  });
  const shown = $derived([...found, ...matching].slice(0, 14));
  const here = $derived(Math.min(at, Math.max(0, shown.length - 1)));

  function onkeydown(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown') at = Math.min(here + 1, shown.length - 1);
    else if (event.key === 'ArrowUp') at = Math.max(here - 1, 0);
    else if (event.key === 'Enter' && shown[here]) pick(shown[here]);
    else return;
    event.preventDefault();
  }
  function pick(entry: Entry): void {
    open = false;
    onpick(entry);
  }
</script>

<Modal passiveModal bind:open modalHeading="Find or do" size="sm" hasForm selectorPrimaryFocus="#palette-words">
  <input
    id="palette-words"
    bind:this={input}
    bind:value={words}
    {onkeydown}
    type="text"
    role="combobox"
    aria-expanded={shown.length > 0}
    aria-controls="palette-list"
    aria-activedescendant={shown.length > 0 ? `palette-${here}` : undefined}
    aria-label="Words, a tag, a place"
    placeholder="Words, a tag, a place"
    autocomplete="off"
    oninput={() => (at = 0)}
  />
  <ul id="palette-list" role="listbox" aria-label="Found">
    {#each shown as entry, i (`${i}${entry.title}`)}
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <li id="palette-{i}" role="option" aria-selected={i === here} class:here={i === here} onclick={() => pick(entry)}>
        <span>{entry.title}</span><span class="quiet small">{entry.detail}</span>
      </li>
    {/each}
  </ul>
  <p class="quiet small" role="status">
    {shown.length === 0 ? (busy ? 'Looking …' : words.trim() ? 'Nothing found.' : '') : ''}
  </p>
</Modal>

<style>
  input {
    width: 100%;
    height: 40px;
    padding: 0 12px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
    font-size: var(--ash-text);
  }
  ul {
    margin: 10px 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 16px;
    margin: 0;
    padding: 7px 12px;
    list-style: none;
    cursor: pointer;
  }
  li.here {
    background: var(--ash-well);
    box-shadow: inset 3px 0 0 var(--ash-ember);
  }
</style>
