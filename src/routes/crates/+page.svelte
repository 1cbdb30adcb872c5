<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Modal, TextInput } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { day } from '#core/quantities/format';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import { changesOf } from '$lib/client/change';
  import OnceOpen from '$lib/ui/common/OnceOpen.svelte';

  let { data } = $props();
  let name = $state('');
  let wrong = $state('');
  let busy = $state(false);
  let resetting = $state<string | null>(null);
  type Deleting = { id: string; name: string; version: number; forGood: boolean };
  let deleting = $state<Deleting | null>(null);

  /** Hides a crate, with an offer to bring it back; or removes one that is hidden already. */
  async function remove(): Promise<void> {
    if (!deleting) return;
    const { id, name: title, version, forGood } = deleting;
    deleting = null;
    const change = changesOf(id);
    if (forGood)
      await change('DELETE', `/api/crates/${id}/for-good`, { confirm: 'for good' }, `${title} is gone for good.`);
    else await change('DELETE', `/api/crates/${id}`, { version }, `Deleted ${title}.`);
  }
  async function bringBack(crate: { id: string; name: string; version: number }): Promise<void> {
    const { id, version } = crate;
    await changesOf(id)('POST', `/api/crates/${id}/bring-back`, { version }, `${crate.name} is back.`);
  }

  async function create(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (name.trim() === '') {
      wrong = 'Give the crate a name.';
      return;
    }
    busy = true;
    const refusal = await changesOf('')(
      'POST',
      '/api/crates',
      { name: name.trim() },
      {
        words: `Made the crate ${name.trim()}.`,
        to: ({ slug }) => `/c/${slug}`,
        refused: () => undefined
      }
    );
    busy = false;
    if (refusal) wrong = refusal.fields[0]?.message ?? refusal.message;
  }

  async function reset(): Promise<void> {
    const id = resetting;
    resetting = null;
    if (id) await changesOf(id)('POST', `/api/crates/${id}/reset`, {}, 'The demo crate is as it ships.');
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
                  >{/if}<Button
                  kind="ghost"
                  size="small"
                  on:click={() => (deleting = { ...crate, forGood: false })}
                  aria-label="Delete {crate.name}">Delete</Button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table></Wide
    >
    {#if data.deleted.length > 0}
      <h2>Deleted</h2>
      <p class="quiet">Each can be brought back for {data.keptDays} days; then it is gone.</p>
      <Wide label="Deleted crates"
        ><table class="plain-table">
          <thead><tr><th>Crate</th><th>Gone for good after</th><th></th></tr></thead>
          <tbody>
            {#each data.deleted as crate (crate.id)}
              <tr>
                <td>{crate.name}</td>
                <td>{day(crate.purgedAt.slice(0, 10))}</td>
                <td
                  ><Button kind="ghost" size="small" on:click={() => bringBack(crate)}>Bring back</Button><Button
                    kind="danger-ghost"
                    size="small"
                    on:click={() => (deleting = { ...crate, forGood: true })}>Delete for good</Button
                  ></td
                >
              </tr>
            {/each}
          </tbody>
        </table></Wide
      >
    {/if}
    <h2>A crate of your own</h2>
    <p class="quiet">Empty at first: your drives, enclosures, cables and computers, apart from the demo.</p>
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

<OnceOpen open={resetting !== null}>
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
</OnceOpen>

<OnceOpen open={deleting !== null}>
  <Modal
    danger
    open={deleting !== null}
    modalHeading={deleting?.forGood ? `Delete ${deleting.name} for good?` : `Delete ${deleting?.name ?? ''}?`}
    primaryButtonText={deleting?.forGood ? 'Delete it for good' : 'Delete it'}
    secondaryButtonText="Keep it"
    on:click:button--secondary={() => (deleting = null)}
    on:close={() => (deleting = null)}
    on:submit={remove}
  >
    {#if deleting?.forGood}
      <p>
        Its parts, builds, results and files are removed at once, and only a file that you kept brings them back.
        <a href="/api/backup" download>Download a backup of everything</a> first: it holds this crate too.
      </p>
    {:else if deleting}
      <p>
        It disappears with its parts, builds, results and files. You can bring it back for {data.keptDays} days, here on this
        page. To keep a copy, <a href="/api/crates/{deleting.id}/bundle?form=lines" download>download it as a bundle</a> first.
      </p>
    {/if}
  </Modal>
</OnceOpen>

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
