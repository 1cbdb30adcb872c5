<script lang="ts">
  import { onMount } from 'svelte';
  import { day } from '#core/quantities/format';

  /** When something happened, by the clock of the reader; the server, which does not know that clock, writes UTC and says so. */
  let { at }: { at: string } = $props();
  let here = $state(false);
  onMount(() => {
    here = true;
  });
  const two = (part: number) => String(part).padStart(2, '0');
  const text = $derived.by(() => {
    if (!here) return `${day(at)} ${at.slice(11, 16)} UTC`;
    const then = new Date(at);
    const date = `${then.getFullYear()}-${two(then.getMonth() + 1)}-${two(then.getDate())}`;
    return `${day(date)} ${two(then.getHours())}:${two(then.getMinutes())}`;
  });
</script>

<time datetime={at}>{text}</time>

<style>
  /* In a column of times: as wide as with the word UTC, so that nothing moves when the clock of the reader is known. */
  :global(td.figure) > time {
    display: inline-block;
    min-width: 21ch;
  }
</style>
