<script lang="ts">
  import { briefOf } from '#core/protocols/brief';
  import type { Protocol } from '#core/protocols/protocols';
  import type { TestedSubject } from '#core/protocols/tested';
  import { figure } from '#core/quantities/format';
  import Wide from '../common/Wide.svelte';
  import { bytesWords, takesWords } from './words';

  /** Questions that a measurement answers, each with what it costs; one is chosen by going to its page. */
  let {
    protocols,
    subject,
    hrefOf
  }: { protocols: readonly Protocol[]; subject: TestedSubject; hrefOf: (id: Protocol['id']) => string } = $props();
  const rows = $derived(protocols.map((protocol) => ({ protocol, brief: briefOf(protocol.id, {}, subject) })));
</script>

<Wide label="Ways of measuring">
  <table class="plain-table">
    <thead>
      <tr>
        <th scope="col">What do you want to know?</th>
        <th scope="col" class="number">Takes</th>
        <th scope="col" class="number">Writes</th>
        <th scope="col" class="number">Of its life</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as { protocol, brief } (protocol.id)}
        <tr>
          <td><a href={hrefOf(protocol.id)}>{protocol.answers}</a> <span class="small quiet">{protocol.label}</span></td
          >
          <td class="number">{takesWords(brief.seconds)}</td>
          <td class="number">{bytesWords(brief.writesGB)}</td>
          <td class="number"
            >{brief.wearPercent === null
              ? '–'
              : brief.wearPercent < 0.01
                ? 'under 0.01 %'
                : `${figure(brief.wearPercent)} %`}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  td {
    vertical-align: baseline;
  }
  .number {
    white-space: nowrap;
  }
  @media (max-width: 700px) {
    /* The question first, what it costs below it. */
    thead th:not(:first-child) {
      display: none;
    }
    tr {
      display: grid;
      grid-template-columns: auto auto 1fr;
      gap: 2px 18px;
      border-bottom: 1px solid var(--ash-line);
    }
    td {
      padding: 4px 0;
      border: 0;
      text-align: left;
    }
    td:first-child {
      grid-column: 1 / -1;
      padding-top: 10px;
    }
    td.number:nth-child(3)::before {
      content: 'writes ';
    }
    td.number:nth-child(4)::before {
      content: 'of its life ';
    }
  }
</style>
