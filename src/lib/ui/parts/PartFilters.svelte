<script lang="ts">
  import { Button, Search, Select, SelectItem } from 'carbon-components-svelte';
  import type { Field } from '#core/parts/form/form';
  import { KIND_LABEL, type Kind } from '#core/parts/kinds';
  import { choicesOf } from './choices';

  /** Narrows a list of parts: by words, by what they are, by whether one has them. */
  let {
    kind,
    query,
    filters,
    fields,
    onset,
    oncolumns
  }: {
    kind: Kind;
    query: { find: string; having: string; filters: Readonly<Record<string, string>> };
    filters: readonly { name: string; path: string }[];
    fields: readonly Field[];
    onset: (change: Record<string, string>) => void;
    oncolumns: () => void;
  } = $props();
</script>

<div class="narrow no-print">
  <Search
    size="sm"
    labelText="Find {KIND_LABEL[kind].many.toLowerCase()}"
    placeholder="Name, bridge, tag, place"
    value={query.find}
    on:input={(e) => onset({ find: String((e.target as HTMLInputElement | null)?.value ?? '') })}
    on:clear={() => onset({ find: '' })}
  />
  {#each filters as filter (`${kind}${filter.name}`)}
    {@const { title, options } = choicesOf(fields, filter.path)}
    <Select
      size="sm"
      labelText={title}
      selected={query.filters[filter.name] ?? ''}
      on:update={(e) => onset({ [filter.name]: String(e.detail ?? '') })}
    >
      <SelectItem value="" text="any" />
      {#each options as option (option.value)}<SelectItem value={option.value} text={option.label} />{/each}
    </Select>
  {/each}
  <Select
    size="sm"
    labelText="Do I have it?"
    selected={query.having}
    on:update={(e) => onset({ having: String(e.detail ?? '') })}
  >
    <SelectItem value="" text="any" />
    <SelectItem value="owned" text="owned" />
    <SelectItem value="ordered" text="ordered" />
    <SelectItem value="wanted" text="wanted" />
    <SelectItem value="retired" text="retired" />
    <SelectItem value="none" text="no item of it" />
  </Select>
  <Button kind="ghost" size="small" on:click={() => oncolumns()}>Columns</Button>
</div>

<style>
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
</style>
