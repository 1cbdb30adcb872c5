<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import type { Imprint } from '#core/temperature-logs/observation';
  import type { StackChoice } from '#core/pads/choice';
  import { changesOf } from '$lib/client/change';
  import BoardDrawings from '$lib/ui/pads/BoardDrawings.svelte';
  import PadDecision from '$lib/ui/pads/PadDecision.svelte';
  import { PadStation } from '$lib/ui/pads/station.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const change = $derived(changesOf(data.crate.id));
  const station = new PadStation(() => ({
    library: data.library,
    choice: data.build.choice,
    snapshot: data.build.snapshot,
    rules: data.crate.houseRules
  }));
  let busy = $state(false);
  $effect(() => {
    void data.build.version;
    void data.versions.drive;
    station.forget();
  });
  const { board, edited, tried } = $derived(station);
  const lastImprint = $derived(data.observations.find((o) => o.kind === 'imprint'));

  /** Sends a change; what was tried is loaded anew with what is kept. */
  async function keep(method: 'POST' | 'PUT', path: string, body: unknown, words: string): Promise<boolean> {
    busy = true;
    const refusal = await change(method, `${api}/${path}`, body, { words, refused: ({ message }) => message });
    busy = false;
    return refusal === undefined;
  }
  async function keepBoard(): Promise<void> {
    const { id: _, ...spec } = station.drive as typeof station.drive & { id?: string };
    const body = { version: data.versions.drive, spec };
    const words = `${spec.name}: chips on the board kept.`;
    if (await keep('PUT', `models/${data.build.choice.driveId}`, body, words)) station.edited = null;
  }
  async function keepPads(stack: StackChoice | null, words: string): Promise<void> {
    const { id, name, stage, version, choice } = data.build;
    const body = { version, name, stage, choice: { ...choice, stack } };
    if (await keep('PUT', `builds/${id}`, body, words)) station.tried = null;
  }
  async function record(seen: Record<number, { onChip: Imprint; onCase: Imprint }>, note: string): Promise<void> {
    const check = station.imprintOf(seen, note);
    const body = { kind: 'imprint', date: data.today, seen: check };
    if (await keep('POST', `builds/${data.build.id}/observations`, body, 'The imprint check is kept.'))
      station.afterImprint(check);
  }
</script>

<svelte:head><title>{tag} Pads and heat · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Pads and heat</h1>
      <p class="quiet">
        {station.input.drive.name} in {station.input.enclosure.name}: board and pads to scale, in millimetres.
      </p>
    </div>
    {#if edited && board}
      <Button
        size="small"
        disabled={busy || station.problems.length > 0 || data.versions.drive === null}
        on:click={keepBoard}>Keep these chips</Button
      >
      <Button kind="ghost" size="small" on:click={() => (station.edited = null)}>Discard</Button>
    {/if}
    {#if tried}
      <Button size="small" disabled={busy || edited !== null} on:click={() => keepPads(tried, `${tag}: pads kept.`)}
        >Use these pads</Button
      >
      <Button kind="ghost" size="small" on:click={() => (station.tried = null)}>Back to what is kept</Button>
    {:else if data.build.choice.stack}
      <Button
        kind="ghost"
        size="small"
        disabled={busy}
        on:click={() => keepPads(null, `${tag}: pads are chosen by the program again.`)}>Let the program choose</Button
      >
    {/if}
  </div>

  {#if !station.isM2 || !board}
    <div class="empty">
      <h2>No pads here</h2>
      <p>
        {station.input.drive.formFactor === 'm2'
          ? 'The enclosure takes no M.2 module, so there is no stack to plan.'
          : 'A 2.5- or 3.5-inch drive lies in a shell of its own and gives its heat to the case through it; pads belong on M.2 modules.'}
      </p>
      <p><a href="/b/{tag}/pads/heat">Heat over time</a></p>
    </div>
  {:else}
    <div class="two-columns">
      <section aria-label="Board and section">
        <Piece
          >{#if station.isM2 && board}<BoardDrawings {station} />{/if}</Piece
        >
      </section>
      <section aria-label="Pads">
        <PadDecision
          {station}
          {tag}
          kept={data.build.choice.stack !== undefined}
          stacking={data.crate.houseRules['gap-not-closed'] === 'stack'}
          last={lastImprint?.kind === 'imprint' ? lastImprint : undefined}
          {busy}
          onrecord={record}
        />
      </section>
    </div>
  {/if}
</div>
