<script lang="ts">
  import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { IMPRINTS, untouchedBy, type Imprint, type ImprintCheck } from '#core/temperature-logs/observation';
  import { day } from '#core/quantities/format';
  import type { StackRow } from '#core/pads/plan-pads';
  import { ROLE_WORD } from '../geometry/pads';

  type Props = {
    rows: readonly StackRow[];
    last: { date: string; seen: ImprintCheck } | undefined;
    busy: boolean;
    onrecord: (seen: Record<number, { onChip: Imprint; onCase: Imprint }>, note: string) => void;
    onnext: (untouched: readonly number[]) => void;
  };
  let { rows, last, busy, onrecord, onnext }: Props = $props();
  let seen = $state<Record<number, { onChip: Imprint; onCase: Imprint }>>({});
  let note = $state('');
  const WORDS: Record<Imprint, string> = { even: 'even imprint', uneven: 'uneven', none: 'no imprint' };
  const at = (component: number) => seen[component] ?? { onChip: 'even' as const, onCase: 'even' as const };
  function see(component: number, face: 'onChip' | 'onCase', event: Event): void {
    const imprint = (event.target as HTMLSelectElement).value as Imprint;
    seen = { ...seen, [component]: { ...at(component), [face]: imprint } };
  }
  /** The last check speaks of these very pads. */
  const untouched = $derived(
    last
      ? untouchedBy(last.seen).filter((component) => {
          const was = last.seen.chips.find((chip) => chip.component === component);
          const is = rows.find((row) => row.component === component);
          return is !== undefined && was?.padsMm.join() === is.pads.join();
        })
      : []
  );
</script>

<details class="dry" open={untouched.length > 0}>
  <summary
    >Dry fit: imprint check{last
      ? `, last ${day(last.date)}: ${untouchedBy(last.seen).length === 0 ? 'every pad touched' : `${untouchedBy(last.seen).length} of ${last.seen.chips.length} did not touch`}`
      : ', not done yet'}</summary
  >
  {#if untouched.length > 0}
    <p class="next">
      No imprint at {untouched
        .map((c) => ROLE_WORD[(rows.find((r) => r.component === c)?.role ?? 'nand') as 'nand'])
        .join(', ')}: the gap is at least as wide as that pad.
      <Button size="small" kind="tertiary" on:click={() => onnext(untouched)}>Show the next proposal</Button>
    </p>
  {/if}
  <p class="small quiet">
    No cable connected, hands on bare metal first. Lay the pads in with their liners on, close the case without force,
    open it again and look at both faces of every pad.
  </p>
  <table class="plain-table">
    <thead
      ><tr><th scope="col">Pad over</th><th scope="col">Towards the chip</th><th scope="col">Towards the case</th></tr
      ></thead
    >
    <tbody>
      {#each rows as row (row.component)}
        <tr>
          <td>{ROLE_WORD[row.role as 'nand']} {row.component + 1}</td>
          {#each [['onChip', 'chip'], ['onCase', 'case']] as const as [face, word] (face)}
            <td>
              <Select
                size="sm"
                hideLabel
                labelText="Imprint of {ROLE_WORD[row.role as 'nand']} {row.component + 1} towards the {word}"
                selected={at(row.component)[face]}
                on:change={(e) => see(row.component, face, e)}
              >
                {#each IMPRINTS as imprint (imprint)}<SelectItem value={imprint} text={WORDS[imprint]} />{/each}
              </Select>
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
  <div class="end">
    <TextInput size="sm" labelText="Note (optional)" bind:value={note} maxlength={500} />
    <Button size="small" disabled={busy} on:click={() => onrecord(seen, note)}>Keep this check</Button>
  </div>
</details>

<style>
  .dry {
    padding: 8px 0;
    border-top: 1px solid var(--ash-line);
  }
  summary {
    font-weight: 600;
    cursor: pointer;
  }
  .next {
    margin: 6px 0;
    padding: 6px 10px;
    background: var(--ash-ember-wash);
  }
  /* Two of them stand side by side on a telephone: the words first, then the room around them. */
  td :global(.bx--select-input) {
    min-width: 126px;
    padding: 0 28px 0 8px;
  }
  td :global(.bx--select__arrow) {
    right: 8px;
  }
  .end {
    display: flex;
    align-items: flex-end;
    gap: 10px;
    margin-top: 8px;
  }
</style>
