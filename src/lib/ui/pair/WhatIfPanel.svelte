<script lang="ts">
  import { Tab, TabContent, Tabs } from 'carbon-components-svelte';
  import type { Choice } from '#core/build/choice';
  import type { ChainPlace } from '#core/build/options';
  import { day, duration, figure, money, rate } from '#core/quantities/format';
  import type { Band } from '#core/quantities/band';
  import type { SwapRow, WhatIf } from '#core/compare/swaps/what-if';
  import SortHead from '../common/SortHead.svelte';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';
  import { PLACE_WORD, sortedRows, type SwapColumn } from './what-if-rows';

  export type Measured = { writeMBps?: number; readMBps?: number; date: string; simulated: boolean };
  type Props = {
    around: WhatIf;
    place: ChainPlace;
    hasJob: boolean;
    /** What was measured of this drive in this enclosure, by host and port. */
    measured: ReadonlyMap<string, Measured>;
    onplace: (place: ChainPlace) => void;
    onswap: (place: ChainPlace, id: string) => void;
    onchoose: (choice: Choice) => void;
  };
  let { around, place, hasJob, measured, onplace, onswap, onchoose }: Props = $props();

  let selected = $state(0);
  let sort = $state<SwapColumn>('write');
  let down = $state(true);
  const rows = $derived(sortedRows(around.swaps[place], sort, down));
  function by(column: SwapColumn): void {
    // Rates are looked at from the fastest, prices and times from the lowest.
    if (column === sort) down = !down;
    else [sort, down] = [column, ['read', 'write', 'sustained'].includes(column)];
  }
  const dir = (column: SwapColumn) => (sort === column ? (down ? 'down' : 'up') : undefined);
  const mbps = (band: Band | null) => (band ? rate(band.typical) : '–');
  const stockWord = ({ stock }: SwapRow) =>
    stock.free > 0
      ? stock.free === 1
        ? 'at hand'
        : `${stock.free} at hand`
      : stock.owned > 0
        ? `in ${stock.builds.join(', ')}`
        : 'to buy';
  const PLACES = ['port', 'cable', 'enclosure', 'drive'] as const;
</script>

<section class="what-if no-print" aria-label="What if">
  <Tabs bind:selected>
    <Tab label="Swap a part" />
    <Tab label="On all my computers" />
    <Tab label="If it falls back" />
    {#snippet content()}
      <TabContent>
        {#if selected === 0}
          <p class="places" role="group" aria-label="Which part">
            {#each PLACES as one (one)}<button type="button" aria-pressed={place === one} onclick={() => onplace(one)}
                >{PLACE_WORD[one]} <span class="figure">{around.swaps[one].length}</span></button
              >{/each}
            <span class="small quiet">every other {PLACE_WORD[place]} of the crate, planned</span>
          </p>
          <Wide label="Every other {PLACE_WORD[place]}">
            <table class="plain-table">
              <thead>
                <tr>
                  <SortHead label="Part" sorted={dir('name')} onsort={() => by('name')} />
                  <th scope="col">Do I have it?</th>
                  <SortHead label="Verdict" sorted={dir('verdict')} onsort={() => by('verdict')} />
                  <th scope="col">Runs as</th>
                  <SortHead label="Read, MB/s" number sorted={dir('read')} onsort={() => by('read')} />
                  <SortHead label="Write, MB/s" number sorted={dir('write')} onsort={() => by('write')} />
                  <SortHead label="After the cache" number sorted={dir('sustained')} onsort={() => by('sustained')} />
                  {#if hasJob}<SortHead label="Job" number sorted={dir('seconds')} onsort={() => by('seconds')} />{/if}
                  <SortHead label="To pay" number sorted={dir('price')} onsort={() => by('price')} />
                  <SortHead label="Per MB/s gained" number sorted={dir('perGain')} onsort={() => by('perGain')} />
                  <th scope="col"><span class="hidden-visually">Put in</span></th>
                </tr>
              </thead>
              <tbody>
                {#each rows as row (row.id)}
                  <tr>
                    <th scope="row">{row.name}</th>
                    <td>{stockWord(row)}</td>
                    <td title={row.worst}><Verdict verdict={row.verdict} /></td>
                    <td>{row.runsAs ?? '–'}</td>
                    <td class="number figure">{mbps(row.read)}</td>
                    <td class="number figure">{mbps(row.write)}</td>
                    <td class="number figure">{mbps(row.sustained)}</td>
                    {#if hasJob}<td class="number figure">{row.seconds === null ? '–' : duration(row.seconds)}</td>{/if}
                    <td class="number figure"
                      >{row.price
                        ? row.price.amount === 0
                          ? 'nothing'
                          : money(row.price.amount, row.price.currency)
                        : '?'}</td
                    >
                    <td class="number figure"
                      >{row.perGain
                        ? row.perGain.amount === 0
                          ? 'nothing'
                          : `${figure(row.perGain.amount)}\u202f${row.perGain.currency}`
                        : '–'}</td
                    >
                    <td
                      ><button type="button" class="link" onclick={() => onswap(place, row.id)}
                        >Use it<span class="hidden-visually">: {row.name}</span></button
                      ></td
                    >
                  </tr>
                {:else}<tr><td colspan="11" class="quiet">The crate has no other {PLACE_WORD[place]}.</td></tr>{/each}
              </tbody>
            </table>
          </Wide>
        {/if}
      </TabContent>
      <TabContent>
        {#if selected === 1}
          <Wide label="This drive in this enclosure on every port">
            <table class="plain-table">
              <thead>
                <tr>
                  <th scope="col">Computer and port</th><th scope="col">Cable</th><th scope="col">Verdict</th><th
                    scope="col">Runs as</th
                  >
                  <th scope="col" class="number">Read, MB/s</th><th scope="col" class="number">Write, MB/s</th>
                  <th scope="col" class="number">Measured write</th>
                  {#if hasJob}<th scope="col" class="number">Job</th><th scope="col" class="waits">The job waits for</th
                    >{/if}
                  <th scope="col"><span class="hidden-visually">Go there</span></th>
                </tr>
              </thead>
              <tbody>
                {#each around.hosts as row (row.id)}
                  {@const run = measured.get(row.id)}
                  <tr>
                    <th scope="row">{row.host} · {row.port}</th>
                    <td
                      >{row.cable}
                      {#if row.otherCable}<span class="small quiet">· another cable</span>{/if}</td
                    >
                    <td title={row.worst}><Verdict verdict={row.verdict} /></td>
                    <td>{row.runsAs ?? '–'}</td>
                    <td class="number figure">{mbps(row.read)}</td>
                    <td class="number figure">{mbps(row.write)}</td>
                    <td class="number"
                      >{#if run?.writeMBps !== undefined}<span class="figure">{rate(run.writeMBps)}</span><br /><span
                          class="small quiet">{run.simulated ? 'simulated' : 'measured'} {day(run.date)}</span
                        >{:else}–{/if}</td
                    >
                    {#if hasJob}<td class="number figure">{row.seconds === null ? '–' : duration(row.seconds)}</td>
                      <td>{row.waitsFor ?? '–'}</td>{/if}
                    <td
                      ><button type="button" class="link" onclick={() => onchoose(row.choice)}
                        >Go there<span class="hidden-visually">: {row.host}, {row.port}</span></button
                      ></td
                    >
                  </tr>
                {/each}
              </tbody>
            </table>
          </Wide>
        {/if}
      </TabContent>
      <TabContent>
        {#if selected === 2}
          {#if around.fallbacks.length === 0}
            <p class="quiet">
              There is no lower mode that port, cable and enclosure share: it runs as planned, or not at all.
            </p>
          {:else}
            <p class="quiet small">
              What the same build does when something holds the link down. A result near one of these rows names its
              cause.
            </p>
            <Wide label="Lower modes of this link">
              <table class="plain-table">
                <thead>
                  <tr>
                    <th scope="col">Comes up as</th><th scope="col">When</th><th scope="col" class="number"
                      >Read, MB/s</th
                    >
                    <th scope="col" class="number">Write, MB/s</th><th scope="col" class="number">After the cache</th>
                    {#if hasJob}<th scope="col" class="number">Job</th>{/if}
                  </tr>
                </thead>
                <tbody>
                  {#each around.fallbacks as row (row.label)}
                    <tr>
                      <th scope="row">{row.label}</th>
                      <td>{row.when}</td>
                      <td class="number figure">{row.read ? `${rate(row.read.low)} – ${rate(row.read.high)}` : '–'}</td>
                      <td class="number figure"
                        >{row.write ? `${rate(row.write.low)} – ${rate(row.write.high)}` : '–'}</td
                      >
                      <td class="number figure">{mbps(row.sustained)}</td>
                      {#if hasJob}<td class="number figure">{row.seconds === null ? '–' : duration(row.seconds)}</td
                        >{/if}
                    </tr>
                  {/each}
                </tbody>
              </table>
            </Wide>
          {/if}
        {/if}
      </TabContent>
    {/snippet}
  </Tabs>
</section>

<style>
  /* Its words would else stand one under the other. */
  .waits {
    min-width: 9rem;
  }
  .what-if {
    margin-top: 20px;
    border-top: 1px solid var(--ash-edge);
    padding-top: 8px;
  }
  .what-if :global(.bx--tab-content) {
    padding: 10px 0 0;
  }
  .places {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 8px;
    margin-bottom: 6px;
  }
  .places button {
    padding: 3px 10px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: var(--ash-ink);
    font-size: var(--ash-text);
    cursor: pointer;
  }
  .places button[aria-pressed='true'] {
    background: var(--ash-ink);
    color: var(--ash-paper);
  }
  tbody th {
    padding: 5px 12px 5px 0;
    font-weight: 600;
    font-size: var(--ash-text);
    color: var(--ash-ink);
    border-bottom: 1px solid var(--ash-line);
    white-space: nowrap;
  }
  td {
    padding: 5px 12px 5px 0;
    white-space: nowrap;
  }
</style>
