<script lang="ts">
  import { Button, Checkbox, MultiSelect, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { readQuantity, type UnitName } from '#core/quantities/read';
  import {
    CRITERIA,
    TRAITS,
    type Criterion,
    type Filters,
    type Trait,
    type Weights
  } from '#core/compare/ranking/request';
  import RoomHelper from '../jobs/RoomHelper.svelte';
  import { CRITERION_WORD, type RankState } from './state';
  import Piece from '../common/Piece.svelte';

  /** What a word of the list means, where that is not plain. */
  const ABOUT: Partial<Record<Criterion | Trait, string>> = {
    silence: 'a fan halves it, and so does a disk',
    lightness: 'case, drive and supply; typical weights where none is stated',
    tools: 'without a word about how the drive is held, a screw is assumed',
    reach: 'the longer the better; 0.5 m where none is stated',
    fallback: 'works on a plain USB port, not on Thunderbolt alone',
    room: 'the job fits and a fifth of the drive stays free'
  };

  type Named = { id: string; name: string };
  type Props = {
    state: RankState;
    jobs: readonly Named[];
    parts: { host: readonly Named[]; cable: readonly Named[]; enclosure: readonly Named[]; drive: readonly Named[] };
    /** How many of each kind take part where none is picked, in words. */
    usual: Record<'host' | 'cable' | 'enclosure' | 'drive', string>;
    /** What the weights are where the person moved none: by house rule and job. */
    begin: Weights;
    currency: string;
    onchange: (state: RankState) => void;
  };
  let { state: chosen, jobs, parts, usual, begin, currency, onchange }: Props = $props();

  const KINDS = [
    ['host', 'hostIds', 'Computers'],
    ['cable', 'cableIds', 'Cables'],
    ['enclosure', 'enclosureIds', 'Enclosures'],
    ['drive', 'driveIds', 'Drives']
  ] as const;
  const LIMITS = [
    ['maxSpend', 'To pay at most', currencyUnit()],
    ['maxCost', 'Price of all parts at most', currencyUnit()],
    ['minSustainedWriteMBps', 'Write after the cache at least', 'MB/s'],
    ['minCapacityTB', 'Capacity at least', 'TB']
  ] as const;
  function currencyUnit(): UnitName {
    return '';
  }
  // svelte-ignore state_referenced_locally
  const narrowed = Object.keys(chosen.weights).length > 0 || Object.keys(chosen.filters).length > 0;
  let typed = $state<Record<string, string>>({});
  let wrong = $state<Record<string, string>>({});
  const shownLimit = (key: keyof Filters) =>
    typed[key] ?? (chosen.filters[key] === undefined ? '' : String(chosen.filters[key]));

  function limit(
    key: 'maxSpend' | 'maxCost' | 'minSustainedWriteMBps' | 'minCapacityTB',
    unit: UnitName,
    text: string
  ): void {
    typed[key] = text;
    delete wrong[key];
    const { [key]: _old, ...filters } = chosen.filters;
    if (text.trim() === '') {
      delete typed[key];
      return onchange({ ...chosen, filters });
    }
    const reading = readQuantity(text, { unit, min: 0, max: key === 'minCapacityTB' ? 1000 : 1e5 });
    if (!reading.ok) wrong[key] = reading.message;
    else onchange({ ...chosen, filters: { ...filters, [key]: reading.value } });
  }
  function pickParts(
    key: 'hostIds' | 'cableIds' | 'enclosureIds' | 'driveIds',
    ids: readonly string[],
    all: number
  ): void {
    const { [key]: _old, ...rest } = chosen;
    onchange(ids.length === 0 || ids.length === all ? rest : { ...rest, [key]: [...ids] });
  }
  function verdict(of: 'works' | 'limited' | 'check', on: boolean): void {
    const before = chosen.filters.verdicts ?? ['works', 'limited', 'check'];
    if (before.includes(of) === on) return;
    const next = (['works', 'limited', 'check'] as const).filter((v) => (v === of ? on : before.includes(v)));
    const { verdicts: _old, ...filters } = chosen.filters;
    onchange({ ...chosen, filters: next.length === 3 || next.length === 0 ? filters : { ...filters, verdicts: next } });
  }
  const moved = $derived(Object.keys(chosen.weights).length > 0);
</script>

{#snippet slider(criterion: Criterion | Trait)}
  {@const weight = chosen.weights[criterion] ?? begin[criterion] ?? 0}
  <label class="weight" title={ABOUT[criterion]}>
    <span>{CRITERION_WORD[criterion]}</span>
    <input
      type="range"
      min="0"
      max="5"
      step="0.5"
      value={weight}
      aria-valuetext={weight === 0 ? 'does not count' : String(weight)}
      oninput={(e) =>
        onchange({ ...chosen, weights: { ...chosen.weights, [criterion]: Number(e.currentTarget.value) } })}
    />
    <output class="figure">{weight === 0 ? 'no' : weight}</output>
  </label>
{/snippet}

<form class="controls no-print" onsubmit={(e) => e.preventDefault()} aria-label="What is ranked">
  <Piece
    ><Select
      size="sm"
      labelText="For the job"
      selected={chosen.jobId ?? ''}
      on:update={(e) => onchange({ ...chosen, jobId: String(e.detail) })}
    >
      {#each jobs as job (job.id)}<SelectItem value={job.id} text={job.name} />{/each}
    </Select></Piece
  >

  <!-- The answer comes first: what may be moved is unfolded by those who want to. -->
  <details open={narrowed}>
    <summary>Weights, limits and parts</summary>
    <fieldset>
      <legend>What counts how much</legend>
      <Piece>
        {#each CRITERIA as criterion (criterion)}{@render slider(criterion)}{/each}
        <details open={TRAITS.some((trait) => chosen.weights[trait] !== undefined)}>
          <summary>What else counts for you</summary>
          {#each TRAITS as trait (trait)}{@render slider(trait)}{/each}
        </details></Piece
      >
      {#if moved}<Button kind="ghost" size="small" on:click={() => onchange({ ...chosen, weights: {} })}
          >Back to the house rule</Button
        >{/if}
    </fieldset>

    <fieldset>
      <legend>Limits</legend>
      <Piece>
        {#each LIMITS as [key, label, unit] (key)}
          <TextInput
            size="sm"
            labelText="{label}, {unit === '' ? currency : unit}"
            placeholder="any"
            value={shownLimit(key)}
            invalid={wrong[key] !== undefined}
            invalidText={wrong[key] ?? ''}
            on:change={(e) => limit(key, unit, String(e.detail ?? ''))}
          />
        {/each}
        <RoomHelper takes="the least" ontake={(tb) => limit('minCapacityTB', 'TB', String(tb))} />
        <Checkbox
          labelText="Parts at hand only"
          checked={chosen.filters.ownedOnly ?? false}
          on:check={(e) => {
            if (e.detail === (chosen.filters.ownedOnly ?? false)) return;
            const { ownedOnly: _old, ...filters } = chosen.filters;
            onchange({ ...chosen, filters: e.detail ? { ...filters, ownedOnly: true } : filters });
          }}
        />
        <Checkbox
          labelText="What is in a build counts as at hand"
          checked={chosen.takeApart}
          on:check={(e) => e.detail !== chosen.takeApart && onchange({ ...chosen, takeApart: e.detail })}
        /></Piece
      >
      <div class="verdicts" role="group" aria-label="Verdicts">
        {#each [['works', 'Works'], ['limited', 'Limited'], ['check', 'Check first']] as const as [of, word] (of)}
          <Checkbox
            labelText={word}
            checked={(chosen.filters.verdicts ?? ['works', 'limited', 'check']).includes(of)}
            on:check={(e) => verdict(of, Boolean(e.detail))}
          />
        {/each}
      </div>
    </fieldset>

    <fieldset>
      <legend>Among which parts</legend>
      {#each KINDS as [kind, key, label] (key)}
        <Piece>
          <MultiSelect
            size="sm"
            filterable
            labelText={label}
            label={usual[kind]}
            placeholder={chosen[key] ? `${chosen[key].length} of ${parts[kind].length}` : usual[kind]}
            items={parts[kind].map(({ id, name }) => ({ id, text: name }))}
            selectedIds={chosen[key] ?? []}
            on:select={(e) => pickParts(key, e.detail.selectedIds as string[], parts[kind].length)}
            on:clear={() => pickParts(key, [], parts[kind].length)}
          /></Piece
        >
      {/each}
    </fieldset>
  </details>
</form>

<style>
  summary {
    padding: 6px 0;
    font-weight: 600;
    cursor: pointer;
  }
  .controls {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 14px;
    align-content: start;
  }
  fieldset {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    min-width: 0;
    gap: 8px;
    margin: 0;
    padding: 10px 0 0;
    border: 0;
    border-top: 1px solid var(--ash-line);
  }
  legend {
    float: left;
    width: 100%;
    font-weight: 650;
  }
  .weight {
    display: grid;
    grid-template-columns: 1fr 2.4rem;
    gap: 0 8px;
    align-items: center;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .weight span {
    grid-column: 1 / -1;
  }
  .weight input {
    width: 100%;
    min-height: 24px;
    accent-color: var(--ash-ember);
  }
  .weight output {
    color: var(--ash-ink);
    text-align: right;
  }
  .verdicts {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
  }
  .verdicts :global(.bx--form-item) {
    flex: none;
  }
  .controls :global(.bx--checkbox-wrapper) {
    margin: 0;
  }
</style>
