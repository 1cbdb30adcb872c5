<script lang="ts">
  import { page } from '$app/state';
  import Frame from '$lib/ui/frame/Frame.svelte';

  $effect(() => {
    if (!page.error?.waiting) return;
    // The page asks until the database answers, then shows what was wanted.
    const timer = setInterval(async () => {
      const answer = await fetch('/api/health').catch(() => undefined);
      if (answer?.ok) location.reload();
    }, 1000);
    return () => clearInterval(timer);
  });
</script>

<svelte:head><title>{page.status} · Ash Crate</title></svelte:head>
<Frame path={page.url.pathname}>
  <div class="page">
    <div class="empty">
      <h1>{page.error?.waiting ? 'One moment' : page.status === 404 ? 'Not here' : 'Something went wrong'}</h1>
      <p role="alert">{page.error?.message}</p>
      {#if page.error?.waiting}<p class="quiet">
          This page shows itself again as soon as the database is back.
        </p>{:else}<p><a href="/">To Today</a></p>{/if}
    </div>
  </div>
</Frame>
