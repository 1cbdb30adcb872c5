<script lang="ts">
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import { Button, TextInput } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import type { ComponentProps } from 'svelte';
  import ItemTable from '$lib/ui/items/ItemTable.svelte';
  import { dayHere } from '$lib/ui/common/day-here';
  import { tagIn } from '$lib/ui/items/scanned';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  let typed = $state('');
  let problem = $state('');
  let busy = $state(false);
  type Found = ComponentProps<typeof ItemTable>['rows'][number];
  let found = $state.raw<Found[]>([]);

  async function look(text: string): Promise<void> {
    problem = '';
    found = [];
    const tag = tagIn(text);
    if (!tag) return void (problem = 'Type a tag such as D-004, a name, a place or a person, or scan a label.');
    busy = true;
    const [byTag, byWord] = await Promise.all([
      table(`tag=${encodeURIComponent(tag)}`),
      table(`find=${encodeURIComponent(text)}`)
    ]);
    busy = false;
    if (!byTag || !byWord) return void (problem = 'Ash Crate is not answering.');
    const rows = byTag.length > 0 ? byTag : byWord;
    const [only, ...more] = rows;
    if (!only)
      problem = `Nothing in this crate is called “${text.trim().slice(0, 60)}”: no tag, part, place or person.`;
    else if (more.length === 0) await goto(`${home}/u/${encodeURIComponent(only.unit.tag)}`);
    else found = rows;
  }
  /** Items that an address of the table gives; nothing where nobody answers. */
  async function table(query: string): Promise<Found[] | undefined> {
    const response = await fetch(`/api/crates/${data.crate.id}/units/table?size=25&${query}`).catch(() => undefined);
    return response?.ok ? ((await response.json()) as { rows: Found[] }).rows : undefined;
  }
  /** Reads the code in a photograph or a saved picture; nothing leaves the browser. */
  async function fromPicture(file: File): Promise<void> {
    problem = '';
    busy = true;
    try {
      const [{ default: jsQR }, bitmap] = await Promise.all([import('jsqr'), createImageBitmap(file)]);
      const scale = Math.min(1, 1600 / Math.max(bitmap.width, bitmap.height));
      const canvas = document.createElement('canvas');
      canvas.width = Math.round(bitmap.width * scale);
      canvas.height = Math.round(bitmap.height * scale);
      const context = canvas.getContext('2d', { willReadFrequently: true })!;
      context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
      const image = context.getImageData(0, 0, canvas.width, canvas.height);
      const code = jsQR(image.data, image.width, image.height);
      if (code) await look(code.data);
      else problem = 'No code can be read in this picture. Closer, flatter, more light – or type the tag.';
    } catch {
      problem = 'This file is no picture that the browser can show.';
    }
    busy = false;
  }
</script>

<svelte:head><title>Find an item · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <h1>Find an item</h1>
  <p class="quiet">Which one it is, where it belongs, what it is in and who has it.</p>
  <form
    onsubmit={(e) => {
      e.preventDefault();
      void look(typed);
    }}
  >
    <TextInput
      size="xl"
      labelText="Tag, name, place or person; typed or from a hand scanner"
      placeholder="D-004"
      bind:value={typed}
      invalid={problem !== ''}
      invalidText={problem}
      autocomplete="off"
      autofocus
    />
    <Button type="submit" disabled={busy}>Find</Button>
  </form>
  {#if found.length > 0}
    <p role="status">{found.length} items have that in their tag, part, place or holder:</p>
    <ItemTable rows={found} {home} today={dayHere()} />
  {/if}
  <p class="photograph">
    <FilePicker label="Or photograph the label" camera accept={['image/*']} disabled={busy} onpick={fromPicture} />
  </p>
  <p class="small quiet">The picture is read in the browser and goes nowhere.</p>
</div>

<style>
  form {
    display: flex;
    align-items: flex-start;
    gap: 12px;
    max-width: 560px;
    margin: 18px 0;
  }
  form :global(.bx--btn) {
    margin-top: 24px;
  }
  .photograph {
    margin-top: 18px;
  }
</style>
