<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Modal, TextInput } from 'carbon-components-svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { send } from '$lib/client/api';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  let { data } = $props();
  let name = $state('');
  let wrong = $state('');
  let busy = $state(false);
  let resetting = $state<string | null>(null);

  async function create(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (name.trim() === '') {
      wrong = 'Give the crate a name.';
      return;
    }
    busy = true;
    const answer = await send<{ slug: string }>('POST', '/api/crates', { name: name.trim() });
    busy = false;
    if (!answer.ok) {
      wrong = answer.failure.fields[0]?.message ?? answer.failure.message;
      return;
    }
    await goto(`/c/${answer.data.slug}`);
  }

  async function reset(): Promise<void> {
    const id = resetting;
    resetting = null;
    const answer = await send('POST', `/api/crates/${id}/reset`, {});
    if (!answer.ok) return notices.add('error', answer.failure.message);
    notices.add('success', 'The demo crate is as it ships.');
    await invalidateAll();
  }
</script>

<svelte:head><title>Crates · Ash Crate</title></svelte:head>
<Frame path={page.url.pathname}>
  <div class="page">
    <div class="page-head"><h1 class="grow">Crates</h1></div>
    <Wide label="Crates"
      ><table class="plain-table">
        <thead><tr><th>Crate</th><th>Kind</th><th></th></tr></thead>
        <tbody>
          {#each data.crates as crate (crate.id)}
            <tr>
              <td><a href="/c/{crate.slug}">{crate.name}</a></td>
              <td class="quiet">{crate.demo ? 'demo, invented data' : 'your own'}</td>
              <td
                >{#if crate.demo}<Button kind="ghost" size="small" on:click={() => (resetting = crate.id)}
                    >Reset the demo</Button
                  >{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table></Wide
    >
    <h2>A crate of your own</h2>
    <p class="quiet">Empty at first: your drives, enclosures, cables and hosts, apart from the demo.</p>
    <form onsubmit={create}>
      <TextInput
        labelText="Name of the new crate"
        bind:value={name}
        invalid={wrong !== ''}
        invalidText={wrong}
        on:input={() => (wrong = '')}
        maxlength={60}
      />
      <Button type="submit" size="field" disabled={busy}>Make the crate</Button>
    </form>
  </div>
</Frame>

<Modal
  danger
  open={resetting !== null}
  modalHeading="Reset the demo crate?"
  primaryButtonText="Reset it"
  secondaryButtonText="Keep it"
  on:click:button--secondary={() => (resetting = null)}
  on:close={() => (resetting = null)}
  on:submit={reset}
>
  <p>
    Everything added or changed in the demo crate goes, builds and results included, and cannot be brought back. Your
    own crates are not touched.
  </p>
</Modal>

<style>
  h2 {
    margin: 32px 0 4px;
  }
  form {
    display: flex;
    align-items: flex-end;
    gap: 12px;
    max-width: 520px;
    margin-top: 12px;
  }
</style>
