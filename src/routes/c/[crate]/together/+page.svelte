<script lang="ts">
  import { buildsIn } from '$lib/client/find-builds';
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { keepAddress, queryOf } from '$lib/client/address';
  import { together } from '#core/compare/together/together';
  import BuildPicker from '$lib/ui/common/BuildPicker.svelte';
  import Results from '$lib/ui/together/Results.svelte';
  import { seatedOn } from '$lib/ui/together/seated';
  import SeatTable from '$lib/ui/together/SeatTable.svelte';
  import { MOST_SEATS, seatsFromText, seatsOf, seatsToText, withAdded, type Seat } from '$lib/ui/together/state';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const query = queryOf(page.url);
  // svelte-ignore state_referenced_locally
  let hostId = $state(data.hostId);
  const host = $derived(data.library.host.get(hostId));
  const portIds = $derived(host?.ports.map(({ id }) => id) ?? []);
  // svelte-ignore state_referenced_locally
  let seats = $state.raw<Seat[]>(
    query.has('with') ? seatsFromText(query.get('with')!, data.builds) : seatsOf(hostId, portIds, data.builds)
  );

  function keep(next: Seat[]): Promise<void> {
    seats = next;
    const text = new URLSearchParams({ host: hostId, with: seatsToText(next) });
    return keepAddress(`?${text}`);
  }
  /** Another computer is shown with the builds that were paired with it. */
  async function onhost(id: string): Promise<void> {
    await keepAddress(`?${new URLSearchParams({ host: id })}`);
    hostId = data.hostId;
    seats = seatsOf(hostId, portIds, data.builds);
  }
  const set = (at: number, change: Partial<Seat>) =>
    keep(seats.map((seat, i) => (i === at ? { ...seat, ...change } : seat)));
  const free = $derived(data.builds.filter(({ tag }) => !seats.some((seat) => seat.tag === tag)));
  const add = () => void keep(withAdded(seats, free, portIds));

  /** One of the whole crate: what it is made of comes with the answer. */
  async function addThis({ tag }: { tag: string }): Promise<void> {
    const portId = portIds.find((id) => !seats.some((seat) => seat.portId === id)) ?? portIds[0];
    if (portId && seats.length < MOST_SEATS && !seats.some((seat) => seat.tag === tag))
      await keep([...seats, { tag, portId, does: 'write' }]);
  }

  const seated = $derived(seatedOn(hostId, seats, { builds: data.builds, library: data.library }));
  const result = $derived(host && seated.members.length > 0 ? together(host, seated.members) : null);
  const resultAt = (i: number) => result?.members[seated.at.indexOf(i)];
</script>

<svelte:head><title>Several at once · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Several at once</h1>
      <p class="quiet">
        What builds do while others on the same computer work too: shared controllers, hubs, power, and the computer’s
        own disk.
      </p>
    </div>
    {#if data.hosts.length > 0}
      <div class="host">
        <Select size="sm" labelText="Computer" selected={hostId} on:update={(e) => void onhost(String(e.detail))}>
          {#each data.hosts as one (one.id)}<SelectItem value={one.id} text={one.name} />{/each}
        </Select>
      </div>
    {/if}
  </div>

  {#if !host || data.total === 0}
    <div class="empty">
      <p>
        This needs a computer with its ports and at least one build. <a href="/c/{data.crate.slug}/pair">Pair a build</a
        > first.
      </p>
    </div>
  {:else}
    <Piece
      ><SeatTable
        {host}
        {seats}
        builds={data.builds}
        {free}
        {resultAt}
        onset={(at, change) => void set(at, change)}
        onremove={(at) => void keep(seats.filter((_, i) => i !== at))}
      /></Piece
    >
    {#if data.total > data.offered.length}
      <div class="add no-print">
        {#key seats}
          <BuildPicker
            label="Add a build"
            find={buildsIn(data.crate.id)}
            builds={data.offered}
            total={data.total}
            none="type a tag or a name"
            picked=""
            onpick={(build) => build && void addThis(build)}
          />
        {/key}
      </div>
    {:else}
      <p class="no-print">
        <Button kind="tertiary" size="small" disabled={free.length === 0 || seats.length >= MOST_SEATS} on:click={add}
          >Add a build</Button
        >
      </p>
    {/if}
    {#each seated.gone as line (line)}<p class="gone" role="alert">{line}</p>{/each}

    <Piece
      >{#if result}
        <Results {result} host={host.name} hostHref="/c/{data.crate.slug}/crate/host/{host.id}" />
      {/if}</Piece
    >
  {/if}
</div>

<style>
  .host {
    width: 200px;
  }
  .add {
    width: 260px;
    margin: 8px 0;
  }
  .gone {
    color: var(--ash-fail);
  }
</style>
