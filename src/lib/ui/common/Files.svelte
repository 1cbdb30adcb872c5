<script lang="ts">
  import FilePicker from './FilePicker.svelte';
  import { day, quantity } from '#core/quantities/format';
  import type { SentChange } from '../parts/refused';
  import { notices } from '../frame/notices.svelte';

  type Props = {
    crateId: string;
    subject: { table: 'models' | 'units' | 'builds'; id: string };
    files: readonly { id: string; version: number; name: string; size: number; addedAt: string }[];
    onchange: SentChange;
  };
  let { crateId, subject, files, onchange }: Props = $props();
  const api = $derived(`/api/crates/${crateId}/attachments`);
  let busy = $state(false);

  async function add(file: File): Promise<void> {
    if (file.size > 8e6) {
      notices.add('error', `${file.name} is larger than 8 MB.`);
      return;
    }
    busy = true;
    const bytes = new Uint8Array(await file.arrayBuffer());
    let binary = '';
    for (let i = 0; i < bytes.length; i += 32_768) binary += String.fromCharCode(...bytes.subarray(i, i + 32_768));
    const type = /^[\w.+-]+\/[\w.+-]+$/.test(file.type) ? file.type : 'application/octet-stream';
    const body = { subjectTable: subject.table, subjectId: subject.id, name: file.name, type, content: btoa(binary) };
    const refusal = await onchange('POST', api, body, `Added ${file.name}.`);
    if (refusal && refusal.fields.length > 0)
      notices.add('error', `${file.name}: ${refusal.fields.map((f) => `${f.path} ${f.message}`).join('; ')}.`);
    busy = false;
  }
</script>

<div class="pick"><FilePicker label="Add a file (8 MB at most)" disabled={busy} onpick={add} /></div>
{#if files.length === 0}<p class="quiet">No file yet: a receipt, a photograph of the label, a data sheet.</p>{/if}
<ul class="lines">
  {#each files as file (file.id)}
    <li>
      <a href="{api}/{file.id}" download>{file.name}</a>
      <span class="quiet small">{quantity(file.size / 1000, 'kB')}, {day(file.addedAt)}</span>
      <button
        type="button"
        class="link"
        aria-label="Delete {file.name}"
        onclick={() => void onchange('DELETE', `${api}/${file.id}`, { version: file.version }, `Deleted ${file.name}.`)}
        >Delete</button
      >
    </li>
  {/each}
</ul>

<style>
  .pick {
    padding: 12px 0;
  }
</style>
