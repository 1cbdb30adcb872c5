<script lang="ts">
  /** A measurement: the number in mono, its unit small and grey after a fixed space. */
  let { value, unit = '' }: { value: string; unit?: string } = $props();
</script>

<span class="figure"
  >{value}{#if unit}<span class="unit">{unit}</span>{/if}</span
>
