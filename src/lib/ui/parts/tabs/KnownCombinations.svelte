<script lang="ts">
  import type { KnownPair } from '#core/parts/known-pair';
  import { day } from '#core/quantities/format';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import type { SentChange } from '../refused';
  import { pairFields } from '../record-fields';

  type Stored = { id: string; version: number; pair: KnownPair & { driveId: string } };
  type Props = {
    crateId: string;
    /** From where the pairs are seen: a drive, or an enclosure by its bridge. */
    drive?: string;
    bridge?: string | undefined;
    drives: readonly { id: string; name: string }[];
    pairs: readonly Stored[];
    today: string;
    onchange: SentChange;
  };
  let { crateId, drive, bridge, drives, pairs, today, onchange }: Props = $props();
  const api = $derived(`/api/crates/${crateId}/pairs`);
  let busy = $state(false);
  let editing = $state<Stored | null>(null);
  const fields = $derived(pairFields(drives, bridge !== undefined));

  async function onsave(record: Record<string, unknown>) {
    busy = true;
    const pair = { ...record, ...(bridge === undefined ? { driveId: drive } : { bridge }) };
    const refusal = editing
      ? await onchange('PUT', `${api}/${editing.id}`, { version: editing.version, pair }, 'Changed the pair.')
      : await onchange('POST', api, pair, 'Noted the pair.');
    if (!refusal) editing = null;
    busy = false;
    return refusal;
  }
</script>

{#key editing?.id}
  <RecordForm
    {fields}
    value={editing?.pair ?? { verdict: 'bad', date: today }}
    {busy}
    saveLabel={editing ? 'Save the pair' : 'Note the pair'}
    refusedPrefix={editing ? 'pair.' : ''}
    draftKey="draft:{crateId}:pair:{editing?.id ?? bridge ?? drive}"
    {onsave}
    {...editing ? { oncancel: () => (editing = null) } : {}}
  />
{/key}
{#if pairs.length === 0}<p class="quiet">Nothing is noted. A bad pair makes every plan with it a check.</p>{/if}
<ul class="lines">
  {#each pairs as stored (stored.id)}
    {@const { id, version, pair } = stored}
    <li>
      <strong>{pair.drive} × {pair.bridge}</strong>: {pair.verdict === 'bad' ? 'gives trouble' : 'works well'} – {pair.reason}
      <span class="quiet small">{[pair.source, pair.date ? day(pair.date) : ''].filter(Boolean).join(', ')}</span>
      <button
        type="button"
        class="link"
        aria-label="Edit {pair.drive} with {pair.bridge}"
        onclick={() => (editing = stored)}>Edit</button
      >
      <button
        type="button"
        class="link"
        aria-label="Delete {pair.drive} with {pair.bridge}"
        onclick={() => void onchange('DELETE', `${api}/${id}`, { version }, 'Deleted the pair.')}>Delete</button
      >
    </li>
  {/each}
</ul>
