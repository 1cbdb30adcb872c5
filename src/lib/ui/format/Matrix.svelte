<script lang="ts">
  import { OS_LABEL, type OsFamily } from '#core/facts/filesystems';
  import type { MatrixRow } from '#core/format/matrix';

  type Props = { rows: readonly MatrixRow[]; systems: readonly OsFamily[]; own: ReadonlySet<OsFamily> };
  /** Filesystem by system; the crate's own systems are marked. */
  let { rows, systems, own }: Props = $props();
  const WORD = { writes: 'writes', reads: 'reads', no: 'no' } as const;
</script>

<div class="scroll">
  <table class="plain-table">
    <thead>
      <tr>
        <th scope="col">Filesystem</th>
        {#each systems as os (os)}<th scope="col" class:own={own.has(os)}
            >{OS_LABEL[os]}{#if own.has(os)}<span class="mine">yours</span>{/if}</th
          >{/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.filesystem)}
        <tr>
          <th scope="row">{row.label}</th>
          {#each row.cells.filter((one) => systems.includes(one.os)) as cell (cell.os)}
            <td class="{cell.does} {own.has(cell.os) ? 'own' : ''}">
              {WORD[cell.does]}{cell.makes ? ', makes' : ''}
              {#if cell.note}<span class="note">{cell.note}</span>{/if}
            </td>
          {/each}
        </tr>
        <tr class="more">
          <td></td>
          <td colspan={systems.length}
            >{row.limits.charAt(0).toUpperCase()}{row.limits.slice(1)}.
            <span class="source">Source: {row.source}.</span></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .scroll {
    overflow-x: auto;
  }
  th,
  td {
    vertical-align: top;
  }
  thead th {
    white-space: nowrap;
  }
  td {
    min-width: 4.9rem;
  }
  td,
  thead th {
    padding-left: 6px;
  }
  tbody th {
    border-bottom-color: var(--ash-line);
  }
  .own {
    background: var(--ash-well);
  }
  .mine {
    display: block;
    color: var(--ash-note);
    font-size: var(--ash-text-small);
    font-weight: 500;
  }
  .writes {
    font-weight: 650;
  }
  .no {
    color: var(--ash-faint);
  }
  .note {
    display: block;
    font-size: var(--ash-text-small);
    font-weight: 400;
    color: var(--ash-soft);
  }
  tbody tr:not(.more) > * {
    border-bottom: 0;
  }
  .more td {
    padding-top: 0;
    font-size: var(--ash-text-small);
    border-bottom: 1px solid var(--ash-line);
  }
  .source {
    color: var(--ash-soft);
  }
</style>
