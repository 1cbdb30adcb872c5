<script lang="ts">
  import { doesNotProve, LOOKED_LABEL, MEANS_LABEL, RECIPIENT_LABEL, type Erased } from '#core/erase/sanitise';
  import { capacity, day } from '#core/quantities/format';

  type Props = {
    seen: Erased;
    date: string;
    drive: { name: string; capacityTB: number };
    tag: string;
    item: string | undefined;
  };
  /** What was done to a drive, to print: by what means, to which serial number, when, by whom, and what it does not prove. */
  let { seen, date, drive, tag, item }: Props = $props();
</script>

<article>
  <h2>Record of erasing</h2>
  <dl>
    <dt>Drive</dt>
    <dd>{drive.name}, {capacity(drive.capacityTB)}{item ? `, ${item}` : ''}, of {tag}</dd>
    <dt>Serial number</dt>
    <dd class="figure">{seen.serial}</dd>
    <dt>What was done</dt>
    <dd>{MEANS_LABEL[seen.means]}; {LOOKED_LABEL[seen.looked]}</dd>
    {#if seen.tool}<dt>With what</dt>
      <dd>{seen.tool}</dd>{/if}
    <dt>When</dt>
    <dd>{day(date)}</dd>
    <dt>By whom</dt>
    <dd>{seen.who}</dd>
    <dt>What for</dt>
    <dd>{RECIPIENT_LABEL[seen.recipient]}</dd>
    {#if seen.note}<dt>Note</dt>
      <dd>{seen.note}</dd>{/if}
  </dl>
  <h3>What this does not prove</h3>
  <ul>
    {#each doesNotProve(seen) as line (line)}<li>{line}</li>{/each}
  </ul>
  <p class="sign">Signature</p>
</article>

<style>
  article {
    max-width: 46rem;
    padding: 18px 22px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
  }
  dl {
    display: grid;
    grid-template-columns: 9rem minmax(0, 1fr);
    gap: 4px 14px;
    margin: 10px 0;
  }
  dt {
    color: var(--ash-soft);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
    white-space: normal;
  }
  h3 {
    margin: 10px 0 2px;
    font-size: var(--ash-text);
    font-weight: 650;
  }
  li {
    margin-left: 1.1em;
    list-style: disc;
  }
  .sign {
    width: 18rem;
    margin-top: 44px;
    padding-top: 4px;
    border-top: 1px solid var(--ash-edge);
    color: var(--ash-soft);
    font-size: var(--ash-text-small);
  }
</style>
