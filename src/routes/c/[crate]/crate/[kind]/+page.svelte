<script lang="ts">
  import { changesOf } from '$lib/client/change';
  import { withTick } from '$lib/ui/common/ticks';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Checkbox, Modal, Search, Select, SelectItem } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { aKind, KIND_LABEL, KINDS } from '#core/parts/kinds';
  import { readDraft, type Draft } from '#core/parts/form/form';
  import { keepAddress, withQuery } from '$lib/client/address';
  import Pages from '$lib/ui/common/Pages.svelte';
  import SortHead from '$lib/ui/common/SortHead.svelte';
  import { editablePaths, choicesOf } from '$lib/ui/parts/choices';
  import { tableColumns } from '$lib/ui/parts/columns';
  import FieldInput from '$lib/ui/parts/FieldInput.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}/crate`);
  const api = $derived(`/api/crates/${data.crate.id}/models`);
  const label = $derived(KIND_LABEL[data.kind]);
  const all = $derived(tableColumns(data.kind));
  const href = (change: Record<string, string | undefined>) => withQuery(page.url, change);

  // Which columns stand: until the person chooses, the plain ones.
  let chosen = $state<{ kind: string; hidden: string[] }>();
  const hidden = $derived(
    chosen?.kind === data.kind
      ? chosen.hidden
      : data.hidden.length > 0
        ? data.hidden
        : all.filter((c) => !c.plain).map((c) => c.id)
  );
  const columns = $derived(all.filter((c) => c.id === 'name' || !hidden.includes(c.id)));
  function show(id: string, on: boolean): void {
    const next = withTick(hidden, id, !on);
    if (next === hidden) return;
    chosen = { kind: data.kind, hidden: [...next] };
    document.cookie = `columns-${data.kind}=${next.join(',') || 'none'}; path=/; max-age=34560000; samesite=lax`;
  }

  let picked = $state.raw<ReadonlyMap<string, number>>(new Map());
  const pickedHere = $derived(data.rows.filter((row) => picked.has(row.id)));
  function pick(id: string, version: number, on: boolean): void {
    const next = new Map(picked);
    if (on) next.set(id, version);
    else next.delete(id);
    picked = next;
  }
  const items = $derived([...picked].map(([id, version]) => ({ id, version })));

  let dialog = $state<'none' | 'edit' | 'columns'>('none');
  let path = $state('');
  let draft = $state<Draft>({});
  let busy = $state(false);
  const editable = $derived(editablePaths(data.fields));
  const editing = $derived(editable.find((e) => e.path === path));
  const read = $derived(
    editing ? readDraft([{ ...editing.field, key: 'value', required: false }], draft) : { spec: {}, errors: {} }
  );

  const change = $derived(changesOf(data.crate.id));
  async function many(method: 'PUT' | 'DELETE', body: object, words: string): Promise<void> {
    busy = true;
    const refusal = await change(method, `${api}/many`, { items, ...body }, words);
    busy = false;
    if (refusal) return;
    picked = new Map();
    dialog = 'none';
  }
  async function duplicate(): Promise<void> {
    for (const row of pickedHere) {
      const { id: _id, ...spec } = row.spec;
      const copy = { ...spec, name: `${spec.name} (copy)`.slice(0, 120) };
      if (await change('POST', api, { spec: copy }, `Added ${copy.name}.`)) return;
    }
    picked = new Map();
  }
</script>

<svelte:head><title>{label.many} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <nav class="kinds" aria-label="Kinds of part">
    {#each KINDS as kind (kind)}
      <a href="{home}/{kind}" aria-current={kind === data.kind ? 'page' : undefined}
        >{KIND_LABEL[kind].many} <span class="small quiet">{data.counts[kind] ?? 0}</span></a
      >
    {/each}
  </nav>
  <div class="page-head">
    <h1 class="grow">Crate</h1>
    <Button href="{home}/paste" kind="tertiary" size="field">Paste a specification</Button>
    <Button href="{home}/{data.kind}/new" size="field">Add {aKind(data.kind)}</Button>
  </div>

  {#if (data.counts[data.kind] ?? 0) === 0}
    <div class="empty">
      <h2>No {label.many.toLowerCase()} yet</h2>
      <p>
        What the box says is enough. What is left empty is filled with typical values for the class, and every such
        value is named in the plan.
      </p>
      <p>
        <a href="{home}/{data.kind}/new">Add the first {label.one}</a>, or
        <a href="{home}/paste">paste what is on its box</a>.
      </p>
    </div>
  {:else}
    <div class="narrow no-print">
      <Search
        size="sm"
        labelText="Find {label.many.toLowerCase()}"
        placeholder="Name, bridge, tag, place"
        value={data.query.find}
        on:input={(e) => void keepAddress(href({ find: String((e.target as HTMLInputElement | null)?.value ?? '') }))}
        on:clear={() => void keepAddress(href({ find: '' }))}
      />
      {#each data.filters as filter (`${data.kind}${filter.name}`)}
        {@const { title, options } = choicesOf(data.fields, filter.path)}
        <Select
          size="sm"
          labelText={title}
          selected={data.query.filters[filter.name] ?? ''}
          on:update={(e) => void keepAddress(href({ [filter.name]: String(e.detail ?? '') }))}
        >
          <SelectItem value="" text="any" />
          {#each options as option (option.value)}<SelectItem value={option.value} text={option.label} />{/each}
        </Select>
      {/each}
      <Select
        size="sm"
        labelText="At hand"
        selected={data.query.having}
        on:update={(e) => void keepAddress(href({ having: String(e.detail ?? '') }))}
      >
        <SelectItem value="" text="any" />
        <SelectItem value="owned" text="owned" />
        <SelectItem value="ordered" text="ordered" />
        <SelectItem value="wanted" text="wanted" />
        <SelectItem value="retired" text="retired" />
        <SelectItem value="none" text="no item" />
      </Select>
      <Button kind="ghost" size="small" on:click={() => (dialog = 'columns')}>Columns</Button>
    </div>
    {#if picked.size > 0}
      <div class="bulk no-print" role="region" aria-label="What to do with the chosen parts">
        <strong>{picked.size} chosen</strong>
        <Button size="small" kind="tertiary" on:click={() => (dialog = 'edit')}>Change a field</Button>
        <Button size="small" kind="tertiary" on:click={() => void duplicate()}>Duplicate</Button>
        <Button
          size="small"
          kind="danger-tertiary"
          disabled={busy}
          on:click={() =>
            void many(
              'DELETE',
              {},
              `Deleted ${picked.size} ${picked.size === 1 ? label.one : label.many.toLowerCase()}.`
            )}>Delete</Button
        >
        <Button size="small" kind="ghost" on:click={() => (picked = new Map())}>Choose none</Button>
      </div>
    {/if}
    <Wide label={label.many}>
      <table class="plain-table">
        <thead>
          <tr>
            <th class="box no-print"
              ><input
                type="checkbox"
                aria-label="Choose all on this page"
                checked={data.rows.length > 0 && pickedHere.length === data.rows.length}
                onchange={(e) => {
                  for (const row of data.rows) pick(row.id, row.version, e.currentTarget.checked);
                }}
              /></th
            >
            {#each [...columns, { id: 'units', title: 'Items', number: true }] as column (column.id)}
              <SortHead
                label={column.title}
                number={column.number}
                sorted={data.query.sort === column.id ? (data.query.down ? 'down' : 'up') : undefined}
                onsort={() =>
                  void keepAddress(
                    href({ sort: column.id, down: data.query.sort === column.id && !data.query.down ? 'yes' : '' })
                  )}
              />
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each data.rows as row (row.id)}
            <tr>
              <td class="box no-print"
                ><input
                  type="checkbox"
                  aria-label="Choose {row.spec.name}"
                  checked={picked.has(row.id)}
                  onchange={(e) => pick(row.id, row.version, e.currentTarget.checked)}
                /></td
              >
              {#each columns as column (column.id)}
                {@const cell = column.cell(row.spec)}
                <td class:number={column.number} class:figure={column.number}>
                  {#if column.id === 'name'}<a href="{home}/{data.kind}/{row.id}">{cell.text}</a>{:else}{cell.text ||
                      '–'}{/if}
                </td>
              {/each}
              <td class="number figure">{row.units}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
    {#if data.rows.length === 0}<p class="quiet">
        Nothing matches. <a href="{home}/{data.kind}">Show all {label.many.toLowerCase()}</a>
      </p>{/if}
    <Pages
      total={data.total}
      page={data.query.page}
      size={data.query.size}
      href={(n) => href({ page: n > 1 ? String(n) : '' })}
    />
    <p class="small no-print">
      <a href="/api/crates/{data.crate.id}/export?what=models&kind={data.kind}&format=csv" download
        >CSV of all {label.many.toLowerCase()}</a
      >
      · <a href="/c/{data.crate.slug}/tables">Import</a>
    </p>
  {/if}
</div>

<Modal
  open={dialog === 'edit'}
  modalHeading="Change a field of {picked.size} {label.many.toLowerCase()}"
  primaryButtonText="Set it"
  secondaryButtonText="Cancel"
  primaryButtonDisabled={busy || !editing || Object.keys(read.errors).length > 0}
  on:click:button--secondary={() => (dialog = 'none')}
  on:close={() => (dialog = 'none')}
  on:submit={() =>
    void many(
      'PUT',
      { set: { [path]: read.spec.value ?? null } },
      `Set ${editing?.title ?? path} of ${picked.size} ${label.many.toLowerCase()}.`
    )}
>
  <Select
    labelText="Field"
    selected={path}
    on:update={(e) => {
      path = String(e.detail ?? '');
      draft = {};
    }}
  >
    <SelectItem value="" text="choose" />
    {#each editable as entry (entry.path)}<SelectItem value={entry.path} text={entry.title} />{/each}
  </Select>
  {#if editing}
    <div class="value">
      <FieldInput
        field={{ ...editing.field, key: 'value', required: false, title: 'New value' }}
        path="value"
        {draft}
        errors={draft.value === undefined || draft.value === '' ? {} : read.errors}
        assumed={{}}
        onedit={(key, value) => (draft[key] = value)}
        onremove={() => {}}
      />
    </div>
    <p class="small quiet">
      Left empty, the field is taken away. Every part is checked; if one cannot take it, none is changed.
    </p>
  {/if}
</Modal>

<Modal passiveModal open={dialog === 'columns'} modalHeading="Columns" size="xs" on:close={() => (dialog = 'none')}>
  {#each all.filter((c) => c.id !== 'name') as column (column.id)}
    <Checkbox
      labelText={column.title}
      checked={!hidden.includes(column.id)}
      on:check={(e) => show(column.id, e.detail)}
    />
  {/each}
</Modal>

<style>
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  .kinds a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .kinds a:hover {
    background: var(--ash-well);
  }
  .kinds a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
  .narrow {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px 12px;
    margin-bottom: 12px;
  }
  .narrow :global(.bx--search) {
    width: 210px;
  }
  .narrow :global(.bx--form-item) {
    flex: 0 0 auto;
    width: 122px;
  }
  .bulk {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    padding: 6px 10px;
    background: var(--ash-ember-wash);
  }
  .box {
    width: 30px;
  }
  .box input {
    width: 16px;
    height: 16px;
    accent-color: var(--ash-ember);
  }
  .value {
    margin: 16px 0 8px;
  }
  td a {
    font-weight: 600;
  }
</style>
