<script lang="ts">
  import { invalidateAll } from '$app/navigation';

  type Props = {
    /** How many builds are still being judged, of all of them. */
    due: number;
    all: number;
  };
  /** Says that builds are being judged, and asks again until they are. */
  let { due, all }: Props = $props();
  const AGAIN_MS = 1500;

  $effect(() => {
    if (due === 0) return;
    // `all` and `due` come anew with each answer; so the next question waits for the last answer.
    const timer = setTimeout(() => void invalidateAll(), AGAIN_MS);
    return () => clearTimeout(timer);
  });
</script>

{#if due > 0}<p class="quiet" role="status">
    {due}
    {due === 1 ? 'build is' : 'builds are'} being judged{all > due ? `, of ${all}` : ''}. What is shown of the others is
    up to date.
  </p>{/if}
