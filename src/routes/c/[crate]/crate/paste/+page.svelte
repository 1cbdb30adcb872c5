<script lang="ts">
  import { Button, Select, SelectItem, TextArea } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { KINDS, KIND_LABEL, isKind, type Kind } from '#core/parts/kinds';
  import { draftFrom } from '#core/parts/form/form';
  import { readSpecification, TEXT_LIMIT } from '#core/box-text/read';
  import { specFrom } from '#core/box-text/spec';
  import ReadingView from '$lib/ui/parts/ReadingView.svelte';

  let { data } = $props();
  const KEY = $derived(`paste:${data.crate.id}`);
  let text = $state('');
  let asked = $state<Kind>();
  let answers = $state<Record<string, number>>({});
  let dropped = $state.raw<ReadonlySet<string>>(new Set());

  $effect(() => {
    text = localStorage.getItem(KEY) ?? '';
  });
  const reading = $derived(text.trim() === '' ? undefined : readSpecification(text, asked));
  const open = $derived(reading ? reading.questions.filter((q) => answers[q.path] === undefined).length : 0);

  function edit(next: string): void {
    text = next;
    answers = {};
    dropped = new Set();
    localStorage.setItem(KEY, next);
  }
  function confirm(): void {
    if (!reading) return;
    const { kind, ...spec } = specFrom(reading, answers, dropped);
    const draft = draftFrom(data.fields[reading.kind], spec);
    localStorage.setItem(`draft:${data.crate.id}:${String(kind)}:new`, JSON.stringify(draft));
    localStorage.removeItem(KEY);
    void goto(`/c/${data.crate.slug}/crate/${reading.kind}/new?from=paste`);
  }
</script>

<svelte:head><title>Paste a specification · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Paste a specification</h1>
      <p class="quiet">
        From a box, a page, a data sheet. It is read here in the browser; what is unclear or contradicts itself is
        asked, never guessed.
      </p>
    </div>
    {#if reading}
      <Button size="field" on:click={confirm}
        >{open > 0 ? `Go on with ${open} left open` : `Go on to the ${KIND_LABEL[reading.kind].one}`}</Button
      >
    {/if}
  </div>
  <div class="two">
    <div>
      <TextArea
        labelText="What it says"
        rows={reading ? 8 : 16}
        maxCount={TEXT_LIMIT}
        value={text}
        placeholder="Chert T4 2TB&#10;M.2 2280 NVMe, PCIe 4.0 x4&#10;read up to 7,000 MB/s, write up to 6,500 MB/s&#10;1200 TBW, 5 years warranty"
        on:input={(e) => edit(String((e.target as HTMLTextAreaElement).value))}
      />
      {#if reading}
        <div class="kind">
          <Select
            labelText={reading.kindSure ? 'Kind of part' : 'Kind of part – not sure, please check'}
            selected={reading.kind}
            on:update={(e) => {
              asked = isKind(String(e.detail)) ? (String(e.detail) as Kind) : undefined;
              answers = {};
              dropped = new Set();
            }}
          >
            {#each KINDS as kind (kind)}<SelectItem value={kind} text={KIND_LABEL[kind].one} />{/each}
          </Select>
        </div>
      {/if}
    </div>
    {#if reading}
      <ReadingView
        {reading}
        {text}
        fields={data.fields[reading.kind]}
        {answers}
        {dropped}
        onanswer={(path, option) => (answers = { ...answers, [path]: option })}
        ondrop={(path, away) => {
          const next = new Set(dropped);
          if (away) next.add(path);
          else next.delete(path);
          dropped = next;
        }}
      />
    {/if}
  </div>
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(280px, 1fr) minmax(380px, 1.5fr);
    gap: 28px;
    align-items: start;
  }
  .kind {
    max-width: 320px;
    margin-top: 14px;
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
