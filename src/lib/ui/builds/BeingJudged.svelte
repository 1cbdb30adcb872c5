<script lang="ts">
  type Props = {
    /** How many builds are still being judged, of all of them. */
    due: number;
    all: number;
    /** Asks again. */
    onagain: () => void;
  };
  /** Says that builds are being judged, and asks again until they are. */
  let { due, all, onagain }: Props = $props();
  const AGAIN_MS = 1500;

  $effect(() => {
    if (due === 0) return;
    const asking = setInterval(onagain, AGAIN_MS);
    return () => clearInterval(asking);
  });
</script>

{#if due > 0}<p class="quiet" role="status">
    {due}
    {due === 1 ? 'build is' : 'builds are'} being judged{all > due ? `, of ${all}` : ''}. What is shown of the others is
    up to date.
  </p>{/if}
