<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';
  import type { together } from '#core/compare/together/together';
  import type { Host } from '#core/parts/host';
  import { bandText, rate } from '#core/quantities/format';
  import BandBar from '../common/BandBar.svelte';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';
  import type { Named, Seat } from './state';
  import Piece from '../common/Piece.svelte';

  type Result = ReturnType<typeof together>['members'][number];
  /** Builds on the ports of a computer: what each does, and what it gets alone and beside the others. */
  let {
    host,
    seats,
    builds,
    free,
    resultAt,
    onset,
    onremove
  }: {
    host: Host;
    seats: readonly Seat[];
    builds: readonly Named[];
    /** Builds that stand on no port yet. */
    free: readonly Named[];
    resultAt: (seat: number) => Result | undefined;
    onset: (seat: number, change: Partial<Seat>) => void;
    onremove: (seat: number) => void;
  } = $props();
</script>

<Wide label="Builds on {host.name}">
  <table class="plain-table">
    <thead>
      <tr>
        <th scope="col">Build</th><th scope="col">Port of {host.name}</th><th scope="col">Does</th><th scope="col"
          >Verdict</th
        >
        <th scope="col" class="number">Alone</th><th scope="col" class="number">All at once</th><th scope="col"
          >What slows it</th
        >
        <th scope="col"><span class="hidden-visually">Remove it</span></th>
      </tr>
    </thead>
    <tbody>
      {#each seats as seat, i (seat.tag)}
        {@const out = resultAt(i)}
        <tr>
          <td>
            <Piece
              ><Select
                size="sm"
                hideLabel
                labelText="Build {i + 1}"
                selected={seat.tag}
                on:update={(e) => onset(i, { tag: String(e.detail) })}
              >
                {#each builds as build (build.tag)}
                  {#if build.tag === seat.tag || free.includes(build)}<SelectItem
                      value={build.tag}
                      text="{build.tag} {build.name}"
                    />{/if}
                {/each}
              </Select></Piece
            >
          </td>
          <td>
            <Piece
              ><Select
                size="sm"
                hideLabel
                labelText="Port of {seat.tag}"
                selected={seat.portId}
                on:update={(e) => onset(i, { portId: String(e.detail) })}
              >
                {#each host.ports as port (port.id)}<SelectItem
                    value={port.id}
                    text="{port.label}{port.shares ? ` (${port.shares})` : ''}"
                  />{/each}
              </Select></Piece
            >
          </td>
          <td>
            <Piece
              ><Select
                size="sm"
                hideLabel
                labelText="What {seat.tag} does"
                selected={seat.does}
                on:update={(e) => onset(i, { does: String(e.detail) as Seat['does'] })}
              >
                <SelectItem value="write" text="is written by the computer" />
                <SelectItem value="read" text="is read by the computer" />
                <SelectItem value="idle" text="is plugged in and does nothing" />
                {#each seats as other (other.tag)}
                  {#if other.tag !== seat.tag}<SelectItem
                      value="copy:{other.tag}"
                      text="is copied to {other.tag}"
                    />{/if}
                {/each}
              </Select></Piece
            >
          </td>
          <td
            >{#if out}<Verdict verdict={out.report.verdict} />{:else}–{/if}</td
          >
          <td class="number figure"
            >{#if out?.alone}{rate(out.alone.typical)}<span class="unit">MB/s</span>{:else}–{/if}</td
          >
          <td class="number">
            {#if out?.together}
              <span class="figure"><strong>{rate(out.together.typical)}</strong><span class="unit">MB/s</span></span><br
              />
              <span class="small quiet">{bandText(out.together, '').trim()}</span>
              <span class="bar"><BandBar band={out.together} /></span>
            {:else}–{/if}
          </td>
          <td
            >{out && out.heldBy.length > 0 ? out.heldBy.join(', ') : out?.together ? 'nothing that is shared' : '–'}</td
          >
          <td
            ><button type="button" class="link no-print" onclick={() => onremove(i)}
              >Remove<span class="hidden-visually">: {seat.tag}</span></button
            ></td
          >
        </tr>
      {:else}
        <tr><td colspan="8" class="quiet">No build is on this computer yet.</td></tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  td {
    vertical-align: top;
    padding: 5px 12px 5px 0;
  }
  td :global(.bx--form-item) {
    min-width: 150px;
  }
  .bar {
    display: block;
    width: 120px;
    margin-left: auto;
  }
</style>
