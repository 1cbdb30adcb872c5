<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import When from './When.svelte';

  type Past = { seq: number; at: string; by: string; kind: string; message: string; group?: string; undone: boolean };
  /** Who did what when, newest first; what can be undone has its button. */
  let { list, onundo }: { list: readonly Past[]; onundo?: (group: string) => void } = $props();
</script>

{#if list.length === 0}
  <p class="quiet">Nothing has happened yet.</p>
{:else}
  <Wide label="History"
    ><table class="plain-table">
      <thead><tr><th>When</th><th>Who</th><th>What</th><th class="no-print"></th></tr></thead>
      <tbody>
        {#each list as event (event.seq)}
          <tr>
            <td class="figure"><When at={event.at} /></td>
            <td>{event.by}</td>
            <td
              >{event.message}{#if event.undone}<span class="quiet small">&ensp;undone</span>{/if}</td
            >
            <td class="no-print">
              {#if event.group && onundo}
                {@const group = event.group}
                <button type="button" class="link" aria-label="Undo: {event.message}" onclick={() => onundo(group)}
                  >Undo</button
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table></Wide
  >
{/if}
