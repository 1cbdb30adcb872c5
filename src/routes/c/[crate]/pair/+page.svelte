<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { Button } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import type { Choice } from '#core/build/choice';
  import { obviousChoice } from '#core/build/options';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import { GrowingLibrary, partsOf } from '$lib/client/growing-library.svelte';
  import { AroundChoice } from '$lib/client/what-if.svelte';
  import { measuredByPort } from '$lib/ui/pair/measured';
  import NothingToPair from '$lib/ui/pair/NothingToPair.svelte';
  import PairStation from '$lib/ui/pair/PairStation.svelte';
  import SaveAsBuild from '$lib/ui/pair/SaveAsBuild.svelte';
  import { choiceFromQuery, choiceToQuery } from '$lib/ui/pair/slots';
  import { choiceKey, compareHref } from '$lib/ui/compare/laid';
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import { changesOf } from '$lib/client/change';
  import { readPlanFrom } from '$lib/client/read-plan';

  let { data } = $props();
  let choice = $state.raw<Partial<Choice>>(choiceFromQuery(queryOf(page.url)));
  let open = $state(false);
  let wrong = $state('');
  let busy = $state(false);
  const growing = new GrowingLibrary(() => ({ crateId: data.crate.id, library: data.library, totals: data.totals }));
  const { library } = $derived(growing);
  const missing = $derived((['host', 'enclosure', 'drive'] as const).filter((kind) => data.totals[kind] === 0));

  const around = new AroundChoice();
  $effect(() => around.ask(library, choice));
  $effect(() => () => around.stop());

  const draftKey = $derived(`draft:${data.crate.id}:pair`);
  $effect(() => {
    // Opened without a choice in the address: the one that was left here last is there again, else what need not be asked.
    if (untrack(() => choiceToQuery(choice)) !== '') return;
    const kept = keptDraft<string>(draftKey);
    const begin = kept ? choiceFromQuery(new URLSearchParams(kept)) : obviousChoice(untrack(() => library));
    if (Object.keys(begin).length > 0) void tick().then(() => onchange(begin));
  });
  function onchange(next: Partial<Choice>): void {
    choice = next;
    void growing.load(partsOf(next));
    const query = choiceToQuery(next);
    if (query === '') dropDraft(draftKey);
    else keepDraft(draftKey, query);
    replaceState(`?${query}`, {});
  }
  const enclosure = $derived(choice.enclosureId && library.enclosure.get(choice.enclosureId)?.name);
  const suggested = $derived(
    [choice.driveId && library.drive.get(choice.driveId)?.name, enclosure].join(' in ').slice(0, 120)
  );
  function ask(): void {
    wrong = '';
    open = true;
  }
  async function pickPlan(file: File): Promise<void> {
    const opened = await readPlanFrom(data.crate.id, file);
    if (opened) onchange(opened);
  }
  async function save(name: string): Promise<void> {
    if (busy) return;
    busy = true;
    const refusal = await changesOf(data.crate.id)(
      'POST',
      `/api/crates/${data.crate.id}/builds`,
      { name, choice },
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
{#snippet planPicker()}
  <FilePicker label="Open a plan file" accept={['.json', 'application/json']} onpick={pickPlan} />
{/snippet}
{#if missing.length > 0}
  <NothingToPair home="/c/{data.crate.slug}" {missing} open={planPicker} />
{:else}
  <PairStation
    {library}
    {growing}
    {choice}
    {onchange}
    heading="Pair"
    around={around.result}
    measuredOn={measuredByPort(data.measured, choice)}
    home="/c/{data.crate.slug}"
  >
    {#snippet head({ report })}
      {@render planPicker()}
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

<SaveAsBuild bind:open {suggested} {busy} {wrong} onsave={save} />
