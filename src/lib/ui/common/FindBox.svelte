<script lang="ts">
  import { Search } from 'carbon-components-svelte';

  type Props = { label: string; placeholder: string; value: string; onlook: (words: string) => void };
  /** Looks for words in a list while they are typed. */
  let { label, placeholder, value, onlook }: Props = $props();
</script>

<div class="find no-print">
  <Search
    size="sm"
    labelText={label}
    {placeholder}
    {value}
    on:input={(e) => onlook(String((e.target as HTMLInputElement | null)?.value ?? ''))}
    on:clear={() => onlook('')}
  />
</div>

<style>
  .find {
    width: 260px;
    max-width: 100%;
    margin-bottom: 2px;
  }
</style>
