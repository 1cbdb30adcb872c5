<script lang="ts">
  import type { Leads } from '#core/assembly/leads';

  /** The order of plugging and unplugging as a card. */
  let { leads, title, parts }: { leads: Leads; title: string; parts: string } = $props();
</script>

<article class="card">
  <h2>{title}</h2>
  <p class="quiet small">{parts}</p>
  <div class="ways">
    <section>
      <h3>Plug in</h3>
      <ol>
        {#each leads.plug as line (line)}<li>{line}</li>{/each}
      </ol>
    </section>
    <section>
      <h3>Unplug</h3>
      <ol>
        {#each leads.unplug as line (line)}<li>{line}</li>{/each}
      </ol>
    </section>
  </div>
  {#each leads.notes as note (note)}<p class="note">{note}</p>{/each}
</article>

<style>
  .card {
    max-width: 40rem;
    padding: 16px 20px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
  }
  .ways {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
    gap: 10px 24px;
    margin: 10px 0;
  }
  h3 {
    font-size: var(--ash-text);
    font-weight: 650;
  }
  li {
    margin: 4px 0 4px 1.4em;
    list-style: decimal;
  }
  .note {
    padding-top: 6px;
    margin-top: 6px;
    border-top: 1px solid var(--ash-line);
  }
  @media print {
    .card {
      width: 120mm;
      border: 0.3mm solid currentColor;
      break-inside: avoid;
    }
  }
</style>
