<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import { takeBack } from '$lib/client/undo';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  let writer = $state(data.writer);
  const list = listAddress(() => page.url);
  function sign(event: SubmitEvent): void {
    event.preventDefault();
    document.cookie = `writer=${encodeURIComponent(writer.trim())}; path=/; max-age=34560000; samesite=lax`;
    notices.add(
      'success',
      writer.trim() ? `From now on the log names ${writer.trim()}.` : 'The log names this machine.'
    );
  }
</script>

<svelte:head><title>History · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>History</h1>
      <p class="quiet">Who changed what, newest first. A change can be undone as long as no later change needs it.</p>
    </div>
    <FindBox
      label="Find in the history"
      placeholder="What happened, who did it"
      value={data.query.find}
      onlook={list.look}
    />
  </div>
  {#if data.total === 0 && data.query.find}<p class="quiet">Nothing in the history matches “{data.query.find}”.</p>
  {:else}<HistoryTable list={data.history} onundo={(group) => void takeBack(data.crate.id, group)} />{/if}
  <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} />
  <form onsubmit={sign}>
    <TextInput
      size="sm"
      labelText="Your name, for this history"
      bind:value={writer}
      maxlength={60}
      placeholder="this machine"
    />
    <Button type="submit" size="small" kind="tertiary">Use this name</Button>
  </form>
</div>

<style>
  form {
    display: flex;
    align-items: flex-end;
    gap: 8px;
    margin-top: 18px;
  }
</style>
