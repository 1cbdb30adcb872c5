<script lang="ts">
  import { quantity } from '#core/quantities/format';
  import FilePicker from '../common/FilePicker.svelte';

  type Picture = { id: string; version: number; name: string; type: string; size: number };
  type Props = {
    pictures: readonly Picture[];
    /** Where a picture is read from. */
    srcOf: (id: string) => string;
    busy: boolean;
    onadd: (file: File) => void;
    onremove: (picture: Picture) => void;
  };
  /** Pictures beside a run: the window of another tool, the set-up on the desk. */
  let { pictures, srcOf, busy, onadd, onremove }: Props = $props();
  const SHOWN: ReadonlySet<string> = new Set(['image/jpeg', 'image/png', 'image/webp']);
</script>

<h2>Pictures</h2>
<div class="no-print">
  <FilePicker label="Add a picture of the window or the set-up" disabled={busy} onpick={onadd} />
</div>
{#each pictures as picture (picture.id)}
  <figure>
    {#if SHOWN.has(picture.type)}<img
        src={srcOf(picture.id)}
        alt="Beside this run: {picture.name}"
        loading="lazy"
      />{/if}
    <figcaption class="small">
      <a href={srcOf(picture.id)} download>{picture.name}</a>, {quantity(picture.size / 1000, 'kB')}
      <button type="button" onclick={() => onremove(picture)}>Delete {picture.name}</button>
    </figcaption>
  </figure>
{/each}

<style>
  h2 {
    margin: 14px 0 6px;
  }
  figure {
    margin: 10px 0;
  }
  img {
    max-width: 100%;
    max-height: 420px;
    border: 1px solid var(--ash-line);
  }
  figcaption {
    overflow-wrap: anywhere;
  }
  button {
    padding: 0 6px;
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    cursor: pointer;
  }
</style>
