<script lang="ts">
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import { assemble } from '#core/build/assemble';
  import { bandText, figure, quantity, rate } from '#core/quantities/format';
  import { together, type Member } from '#core/compare/together/together';
  import BandBar from '$lib/ui/common/BandBar.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import Verdict from '$lib/ui/common/Verdict.svelte';
  import Findings from '$lib/ui/pair/Findings.svelte';
  import { MOST_SEATS, seatsFromText, seatsOf, seatsToText, taskOf, type Seat } from '$lib/ui/together/state';

  let { data } = $props();
  const hosts = $derived([...data.library.host.values()]);
  const query = queryOf(page.url);
  const busiest = () => {
    const count = (id: string) => data.builds.filter(({ choice }) => choice.hostId === id).length;
    // A host on which something is shared has more to say.
    const shares = (one: (typeof hosts)[number]) => (one.ports.some((port) => port.shares) ? 1 : 0);
    return [...hosts].sort((a, b) => shares(b) - shares(a) || count(b.id) - count(a.id))[0]?.id ?? '';
  };
  // svelte-ignore state_referenced_locally
  let hostId = $state(query.get('host') && data.library.host.has(query.get('host')!) ? query.get('host')! : busiest());
  const host = $derived(data.library.host.get(hostId));
  const portIds = $derived(host?.ports.map(({ id }) => id) ?? []);
  // svelte-ignore state_referenced_locally
  let seats = $state.raw<Seat[]>(
    query.has('with') ? seatsFromText(query.get('with')!, data.builds) : seatsOf(hostId, portIds, data.builds)
  );

  function keep(next: Seat[]): void {
    seats = next;
    const text = new URLSearchParams({ host: hostId, with: seatsToText(next) });
    replaceState(`?${text}`, {});
  }
  function onhost(id: string): void {
    hostId = id;
    keep(seatsOf(id, data.library.host.get(id)?.ports.map((port) => port.id) ?? [], data.builds));
  }
  const set = (at: number, change: Partial<Seat>) =>
    keep(seats.map((seat, i) => (i === at ? { ...seat, ...change } : seat)));
  const free = $derived(data.builds.filter(({ tag }) => !seats.some((seat) => seat.tag === tag)));
  function add(): void {
    const build = free[0];
    const port = portIds.find((id) => !seats.some((seat) => seat.portId === id)) ?? portIds[0];
    if (build && port) keep([...seats, { tag: build.tag, portId: port, does: 'write' }]);
  }

  /** Seats whose parts are all there, as the core takes them; the others are said to be gone. */
  const seated = $derived.by(() => {
    if (!host) return { members: [] as Member[], at: [] as number[], gone: [] as string[] };
    const at: number[] = [];
    const gone: string[] = [];
    const inputs = seats.flatMap((seat, i) => {
      const build = data.builds.find(({ tag }) => tag === seat.tag)!;
      const { jobId: _job, ...choice } = build.choice;
      const whole = assemble(data.library, { ...choice, hostId, portId: seat.portId });
      if (!whole.ok) {
        gone.push(`${seat.tag}: ${whole.missing[0]!.message}`);
        return [];
      }
      at.push(i);
      return [{ seat, name: `${build.tag} ${build.name}`, input: whole.input }];
    });
    const known = inputs.map(({ seat }) => seat);
    return { members: inputs.map(({ seat, name, input }) => ({ name, input, task: taskOf(seat, known) })), at, gone };
  });
  const result = $derived(host && seated.members.length > 0 ? together(host, seated.members) : null);
  const resultAt = (i: number) => result?.members[seated.at.indexOf(i)];
  const findings = $derived(
    (result?.findings ?? []).map((finding, i) => ({ code: String(i), ...finding, remedy: finding.remedy || undefined }))
  );
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
    {#if hosts.length > 0}
      <div class="host">
        <Select size="sm" labelText="Computer" selected={hostId} on:update={(e) => onhost(String(e.detail))}>
          {#each hosts as one (one.id)}<SelectItem value={one.id} text={one.name} />{/each}
        </Select>
      </div>
    {/if}
  </div>

  {#if !host || data.builds.length === 0}
    <div class="empty">
      <p>
        This needs a computer with its ports and at least one build. <a href="/c/{data.crate.slug}/pair">Pair a build</a
        > first.
      </p>
    </div>
  {:else}
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
            <th scope="col"><span class="hidden-visually">Take out</span></th>
          </tr>
        </thead>
        <tbody>
          {#each seats as seat, i (seat.tag)}
            {@const out = resultAt(i)}
            <tr>
              <td>
                <Select
                  size="sm"
                  hideLabel
                  labelText="Build {i + 1}"
                  selected={seat.tag}
                  on:update={(e) => set(i, { tag: String(e.detail) })}
                >
                  {#each data.builds as build (build.tag)}
                    {#if build.tag === seat.tag || free.includes(build)}<SelectItem
                        value={build.tag}
                        text="{build.tag} {build.name}"
                      />{/if}
                  {/each}
                </Select>
              </td>
              <td>
                <Select
                  size="sm"
                  hideLabel
                  labelText="Port of {seat.tag}"
                  selected={seat.portId}
                  on:update={(e) => set(i, { portId: String(e.detail) })}
                >
                  {#each host.ports as port (port.id)}<SelectItem
                      value={port.id}
                      text="{port.label}{port.shares ? ` (${port.shares})` : ''}"
                    />{/each}
                </Select>
              </td>
              <td>
                <Select
                  size="sm"
                  hideLabel
                  labelText="What {seat.tag} does"
                  selected={seat.does}
                  on:update={(e) => set(i, { does: String(e.detail) as Seat['does'] })}
                >
                  <SelectItem value="write" text="is written by the computer" />
                  <SelectItem value="read" text="is read by the computer" />
                  <SelectItem value="idle" text="rests" />
                  {#each seats as other (other.tag)}
                    {#if other.tag !== seat.tag}<SelectItem
                        value="copy:{other.tag}"
                        text="is copied to {other.tag}"
                      />{/if}
                  {/each}
                </Select>
              </td>
              <td
                >{#if out}<Verdict verdict={out.report.verdict} />{:else}–{/if}</td
              >
              <td class="number figure"
                >{#if out?.alone}{rate(out.alone.typical)}<span class="unit">MB/s</span>{:else}–{/if}</td
              >
              <td class="number">
                {#if out?.together}
                  <span class="figure"><strong>{rate(out.together.typical)}</strong><span class="unit">MB/s</span></span
                  ><br />
                  <span class="small quiet">{bandText(out.together, '').trim()}</span>
                  <span class="bar"><BandBar band={out.together} /></span>
                {:else}–{/if}
              </td>
              <td>{out && out.heldBy.length > 0 ? out.heldBy.join(', ') : out?.together ? 'by nothing shared' : '–'}</td
              >
              <td
                ><button type="button" class="link no-print" onclick={() => keep(seats.filter((_, k) => k !== i))}
                  >Take out<span class="hidden-visually">: {seat.tag}</span></button
                ></td
              >
            </tr>
          {:else}
            <tr><td colspan="8" class="quiet">No build is on this computer yet.</td></tr>
          {/each}
        </tbody>
      </table>
    </Wide>
    <p class="no-print">
      <Button kind="tertiary" size="small" disabled={free.length === 0 || seats.length >= MOST_SEATS} on:click={add}
        >Add a build</Button
      >
    </p>
    {#each seated.gone as line (line)}<p class="gone" role="alert">{line}</p>{/each}

    {#if result}
      <div class="below">
        <section>
          <h2>What stands out</h2>
          {#if findings.length === 0}
            <p class="quiet">Each keeps what it has alone; nothing that they share is full.</p>
          {:else}<Findings {findings} />{/if}
        </section>
        <section>
          <h2>What they share</h2>
          {#if result.shared.length === 0}
            <p class="quiet">
              No port of {host.name} says that it shares a controller or hub. Where two share one, give both the same short
              name,
              <a href="/c/{data.crate.slug}/crate/host/{host.id}">on the page of the computer</a>.
            </p>
          {:else}
            <Wide label="What they share">
              <table class="plain-table">
                <thead
                  ><tr
                    ><th scope="col">Controller or hub</th><th scope="col" class="number">Carries</th><th
                      scope="col"
                      class="number">Written</th
                    ><th scope="col" class="number">Read</th><th scope="col" class="number">Power</th></tr
                  ></thead
                >
                <tbody>
                  {#each result.shared as load (load.id)}
                    {@const power = result.power.find((p) => p.label === load.label)}
                    <tr>
                      <td>{load.label}</td>
                      <td class="number figure"
                        >{rate(load.MBps)}<span class="unit">MB/s{load.assumed ? ', assumed' : ''}</span></td
                      >
                      <td class="number figure">{rate(load.write)}<span class="unit">MB/s</span></td>
                      <td class="number figure">{rate(load.read)}<span class="unit">MB/s</span></td>
                      <td class="number figure"
                        >{#if power}{figure(power.steadyW)} – {figure(power.peakW)}<span class="unit"
                            >of {quantity(power.budgetW, 'W')}</span
                          >{:else}–{/if}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            </Wide>
          {/if}
          <p class="small quiet">
            Shared so that none gets more while one that has less gets less. Each direction of a link counts by itself;
            a copy from one build to another leaves the computer’s own disk out. Power: steady and at the peak.
          </p>
        </section>
      </div>
    {/if}
  {/if}
</div>

<style>
  .host {
    width: 200px;
  }
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
  .below {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 28px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 4px;
  }
  .gone {
    color: var(--ash-fail);
  }
  @media (max-width: 900px) {
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
