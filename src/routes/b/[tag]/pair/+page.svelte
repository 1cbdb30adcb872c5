<script lang="ts">
  import When from '$lib/ui/common/When.svelte';
  import { Button, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { invalidateAll, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import type { Choice } from '#core/build/choice';
  import { STAGE_LABEL, STAGES, type BuildStage } from '#core/build/stages';
  import { day } from '#core/quantities/format';
  import { AroundChoice } from '$lib/client/what-if.svelte';
  import { measuredByPort } from '$lib/ui/pair/measured';
  import PairStation from '$lib/ui/pair/PairStation.svelte';
  import { choiceFromQuery, choiceToQuery } from '$lib/ui/pair/slots';
  import { choiceKey, compareHref } from '$lib/ui/compare/laid';
  import { changesOf } from '$lib/client/change';
  import type { Outcome } from '$lib/ui/parts/refused';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}`);
  /** Pads that were settled on are not in an address; they stay as long as drive and enclosure do. */
  function settledPads(other: Partial<Choice>): Partial<Choice> {
    const { stack, driveId, enclosureId } = data.build.choice;
    return stack && other.driveId === driveId && other.enclosureId === enclosureId ? { stack } : {};
  }
  // What the address chooses lies over what is stored: a link to an unsaved change shows that change.
  const asked = choiceFromQuery(queryOf(page.url));
  // svelte-ignore state_referenced_locally
  let choice = $state.raw<Partial<Choice>>(
    Object.keys(asked).length === 0 ? data.build.choice : { ...asked, ...settledPads(asked) }
  );
  // svelte-ignore state_referenced_locally
  let name = $state(data.build.name);
  let busy = $state(false);
  let deleting = $state(false);
  type Theirs = { name: string; stage: string; choice: Choice; version: number; updatedAt: string };
  let theirs = $state<Theirs | null>(null);

  const same = (a: Partial<Choice>, b: Partial<Choice>) => choiceToQuery(a) === choiceToQuery(b);
  const changed = $derived(name.trim() !== data.build.name || !same(choice, data.build.choice));
  const measured = $derived.by(() => {
    const run = data.runs[0];
    const value = run?.results.writeMBps;
    return run && value !== undefined && same(choice, data.build.choice)
      ? { value, label: `${run.simulated ? 'simulated' : 'measured'} ${day(run.date)}` }
      : undefined;
  });

  const around = new AroundChoice();
  $effect(() => around.ask(data.library, choice));
  $effect(() => () => around.stop());

  function onchange(next: Partial<Choice>): void {
    choice = next;
    replaceState(same(next, data.build.choice) ? page.url.pathname : `?${choiceToQuery(next)}`, {});
  }
  /** A change that is not saved is laid beside what is stored. */
  const compare = $derived(
    compareHref(`/c/${data.crate.slug}`, [data.build.tag, ...(changed ? [choiceKey(choice)] : [])])
  );
  const change = $derived(changesOf(data.crate.id));
  /** Says that the build is stored; what somebody else stored in between is laid beside it. */
  const outcome = (words: string): Outcome => ({
    words,
    then: () => replaceState(page.url.pathname, {}),
    undone: reset,
    refused({ code, details, message }) {
      if (code !== 'conflict' || !details.current) return message;
      theirs = details.current as Theirs;
      return undefined;
    }
  });
  function reset(): void {
    void invalidateAll().then(() => {
      choice = data.build.choice;
      name = data.build.name;
    });
  }
  async function save(version: number): Promise<void> {
    if (busy) return;
    busy = true;
    const body = {
      version,
      name: name.trim(),
      stage: data.build.stage,
      choice: { ...choice, writeCache: choice.writeCache ?? null }
    };
    await change('PUT', path, body, outcome(`Saved ${data.build.tag}.`));
    busy = false;
  }
  async function mark(stage: BuildStage): Promise<void> {
    if (stage === data.build.stage) return;
    const body = { version: data.build.version, stage };
    await change('PUT', `${path}/stage`, body, outcome(`${data.build.tag} is now ${STAGE_LABEL[stage]}.`));
  }
  async function remove(): Promise<void> {
    deleting = false;
    const body = { version: data.build.version };
    const to = () => `/c/${data.crate.slug}/builds`;
    await change('DELETE', path, body, { words: `Deleted ${data.build.tag}.`, to });
  }
  const nameOf = (kind: 'host' | 'cable' | 'enclosure' | 'drive', id: string | undefined) =>
    id ? (data.library[kind].get(id)?.name ?? 'gone') : 'none';
  const words = (c: Partial<Choice>) =>
    `${nameOf('host', c.hostId)} port ${c.portId ?? '–'}, ${nameOf('cable', c.cableId)}, ${nameOf('enclosure', c.enclosureId)}, ${nameOf('drive', c.driveId)}`;
</script>

<svelte:head><title>{data.build.tag} Pair · Ash Crate</title></svelte:head>
<PairStation
  library={data.library}
  {choice}
  {onchange}
  heading={data.build.name}
  tag={data.build.tag}
  stage={STAGE_LABEL[data.build.stage]}
  {measured}
  around={around.result}
  start={data.build.choice}
  measuredOn={measuredByPort(data.measured, choice)}
  home="/c/{data.crate.slug}"
  next={changed ? 'Save the change.' : data.next.text}
>
  {#snippet head({ report })}
    <div class="stage no-print">
      <Select size="sm" labelText="Stage" selected={data.build.stage} on:update={(e) => mark(e.detail as BuildStage)}>
        {#each STAGES as stage (stage)}<SelectItem value={stage} text={STAGE_LABEL[stage]} />{/each}
      </Select>
    </div>
    {#if changed || data.differences.length > 0}
      <div class="name">
        <TextInput
          size="sm"
          labelText="Name"
          bind:value={name}
          maxlength={120}
          invalid={name.trim() === ''}
          invalidText="A name is needed."
        />
      </div>
      <Button
        size="small"
        disabled={report === null || busy || name.trim() === ''}
        on:click={() => save(data.build.version)}>{changed ? 'Save the change' : 'Plan again'}</Button
      >
      {#if changed}
        <Button kind="ghost" size="small" href={compare}>Compare</Button>
        <Button
          kind="ghost"
          size="small"
          on:click={() => {
            name = data.build.name;
            onchange(data.build.choice);
          }}>Discard</Button
        >
      {/if}
    {:else}
      <Button class="no-print" kind="ghost" size="small" href={compare}>Compare</Button>
      <Button class="no-print" kind="ghost" size="small" on:click={() => print()}>Print</Button>
      <Button class="no-print" kind="danger-ghost" size="small" on:click={() => (deleting = true)}>Delete</Button>
    {/if}
  {/snippet}
  {#snippet notice()}
    {#if data.differences.length > 0}
      <details class="older">
        <summary
          ><strong>Planned {day(data.build.updatedAt)}, and its parts have changed since.</strong> What you see is planned
          from the parts as they are now; saving keeps it.</summary
        >
        <table class="plain-table">
          <thead><tr><th>What</th><th>Then</th><th>Now</th></tr></thead>
          <tbody
            >{#each data.differences as d (d.what)}<tr><td>{d.what}</td><td>{d.then}</td><td>{d.now}</td></tr
              >{/each}</tbody
          >
        </table>
      </details>
    {/if}
  {/snippet}
</PairStation>

<Modal
  danger
  bind:open={deleting}
  modalHeading="Delete {data.build.tag}, {data.build.name}?"
  primaryButtonText="Delete"
  secondaryButtonText="Keep it"
  on:click:button--secondary={() => (deleting = false)}
  on:submit={remove}
>
  <p>
    {data.runs.length === 0
      ? 'It has no results.'
      : `Its ${data.runs.length === 1 ? 'one result goes' : `${data.runs.length} results go`} with it.`} The parts stay in
    the crate. You can take this back.
  </p>
</Modal>

<Modal
  open={theirs !== null}
  modalHeading="This build was saved elsewhere in the meantime"
  primaryButtonText="Save mine over it"
  secondaryButtonText="Show theirs"
  on:close={() => (theirs = null)}
  on:click:button--secondary={() => {
    theirs = null;
    reset();
    replaceState(page.url.pathname, {});
  }}
  on:submit={() => {
    const version = theirs?.version;
    theirs = null;
    if (version) void save(version);
  }}
>
  {#if theirs}
    <table class="plain-table">
      <thead><tr><th></th><th>Theirs, <When at={theirs.updatedAt} /></th><th>Yours, not saved</th></tr></thead>
      <tbody>
        <tr><td>Name</td><td>{theirs.name}</td><td>{name}</td></tr>
        <tr><td>Parts</td><td>{words(theirs.choice)}</td><td>{words(choice)}</td></tr>
        <tr><td>Stage</td><td>{STAGE_LABEL[theirs.stage as BuildStage]}</td><td>{STAGE_LABEL[data.build.stage]}</td></tr
        >
      </tbody>
    </table>
    <p class="small quiet">Nothing was overwritten. Either version can be undone afterwards.</p>
  {/if}
</Modal>

<style>
  .stage {
    width: 132px;
  }
  .name {
    width: 160px;
  }
  .older {
    margin-bottom: 10px;
    padding: 8px 12px;
    background: var(--ash-sheet);
    border-left: 4px solid var(--ash-caution);
  }
  .older summary {
    cursor: pointer;
  }
</style>
