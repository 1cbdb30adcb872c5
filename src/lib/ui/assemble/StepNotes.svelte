<script lang="ts">
  import type { SheetStep } from '#core/sheets/sheet';
  import When from '../common/When.svelte';
  import type { SheetActs } from './acts';

  /** What was noted and photographed at a step, and the way to add more. */
  let { step, acts, wide = false }: { step: SheetStep; acts: SheetActs; wide?: boolean } = $props();
  let writing = $state(false);
  let text = $state('');
  let unit = $state('');
  const id = $props.id();
  const notes = $derived(acts.entries.filter((entry) => entry.stepId === step.id && entry.note));
  const photos = $derived(acts.photos.filter((photo) => photo.stepId === step.id));
  const tagOf = (unitId: string | null | undefined) => acts.items.find((item) => item.id === unitId)?.tag;
  const asks = $derived(step.ask !== undefined && (step.code === 'keep-spares' || step.code === 'compare-serial'));

  function keep(): void {
    const said = text.trim();
    if (said === '') return;
    if (asks) acts.say(step.id, said);
    else acts.note(step.id, said);
    text = '';
    writing = false;
  }
  /** Whoever opened the field wants to write into it. */
  function focusIt(node: HTMLElement): void {
    if (writing) node.focus();
  }
  function pick(event: Event & { currentTarget: HTMLInputElement }): void {
    const file = event.currentTarget.files?.[0];
    event.currentTarget.value = '';
    if (file) acts.photograph(step.id, unit || undefined, file);
  }
</script>

{#if notes.length > 0}
  <ul class="notes">
    {#each notes as note (note.key)}
      <li>
        <span>{tagOf(note.unitId) ? `${tagOf(note.unitId)}: ` : ''}{note.note}</span>
        <span class="quiet small">{note.by}, <When at={note.at} /></span>
        <button
          type="button"
          class="link no-print"
          aria-label="Take away the note: {note.note}"
          onclick={() => acts.removeNote(note.key)}>Take away</button
        >
      </li>
    {/each}
  </ul>
{/if}
{#if photos.length > 0}
  <ul class="photos">
    {#each photos as photo (photo.id)}
      <li>
        <a href="{acts.photoBase}/{photo.id}" target="_blank" rel="noreferrer"
          ><img
            src="{acts.photoBase}/{photo.id}"
            alt="Photograph {photo.name}{tagOf(photo.unitId) ? ` of ${tagOf(photo.unitId)}` : ''}"
            loading="lazy"
            width="120"
            height="90"
          /></a
        >
        <span class="small"
          >{tagOf(photo.unitId) ?? photo.name}
          <button
            type="button"
            class="link no-print"
            aria-label="Delete the photograph {photo.name}"
            onclick={() => acts.removePhoto(photo)}>Delete</button
          ></span
        >
      </li>
    {/each}
  </ul>
{/if}
{#if writing || asks}
  <form
    class="write no-print"
    onsubmit={(e) => {
      e.preventDefault();
      keep();
    }}
  >
    <label for="{id}-note">{asks ? step.ask : 'Note on this step'}</label>
    <input id="{id}-note" type="text" maxlength="1000" bind:value={text} {@attach focusIt} />
    <button type="submit" class="plain" disabled={text.trim() === ''}>Keep</button>
    {#if writing}<button type="button" class="plain" onclick={() => ((writing = false), (text = ''))}>Cancel</button
      >{/if}
  </form>
{/if}
<div class="add no-print" class:wide>
  {#if !writing && !asks}<button type="button" class="plain" onclick={() => (writing = true)}>Note</button>{/if}
  {#if acts.items.length > 0 && !step.once}
    <select aria-label="Item of the photograph" bind:value={unit}>
      <option value="">all items</option>
      {#each acts.items as item (item.id)}<option value={item.id}>{item.tag}</option>{/each}
    </select>
  {/if}
  <label class="plain file" class:busy={acts.busy}>
    Photograph
    <input
      type="file"
      accept="image/jpeg,image/png,image/webp"
      disabled={acts.busy}
      aria-label="Photograph for: {step.text}"
      onchange={pick}
    />
  </label>
</div>

<style>
  .notes,
  .photos {
    margin: 4px 0;
    padding: 0;
    list-style: none;
  }
  .notes li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: baseline;
    overflow-wrap: anywhere;
  }
  .photos {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
  .photos li {
    display: grid;
    gap: 2px;
  }
  img {
    display: block;
    object-fit: cover;
    background: var(--ash-well);
    border: 1px solid var(--ash-line);
  }
  .add,
  .write {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    align-items: center;
    margin-top: 4px;
  }
  .write input {
    flex: 1 1 12rem;
    min-height: 32px;
    padding: 0 8px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
  }
  .write label {
    flex: 1 0 100%;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .plain,
  select {
    min-height: 28px;
    padding: 2px 10px;
    border: 1px solid var(--ash-line);
    background: none;
    color: var(--ash-soft);
    font-size: var(--ash-text-small);
    cursor: pointer;
  }
  .plain:disabled,
  .busy {
    opacity: 0.5;
  }
  .file {
    position: relative;
    display: inline-flex;
    align-items: center;
  }
  .file input {
    position: absolute;
    inset: -1px;
    width: calc(100% + 2px);
    height: calc(100% + 2px);
    opacity: 0;
    cursor: pointer;
  }
  .file:focus-within {
    outline: 2px solid var(--ash-ember);
    outline-offset: 2px;
  }
  .file input::file-selector-button {
    width: 100%;
    height: 100%;
  }
  @media (max-width: 672px) {
    .plain,
    select,
    .write input {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>
