<script lang="ts">
  import { Button, NumberInput, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { UNIT_STATES, type UnitState } from '#core/parts/item';

  let { busy, onadd }: { busy: boolean; onadd: (count: number, state: UnitState, location: string) => void } = $props();
  let count = $state<number | null>(1);
  let having = $state<UnitState>('owned');
  let location = $state('');
  const wrong = $derived(count === null || !Number.isInteger(count) || count < 1 || count > 200);
</script>

<form
  onsubmit={(e) => {
    e.preventDefault();
    if (wrong) return;
    onadd(count!, having, location.trim());
    // One more press adds one more, not as many again.
    count = 1;
  }}
>
  <NumberInput
    size="sm"
    labelText="How many"
    min={1}
    max={200}
    bind:value={count}
    invalid={wrong}
    invalidText="1 to 200"
  />
  <Select size="sm" labelText="State" bind:selected={having}>
    {#each UNIT_STATES as option (option)}<SelectItem value={option} text={option} />{/each}
  </Select>
  <TextInput size="sm" labelText="Where (optional)" bind:value={location} maxlength={120} />
  <Button type="submit" size="small" disabled={busy || wrong}>Add {count === 1 ? 'an item' : 'items'}</Button>
</form>

<style>
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 10px 14px;
    padding: 10px 0;
  }
  form :global(.bx--form-item) {
    flex: 0 0 150px;
  }
</style>
