<script lang="ts">
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Checkbox, Select, SelectItem } from 'carbon-components-svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { KIND_LABEL, KINDS, type Kind } from '#core/parts/kinds';
  import { send, sendFile } from '$lib/client/api';
  import { WatchedTask, type TaskView } from '$lib/client/task.svelte';
  import { saved } from '$lib/client/undo';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import Preview, { type ImportPreview } from '$lib/ui/tables/Preview.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  let { data } = $props();
  const api = $derived(`/api/crates/${data.crate.id}`);
  let what = $state<string>('models:drive');
  let file = $state.raw<{ name: string; text: string; format: 'csv' | 'json' }>();
  let preview = $state.raw<ImportPreview>();
  let problem = $state('');
  let skipWrong = $state(false);
  let busy = $state(false);

  // svelte-ignore state_referenced_locally
  const task = new WatchedTask(`task:import:${data.crate.id}`, ended);
  const opening = new WatchedTask('task:bundle', opened);
  $effect(() => {
    void task.resume();
    void opening.resume();
    return () => {
      task.stop();
      opening.stop();
    };
  });

  const request = (mapping?: (string | null)[]) => {
    const [of, kind] = what.split(':') as ['models' | 'units' | 'quotes', Kind | undefined];
    return {
      what: of,
      ...(kind ? { kind } : {}),
      format: file!.format,
      text: file!.text,
      ...(mapping ? { mapping } : {})
    };
  };
  /** What was assigned to which headings: kept from the moment it is chosen, before the server has answered. */
  let assigned: { headings: string[]; mapping: (string | null)[] } | undefined;
  let turn = 0;
  async function look(mapping?: (string | null)[]): Promise<void> {
    if (!file) return;
    if (mapping && preview) assigned = { headings: preview.headings, mapping };
    const mine = ++turn;
    busy = true;
    problem = '';
    const answer = await send<ImportPreview>('POST', `${api}/import/preview`, request(mapping));
    // A later question is on its way: its answer counts, whichever comes first.
    if (mine !== turn) return;
    busy = false;
    if (answer.ok) preview = answer.data;
    else {
      preview = undefined;
      problem = answer.failure.message;
    }
  }
  async function choose(chosen: File): Promise<void> {
    file = { name: chosen.name, text: await chosen.text(), format: /\.json$/i.test(chosen.name) ? 'json' : 'csv' };
    await look();
    // The same headings mean the same columns: what was assigned to them stays.
    if (!assigned || !preview || String(assigned.headings) !== String(preview.headings)) return;
    if (String(assigned.mapping) !== String(preview.mapping)) await look(assigned.mapping);
  }
  function chooseWhat(): void {
    assigned = undefined; // columns of another table
    void look();
  }
  async function start(): Promise<void> {
    busy = true;
    const answer = await send<TaskView>('POST', `${api}/import`, {
      ...request(preview?.headings.length ? preview.mapping : undefined),
      ...(skipWrong ? { skipWrong } : {})
    });
    busy = false;
    if (answer.ok) task.follow(answer.data);
    else problem = answer.failure.message;
  }
  function ended(state: TaskView): void {
    if (state.state === 'done') {
      const { group, counts } = state.result as { group: string; counts: ImportPreview['counts'] };
      if (counts.new + counts.changed > 0)
        saved(`Imported: ${counts.new} new, ${counts.changed} changed.`, data.crate.id, group);
      else notices.add('info', 'Everything in the file was there already.');
      file = undefined;
      preview = undefined;
    } else if (state.state === 'cancelled') notices.add('info', 'Cancelled; nothing was imported.');
    else problem = state.error?.message ?? state.step;
    void invalidateAll();
  }
  async function openBundle(chosen: File): Promise<void> {
    const answer = await sendFile<TaskView>('/api/bundle', chosen);
    if (answer.ok) opening.follow(answer.data);
    else notices.add('error', `This bundle cannot be opened: ${answer.failure.message}`);
  }
  function opened(state: TaskView): void {
    if (state.state !== 'done') return notices.add('error', state.error?.message ?? state.step);
    const { crate } = state.result as { crate: { slug: string; name: string } };
    notices.add('success', `Opened as the crate ${crate.name}.`);
    void goto(`/c/${crate.slug}`, { invalidateAll: true });
  }
</script>

<svelte:head><title>Import and export · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <h1>Import and export</h1>
  <div class="two">
    <section aria-labelledby="in">
      <h2 id="in">Bring in a table</h2>
      <p class="quiet small">
        CSV or JSON. Columns are matched by name, units are read as you type them. Nothing is written before you have
        seen what would become of each row, and then all of it or nothing.
      </p>
      <div class="row">
        <Select labelText="What it holds" bind:selected={what} on:update={chooseWhat}>
          {#each KINDS as kind (kind)}<SelectItem value="models:{kind}" text={KIND_LABEL[kind].many} />{/each}
          <SelectItem value="units" text="Items" />
          <SelectItem value="quotes" text="Prices" />
        </Select>
        <FilePicker
          label="Choose a file"
          accept={['.csv', '.json', 'text/csv', 'application/json']}
          disabled={task.running}
          onpick={choose}
        />
      </div>
    </section>
    <section aria-labelledby="out">
      <h2 id="out">Take out</h2>
      <Wide label="What can be taken out"
        ><table class="plain-table">
          <tbody>
            {#each KINDS as kind (kind)}
              <tr>
                <td>{KIND_LABEL[kind].many}</td>
                <td><a href="{api}/export?what=models&kind={kind}&format=csv" download>CSV</a></td>
                <td><a href="{api}/export?what=models&kind={kind}&format=json" download>JSON</a></td>
              </tr>
            {/each}
            {#each [['units', 'Items'], ['quotes', 'Prices']] as [id, name] (id)}
              <tr>
                <td>{name}</td>
                <td><a href="{api}/export?what={id}&format=csv" download>CSV</a></td>
                <td><a href="{api}/export?what={id}&format=json" download>JSON</a></td>
              </tr>
            {/each}
            <tr>
              <td>The whole crate, with files and log</td>
              <td colspan="2"
                ><a href="{api}/bundle?form=lines" download>Bundle</a>, or
                <a href="{api}/bundle" download>one JSON document</a> (<a href="/api/bundle.schema.json">its schema</a
                >)</td
              >
            </tr>
          </tbody>
        </table></Wide
      >
      <p class="row">
        <FilePicker
          label="Open a bundle as a new crate"
          accept={['.json', '.gz', 'application/json', 'application/gzip']}
          onpick={openBundle}
        />
      </p>
      {#if opening.state && opening.running}<TaskProgress
          task={opening.state}
          oncancel={() => void opening.cancel()}
        />{/if}
    </section>
  </div>
  {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
  {#if task.state && task.running}<TaskProgress task={task.state} oncancel={() => void task.cancel()} />{/if}
  {#if preview && file && !task.running}
    <section aria-labelledby="preview">
      <h2 id="preview">{file.name}</h2>
      <Preview {preview} onmap={(mapping) => void look(mapping)} />
      {#if preview.counts.wrong > 0 && preview.counts.new + preview.counts.changed > 0}
        <Checkbox
          labelText="Import the rest and leave out the {preview.counts.wrong} wrong rows"
          bind:checked={skipWrong}
        />
      {/if}
      <Button
        size="field"
        disabled={busy || (preview.counts.wrong > 0 && !skipWrong) || preview.counts.new + preview.counts.changed === 0}
        on:click={() => void start()}>Import {preview.counts.new + preview.counts.changed} rows</Button
      >
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
  h2 {
    margin-bottom: 6px;
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
  section > :global(.bx--btn) {
    margin-top: 10px;
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
