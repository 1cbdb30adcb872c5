<script lang="ts">
  import type { ListingReport } from '#core/listing/read';
  import { quantity } from '#core/quantities/format';
  import StateMark from '../common/StateMark.svelte';

  type Props = { report: ListingReport; chosen: string | undefined; onchoose: (device: string) => void };
  /** What a listing shows: the devices, the one that is meant and by what, and what is to be watched. */
  let { report, chosen, onchoose }: Props = $props();
  const SYSTEM = { linux: 'Linux', macos: 'macOS', windows: 'Windows' } as const;
  const MARK = {
    'look-alike': 'check',
    'system-disk': 'note',
    'in-use': 'check',
    'size-differs': 'check',
    'cut-off': 'check',
    unreadable: 'fail'
  } as const;
  const uid = $props.id();
</script>

<div role="group" aria-label="What the list shows">
  <p>
    {report.system ? `A list of ${SYSTEM[report.system]}` : 'No list that can be read'}{report.devices.length > 0
      ? `, ${report.devices.length === 1 ? '1 device' : `${report.devices.length} devices`}`
      : ''}.
    {#if report.system && report.devices.length > 0 && !report.showsSystem}It does not say where the system runs.{/if}
  </p>
  {#if report.devices.length > 0}
    <div class="scroll">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col"></th><th scope="col">Device</th><th scope="col" class="num">Size</th><th scope="col"
              >Name</th
            ><th scope="col">Serial number</th><th scope="col">Bus</th><th scope="col">Used at</th>
          </tr>
        </thead>
        <tbody>
          {#each report.devices as device (device.device)}
            <tr class:meant={device.device === report.match.device} class:system={device.systemDisk}>
              <td>
                <input
                  type="radio"
                  name="device-{uid}"
                  aria-label="This one: {device.device}"
                  disabled={device.systemDisk}
                  checked={device.device === chosen}
                  onchange={() => onchoose(device.device)}
                />
              </td>
              <td class="figure">{device.device}</td>
              <td class="num figure"
                >{device.approxGB === null ? 'not said' : quantity(device.approxGB, 'GB')}{#if device.bytes !== null}<br
                  /><span class="quiet small">{device.bytes} B</span>{/if}</td
              >
              <td>{device.model ?? ''}</td>
              <td class="figure">{device.serial ?? 'none'}</td>
              <td>{device.bus ?? ''}{device.external === true && device.bus !== 'usb' ? ' external' : ''}</td>
              <td>{device.systemDisk ? 'the system runs from it' : device.mounts.join(', ')}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
  <p class="match" class:sure={report.match.sure}>
    <StateMark mark={report.match.sure ? 'pass' : report.match.device ? 'note' : 'check'} size={17} />
    <span>
      <strong
        >{report.match.device
          ? `${report.match.device} is ${report.match.sure ? '' : 'probably '}the drive of this build.`
          : 'None of them is surely the drive of this build.'}</strong
      >
      {report.match.because.join(' ')}
    </span>
  </p>
  {#each report.warnings as warning, i (i)}
    <p class="warning"><StateMark mark={MARK[warning.code]} size={15} /> {warning.message}</p>
  {/each}
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  .num {
    text-align: right;
    white-space: nowrap;
  }
  tr.meant td {
    background: var(--ash-well);
    font-weight: 600;
  }
  tr.system td {
    color: var(--ash-soft);
  }
  .match,
  .warning {
    display: flex;
    gap: 8px;
    align-items: baseline;
    margin-top: 6px;
  }
  .match :global(svg),
  .warning :global(svg) {
    position: relative;
    top: 3px;
  }
  .sure {
    color: var(--ash-pass);
  }
  .warning {
    color: var(--ash-caution);
  }
  input {
    width: 18px;
    height: 18px;
    accent-color: var(--ash-ember);
  }
</style>
