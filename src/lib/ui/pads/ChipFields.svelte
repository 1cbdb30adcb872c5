<script lang="ts">
  import { Button, Select, SelectItem } from 'carbon-components-svelte';
  import type { BoardProblem, Component } from '#core/pads/board';
  import { ROLE_WORD } from '../geometry/pads';

  type Props = {
    chip: Component;
    index: number;
    problems: readonly BoardProblem[];
    onchange: (chip: Component) => void;
    onremove: () => void;
  };
  let { chip, index, problems, onchange, onremove }: Props = $props();
  const FIELDS = [
    ['xMm', 'From the gold edge', 'x'],
    ['yMm', 'From the left edge', 'y'],
    ['lengthMm', 'Length', 'Length'],
    ['widthMm', 'Width', 'Width'],
    ['heightMm', 'Height', 'Height']
  ] as const;
  const wrong = $derived(new Map(problems.filter((p) => p.chip === index).map((p) => [p.field, p.message])));
  function typed(field: (typeof FIELDS)[number][0], text: string): void {
    const value = Number(text.replace(',', '.'));
    if (text.trim() !== '' && Number.isFinite(value)) onchange({ ...chip, [field]: value });
  }
</script>

<fieldset>
  <legend class="hidden-visually">{ROLE_WORD[chip.role]} {index + 1}</legend>
  <Select
    size="sm"
    labelText="Chip"
    selected={chip.role}
    on:update={(e) => e.detail !== chip.role && onchange({ ...chip, role: e.detail as Component['role'] })}
  >
    {#each Object.entries(ROLE_WORD) as [value, text] (value)}<SelectItem {value} {text} />{/each}
  </Select>
  <Select
    size="sm"
    labelText="Side"
    selected={chip.side}
    on:update={(e) => e.detail !== chip.side && onchange({ ...chip, side: e.detail as Component['side'] })}
  >
    <SelectItem value="top" text="upper" /><SelectItem value="bottom" text="under" />
  </Select>
  {#each FIELDS as [field, label, short] (field)}
    <label title={label}>
      <span aria-hidden="true">{short}</span>
      <span class="box" class:wrong={wrong.has(field)}>
        <input
          inputmode="decimal"
          aria-label="{label}, mm"
          value={String(chip[field])}
          aria-invalid={wrong.has(field)}
          aria-describedby={wrong.has(field) ? `wrong-${index}-${field}` : undefined}
          onchange={(e) => typed(field, e.currentTarget.value)}
        /><span class="unit">mm</span>
      </span>
    </label>
  {/each}
  <Button kind="danger-ghost" size="small" on:click={onremove}>Remove</Button>
</fieldset>
{#if wrong.size > 0}
  <ul class="problems" role="alert">
    {#each wrong as [field, message] (field)}
      <li id="wrong-{index}-{field}">{FIELDS.find(([f]) => f === field)?.[1]}: {message}.</li>
    {/each}
  </ul>
{/if}

<style>
  fieldset {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px;
    margin: 0;
    padding: 0;
    border: 0;
  }
  fieldset :global(.bx--form-item) {
    flex: 0 0 auto;
  }
  fieldset :global(.bx--select) {
    width: 122px;
  }
  fieldset :global(.bx--form-item:nth-of-type(2) .bx--select) {
    width: 90px;
  }
  label {
    display: block;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .box {
    display: flex;
    align-items: center;
    width: 62px;
    height: 32px;
    padding: 0 6px;
    background: var(--ash-sheet);
    --cds-field: var(--ash-paper);
    --cds-field-01: var(--ash-paper);
    border: 0;
    border-bottom: 1px solid var(--ash-edge);
  }
  .box.wrong {
    border: 2px solid var(--ash-fail);
  }
  .box:focus-within {
    outline: 2px solid var(--ash-ember);
  }
  input {
    width: 100%;
    border: 0;
    background: none;
    color: var(--ash-ink);
    font: 14px var(--ash-mono);
    outline: none;
  }
  .unit {
    color: var(--ash-faint);
  }
  .problems {
    margin: 6px 0 0;
    color: var(--ash-fail);
  }
</style>
