<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { changesOf } from '$lib/client/change';
  import Frame from '$lib/ui/frame/Frame.svelte';

  let { data } = $props();
  // svelte-ignore state_referenced_locally
  let name = $state(data.own.length === 0 ? 'My crate' : '');
  let wrong = $state('');
  let busy = $state(false);
  const others = $derived(data.own.filter(({ slug }) => slug !== data.last?.slug).slice(0, 5));

  async function start(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const title = name.trim();
    if (title === '') {
      wrong = 'Give it a name, such as “My drives”.';
      return;
    }
    busy = true;
    const refusal = await changesOf('')(
      'POST',
      '/api/crates',
      { name: title },
      { words: `Made the crate ${title}.`, to: ({ slug }) => `/c/${slug}`, refused: () => undefined }
    );
    busy = false;
    wrong = refusal ? (refusal.fields[0]?.message ?? refusal.message) : '';
  }
</script>

<svelte:head><title>Ash Crate</title></svelte:head>
<Frame path={page.url.pathname}>
  <div class="page">
    <h1>Ash Crate</h1>
    <p class="what">
      For people who put a bare drive into an enclosure: it tells whether the parts go together, how fast, how hot and
      how dear they will be, and shows why.
    </p>
    {#if data.last}
      <p class="on">
        Go on in <a href="/c/{data.last.slug}"><strong>{data.last.name}</strong></a
        >{#each others as crate (crate.slug)},&#32;<a href="/c/{crate.slug}">{crate.name}</a>{/each}
      </p>
    {/if}
    <ul class="doors">
      <li>
        <h2>Judge one pairing right now</h2>
        <p>Pick a computer, a cable, a case and a drive by their class. Nothing has to be entered, nothing is kept.</p>
        <Button href="/judge" size="field">Judge a pairing</Button>
      </li>
      <li>
        <h2>Start my own</h2>
        <p>
          A crate for your computers, drives and cases. Paste what their boxes say; the first verdict takes minutes.
        </p>
        <form onsubmit={start} novalidate>
          <TextInput
            size="sm"
            labelText="Name of the crate"
            bind:value={name}
            maxlength={60}
            invalid={wrong !== ''}
            invalidText={wrong}
          />
          <Button type="submit" size="small" kind={data.starting ? 'primary' : 'tertiary'} disabled={busy}
            >Start my own</Button
          >
        </form>
      </li>
      {#if data.demo}
        <li>
          <h2>Look at the demo</h2>
          <p>
            An invented herbarium with its builds, planned, priced and measured. Change what you like; it can be reset.
          </p>
          <Button kind="tertiary" href="/c/{data.demo.slug}" size="field">Look at the demo</Button>
        </li>
      {/if}
    </ul>
    <p class="small quiet"><a href="/crates">All crates</a> · <a href="/backup">Backup</a></p>
  </div>
</Frame>

<style>
  h1 {
    margin-top: 24px;
  }
  .what {
    max-width: 46rem;
    margin: 6px 0 14px;
    font-size: 18px;
    line-height: 1.4;
  }
  .on {
    margin-bottom: 14px;
  }
  .doors {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
    gap: 18px;
    padding: 0;
    margin: 0 0 22px;
    list-style: none;
  }
  .doors li {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 8px;
    padding: 18px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    border-top: 3px solid var(--ash-ink);
  }
  .doors p {
    flex: 1;
  }
  form {
    display: flex;
    gap: 8px;
    align-items: flex-end;
    width: 100%;
  }
</style>
