<script lang="ts">
  import { Search, Select, SelectItem } from 'carbon-components-svelte';
  import { UNIT_STATES } from '#core/parts/item';
  import { KIND_LABEL, KINDS } from '#core/parts/kinds';

  /** Narrows the list of items: by words, state, kind, and whether somebody has them. */
  let {
    query,
    onset
  }: {
    query: { find: string; state?: string | undefined; kind?: string | undefined; out?: boolean | undefined };
    onset: (change: Record<string, string>) => void;
  } = $props();
</script>

<div class="narrow no-print">
  <Search
    size="sm"
    labelText="Find items"
    placeholder="Tag, part, place, person"
    value={query.find}
    on:input={(e) => onset({ find: String((e.target as HTMLInputElement | null)?.value ?? '') })}
    on:clear={() => onset({ find: '' })}
  />
  <Select
    size="sm"
    labelText="State"
    selected={query.state ?? ''}
    on:update={(e) => onset({ state: String(e.detail ?? '') })}
  >
    <SelectItem value="" text="any" />
    {#each UNIT_STATES as state (state)}<SelectItem value={state} text={state} />{/each}
  </Select>
  <Select
    size="sm"
    labelText="Kind"
    selected={query.kind ?? ''}
    on:update={(e) => onset({ kind: String(e.detail ?? '') })}
  >
    <SelectItem value="" text="any" />
    {#each KINDS as kind (kind)}<SelectItem value={kind} text={KIND_LABEL[kind].one} />{/each}
  </Select>
  <Select
    size="sm"
    labelText="Lent"
    selected={query.out ? 'yes' : ''}
    on:update={(e) => onset({ out: String(e.detail ?? '') })}
  >
    <SelectItem value="" text="any" />
    <SelectItem value="yes" text="lent out" />
  </Select>
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
    width: 260px;
  }
  .narrow :global(.bx--form-item) {
    flex: 0 0 140px;
  }
</style>
