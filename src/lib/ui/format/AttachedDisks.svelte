<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import type { LinkMode } from '#core/facts/link-modes';
  import { linkRemark, type AttachedReport } from '#core/format/attached';
  import { quantity } from '#core/quantities/format';
  import StateMark from '../common/StateMark.svelte';

  type Props = {
    report: AttachedReport | undefined;
    failed: boolean;
    mode: LinkMode | null;
    /** Which device is the build's, where that is known. */
    own: string | undefined;
    onuse: (text: string) => void;
    onnext: () => void;
    onlook: () => void;
  };
  /** What is plugged in now, beside what the plan expects. */
  let { report, failed, mode, own, onuse, onnext, onlook }: Props = $props();
  const MARK = { 'as-planned': 'pass', slower: 'limit', unknown: 'note' } as const;
</script>

<section aria-label="Attached disks">
  <h2>
    Attached now
    {#if report?.source === 'simulated'}<span class="simulated">simulated</span>{/if}
  </h2>
  {#if failed}
    <p>The attached disks could not be read. <button type="button" class="link" onclick={onlook}>Look again</button></p>
  {:else if !report}
    <p class="quiet">Looking …</p>
  {:else}
    <p class="small quiet">
      {#if report.source === 'simulated'}
        A stand-in, not this computer: {report.event} Mark the computer as “Ash Crate runs here” on its page to see its real
        disks (Linux only).
      {:else}
        Read from this machine by lsblk and its files, without rights; it changes as disks are plugged and pulled.
        {report.note ?? ''}
      {/if}
    </p>
    {#if report.devices.length > 0}
      <ul>
        {#each report.devices as disk (disk.device)}
          {@const remark = disk.device === own ? linkRemark(mode, disk) : undefined}
          <li>
            <strong class="figure">{disk.device}</strong>
            <span>
              {disk.model ?? 'no name'}, {disk.approxGB === null ? 'no size' : quantity(disk.approxGB, 'GB')}, serial
              number
              <span class="figure">{disk.serial ?? 'none'}</span>{disk.linkGbps === undefined
                ? ''
                : `, ${quantity(disk.linkGbps, 'Gb/s')}${disk.lanes ? ` over ${disk.lanes} lanes` : ''}`}{disk.transport
                ? `, ${disk.transport}`
                : ''}{disk.trim === undefined ? '' : disk.trim ? ', TRIM' : ', no TRIM'}{disk.sectorBytes
                ? `, ${disk.sectorBytes} B sectors`
                : ''}{disk.filesystem ? `, ${disk.filesystem}` : ''}{disk.mounts.length > 0
                ? `, at ${disk.mounts.join(', ')}`
                : ''}
              {#if disk.systemDisk}<span class="system">the system runs from it</span>{/if}
            </span>
            {#if remark}
              <p class={remark.tone}><StateMark mark={MARK[remark.tone]} size={15} /> {remark.says}</p>
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
    <p class="acts no-print">
      <Button size="small" kind="tertiary" disabled={report.text === ''} on:click={() => onuse(report.text)}
        >Take this list into the guard</Button
      >
      {#if report.source === 'simulated'}
        <Button size="small" kind="ghost" on:click={onnext}>Plug or pull the next</Button>
      {/if}
    </p>
  {/if}
</section>

<style>
  .simulated {
    padding: 1px 7px;
    border: 1px solid var(--ash-note);
    color: var(--ash-note);
    font-size: var(--ash-text-small);
    font-weight: 500;
  }
  li {
    display: grid;
    grid-template-columns: 8rem minmax(0, 1fr);
    gap: 2px 12px;
    padding: 5px 0;
    border-top: 1px solid var(--ash-line);
  }
  li p {
    grid-column: 2;
  }
  .slower {
    color: var(--ash-caution);
  }
  .system {
    font-weight: 650;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 8px;
  }
  @media (max-width: 672px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
    li p {
      grid-column: 1;
    }
  }
</style>
