<script lang="ts">
  import type { FoundLater } from '#core/diagnosis/found';
  import { readSystemLog } from '#core/diagnosis/system-log';
  import { counted } from '#core/quantities/format';

  type Props = {
    found: FoundLater;
    /** What each test that was tried asked and showed, in words. */
    tried: readonly { test: string; text: string }[];
    busy: boolean;
    /** Keeps it; tells whether it was kept. */
    onchange: (found: FoundLater) => Promise<boolean>;
  };
  /** What else is known of a run: the speed that the system shows, lines of its log, and the tests that were tried. */
  let { found, tried, busy, onchange }: Props = $props();
  const SPEEDS = [0.48, 5, 10, 20, 40, 80];
  let log = $state('');
  const read = $derived(log.trim() === '' ? null : readSystemLog(log));
  const LONGEST = 100_000;

  /** Only lines that say something are kept, the last of them, so that a long log fits; what was pasted stays until they are. */
  async function keepLog(): Promise<void> {
    const kept = await onchange({ ...found, log: (read?.said ?? []).join('\n').slice(-LONGEST) });
    if (kept) log = '';
  }
  function without<K extends keyof FoundLater>(key: K): FoundLater {
    const rest = { ...found };
    delete rest[key];
    return rest;
  }
</script>

<details class="no-print">
  <summary>Say more: the speed that is shown, lines of the system’s log</summary>
  <div class="fields">
    <label
      >Speed that the system shows
      <select
        disabled={busy}
        value={found.negotiatedGbps ?? ''}
        onchange={(e) => {
          const value = Number(e.currentTarget.value);
          void onchange(value > 0 ? { ...found, negotiatedGbps: value } : without('negotiatedGbps'));
        }}
      >
        <option value="">I do not know</option>
        {#each SPEEDS as gbps (gbps)}<option value={gbps}>{gbps < 1 ? '480 Mb/s, USB 2.0' : `${gbps} Gb/s`}</option
          >{/each}
      </select></label
    >
    <label
      >Lines of the system’s log, from the time of the run
      <textarea
        rows="4"
        bind:value={log}
        placeholder="Linux: dmesg. macOS: log show. Windows: Event Viewer, System."
        spellcheck="false"></textarea></label
    >
    {#if read}<p class="small" role="status">
        {read.said.length === 0
          ? `None of ${counted(read.lines, 'line')} says anything about the connection that is known here.`
          : `${read.said.length} of ${counted(read.lines, 'line')} ${read.said.length === 1 ? 'says' : 'say'} something.`}
        <button type="button" disabled={busy || read.said.length === 0} onclick={() => void keepLog()}
          >Take them into account</button
        >
      </p>{/if}
    {#if found.log}<p class="small">
        {counted(found.log.split('\n').length, 'line')} of the log kept.
        <button type="button" class="link" disabled={busy} onclick={() => void onchange(without('log'))}
          >Leave them out</button
        >
      </p>{/if}
  </div>
</details>
{#if tried.length > 0}
  <h2>Tried so far</h2>
  <ul class="tried">
    {#each tried as one (one.test)}
      <li>
        <span>{one.text}</span>
        <button
          type="button"
          class="link no-print"
          disabled={busy}
          aria-label="Take back: {one.text}"
          onclick={() => void onchange({ ...found, tried: found.tried.filter(({ test }) => test !== one.test) })}
          >Take back</button
        >
      </li>
    {/each}
  </ul>
{/if}

<style>
  summary {
    padding: 8px 0;
    cursor: pointer;
  }
  .fields {
    display: grid;
    gap: 10px;
    max-width: 46rem;
    padding-bottom: 10px;
  }
  label {
    display: grid;
    gap: 4px;
  }
  select,
  textarea {
    padding: 6px 8px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: inherit;
    font: inherit;
  }
  textarea {
    width: 100%;
  }
  .fields button:not(.link) {
    margin-left: 8px;
    padding: 4px 12px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .tried {
    max-width: 60rem;
    padding: 0;
    list-style: none;
  }
  .tried li {
    display: flex;
    gap: 14px;
    justify-content: space-between;
    padding: 5px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  .tried .link {
    flex: none;
  }
</style>
