<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';
  import { invalidateAll } from '$app/navigation';
  import { KIND_LABEL, KINDS } from '#core/parts/kinds';
  import { Importing, type Imported } from '$lib/client/importing.svelte';
  import { openingBundle } from '$lib/client/opening-bundle';
  import { saved } from '$lib/client/undo';
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import ImportNow from '$lib/ui/tables/ImportNow.svelte';
  import Preview from '$lib/ui/tables/Preview.svelte';
  import TakeOut from '$lib/ui/tables/TakeOut.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  const importing = new Importing(data.crate.id, done);
  const task = importing.task;
  const bundle = openingBundle();
  $effect(() => {
    for (const one of [task, bundle.task]) void one.resume();
    return () => [task, bundle.task].forEach((one) => one.stop());
  });
  function done(imported: Imported | undefined): void {
    if (!imported) notices.add('info', 'Cancelled; nothing was imported.');
    else if (imported.counts.new + imported.counts.changed === 0)
      notices.add('info', 'Everything in the file was there already.');
    else
      saved(`Imported: ${imported.counts.new} new, ${imported.counts.changed} changed.`, data.crate.id, imported.group);
    void invalidateAll();
  }
</script>

<svelte:head><title>Import and export · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <h1>Import and export</h1>
  <div class="two">
    <section aria-labelledby="in">
      <h2 id="in">Bring in a table</h2>
      <p class="quiet small">
        CSV or JSON. Columns are matched by their usual names, in several languages; units are read as you type them.
        First you see what becomes of each row and put right what is wrong; then all of it is written, or nothing.
      </p>
      <div class="row">
        <Select labelText="What the file holds" bind:selected={importing.what} on:update={() => importing.chooseWhat()}>
          {#each KINDS as kind (kind)}<SelectItem value="models:{kind}" text={KIND_LABEL[kind].many} />{/each}
          <SelectItem value="units" text="Items" />
          <SelectItem value="quotes" text="Prices" />
        </Select>
        <FilePicker
          label="Choose a file"
          accept={['.csv', '.json', 'text/csv', 'application/json']}
          disabled={task.running}
          onpick={(chosen) => void importing.choose(chosen)}
        />
      </div>
    </section>
    <section aria-labelledby="out">
      <h2 id="out">Take out</h2>
      <TakeOut
        api="/api/crates/{data.crate.id}"
        opening={bundle.task.state}
        onbundle={(chosen) => void bundle.open(chosen)}
        oncancel={() => void bundle.task.cancel()}
      />
    </section>
  </div>
  {#if importing.problem}<p class="problem" role="alert">{importing.problem}</p>{/if}
  {#if task.state && task.running}<TaskProgress task={task.state} oncancel={() => void task.cancel()} />{/if}
  {#if importing.preview && importing.file && !task.running}
    <section aria-labelledby="preview">
      <h2 id="preview">{importing.file.name}</h2>
      <Preview
        preview={importing.preview}
        mended={importing.mended}
        onassign={(column, path) => importing.assign(column, path)}
        onmend={(row, path, cell) => importing.mend(row, path, cell)}
      />
      <ImportNow
        wrong={importing.preview.counts.wrong}
        writes={importing.writes}
        ready={importing.ready}
        mending={importing.mended.length > 0}
        bind:skipWrong={importing.skipWrong}
        onstart={() => void importing.start()}
      />
    </section>
  {/if}
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 36px;
    margin: 16px 0;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 14px;
    padding: 12px 0;
  }
  .problem {
    padding: 8px 12px;
    color: var(--ash-fail);
    border-left: 4px solid var(--ash-fail);
    background: var(--ash-sheet);
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
