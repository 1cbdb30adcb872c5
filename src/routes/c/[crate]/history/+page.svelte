<script lang="ts">
  import { Button, Search, TextInput } from 'carbon-components-svelte';
  import { takeBack } from '$lib/client/undo';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  let writer = $state(data.writer);
  let find = $state('');
  const shown = $derived(
    data.history.filter((event) =>
      `${event.message} ${event.by} ${event.kind}`.toLowerCase().includes(find.trim().toLowerCase())
    )
  );
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
      <p class="quiet">
        Who changed what, newest first; the last 300. A change can be undone as long as no later change needs it.
      </p>
    </div>
    <div class="find"><Search size="sm" labelText="Find in the history" placeholder="Find" bind:value={find} /></div>
  </div>
  <HistoryTable list={shown} onundo={(group) => void takeBack(data.crate.id, group)} />
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
  .find {
    width: 200px;
  }
</style>
