<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { aKind } from '#core/parts/kinds';
  import { Button, Modal, TextInput } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import type { Choice } from '#core/build/choice';
  import { obviousChoice } from '#core/build/options';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import { AroundChoice } from '$lib/client/what-if.svelte';
  import { measuredByPort } from '$lib/ui/pair/measured';
  import PairStation from '$lib/ui/pair/PairStation.svelte';
  import { choiceFromQuery, choiceToQuery } from '$lib/ui/pair/slots';
  import { choiceKey, compareHref } from '$lib/ui/compare/laid';
  import { PLAN_FILE_BYTES, readPlanFile } from '#core/answers/plan-file';
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import { changesOf } from '$lib/client/change';

  let { data } = $props();
  let choice = $state.raw<Partial<Choice>>(choiceFromQuery(queryOf(page.url)));
  let open = $state(false);
  let name = $state('');
  let wrong = $state('');
  let busy = $state(false);
  const empty = $derived(
    data.library.host.size === 0 || data.library.enclosure.size === 0 || data.library.drive.size === 0
  );

  const around = new AroundChoice();
  $effect(() => around.ask(data.library, choice));
  $effect(() => () => around.stop());

  const draftKey = $derived(`draft:${data.crate.id}:pair`);
  $effect(() => {
    // Opened without a choice in the address: the one that was left here last is there again, else what need not be asked.
    if (untrack(() => choiceToQuery(choice)) !== '') return;
    const kept = keptDraft<string>(draftKey);
    const begin = kept ? choiceFromQuery(new URLSearchParams(kept)) : obviousChoice(data.library);
    if (Object.keys(begin).length > 0) void tick().then(() => onchange(begin));
  });
  function onchange(next: Partial<Choice>): void {
    choice = next;
    const query = choiceToQuery(next);
    if (query === '') dropDraft(draftKey);
    else keepDraft(draftKey, query);
    replaceState(`?${query}`, {});
  }
  function ask(): void {
    const drive = choice.driveId && data.library.drive.get(choice.driveId)?.name;
    const enclosure = choice.enclosureId && data.library.enclosure.get(choice.enclosureId)?.name;
    name = `${drive} in ${enclosure}`.slice(0, 120);
    wrong = '';
    open = true;
  }
  /** A plan from elsewhere: its parts are taken into this crate, and the plan stands here at once. */
  async function openPlan(file: File): Promise<void> {
    if (file.size > PLAN_FILE_BYTES) return notices.add('error', 'This is no plan file: it is larger than 2 MB.');
    const read = readPlanFile(await file.text());
    if (!read.ok) return notices.add('error', read.message);
    let opened: Partial<Choice> = {};
    const refusal = await changesOf(data.crate.id)('POST', `/api/crates/${data.crate.id}/plan-files`, read.file, {
      words({ choice: chosen = {}, added = 0 }) {
        opened = chosen;
        return added === 0 ? 'Its parts were here already.' : `${added} parts added from ${file.name}.`;
      },
      refused: ({ message }) => message
    });
    if (!refusal) onchange(opened);
  }
  async function save(): Promise<void> {
    if (busy) return;
    busy = true;
    const refusal = await changesOf(data.crate.id)(
      'POST',
      `/api/crates/${data.crate.id}/builds`,
      { name: name.trim(), choice },
      {
        words: ({ tag }) => `Saved as ${tag}.`,
        then() {
          open = false;
          dropDraft(draftKey);
        },
        to: ({ tag }) => `/b/${tag}/pair`,
        undone: `/c/${data.crate.slug}/builds`,
        refused: () => undefined
      }
    );
    busy = false;
    wrong = refusal?.message ?? '';
  }
</script>

<svelte:head><title>Pair · {data.crate.name} · Ash Crate</title></svelte:head>
{#if empty}
  <div class="page">
    <div class="empty">
      <h1>Pair</h1>
      <p>Pairing needs at least one computer, one enclosure and one drive. Missing here:</p>
      <ol>
        {#each ['host', 'enclosure', 'drive'] as const as kind (kind)}
          {#if data.library[kind].size === 0}<li>
              <a href="/c/{data.crate.slug}/crate/{kind}/new">Add {aKind(kind)}</a>
            </li>{/if}
        {/each}
      </ol>
      <p>Or begin with what somebody sent you:</p>
      <FilePicker label="Open a plan file" accept={['.json', 'application/json']} onpick={openPlan} />
      <p>Only curious? <a href="/judge">Judge a pairing by classes</a>: nothing has to be entered.</p>
    </div>
  </div>
{:else}
  <PairStation
    library={data.library}
    {choice}
    {onchange}
    heading="Pair"
    around={around.result}
    measuredOn={measuredByPort(data.measured, choice)}
    home="/c/{data.crate.slug}"
  >
    {#snippet head({ report })}
      <FilePicker label="Open a plan file" accept={['.json', 'application/json']} onpick={openPlan} />
      {#if choiceToQuery(choice) !== ''}<Button kind="ghost" size="field" on:click={() => onchange({})}
          >Start over</Button
        >{/if}
      {#if report}<Button kind="ghost" size="field" href={compareHref(`/c/${data.crate.slug}`, [choiceKey(choice)])}
          >Compare</Button
        >{/if}
      <Button size="field" disabled={report === null} on:click={ask}>Save as build</Button>
    {/snippet}
  </PairStation>
{/if}

<Modal
  bind:open
  size="xs"
  modalHeading="Save as build"
  primaryButtonText={busy ? 'Saving …' : 'Save'}
  primaryButtonDisabled={busy || name.trim() === ''}
  secondaryButtonText="Cancel"
  selectorPrimaryFocus="#build-name"
  shouldSubmitOnEnter
  on:click:button--secondary={() => (open = false)}
  on:submit={save}
>
  <p class="why">The build keeps these parts as they are now, with the plan made from them.</p>
  <TextInput
    id="build-name"
    labelText="Name of the build"
    bind:value={name}
    maxlength={120}
    invalid={wrong !== ''}
    invalidText={wrong}
  />
</Modal>

<style>
  .why {
    margin-bottom: 16px;
  }
</style>
