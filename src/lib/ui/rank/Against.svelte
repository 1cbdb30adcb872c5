<script lang="ts">
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { day, duration, figure, money } from '#core/quantities/format';
  import { often } from '#core/quantities/often';
  import { readQuantity } from '#core/quantities/read';
  import { breakEven } from '#core/compare/ranking/break-even';

  export type Way = { key: string; name: string; cost: number | null; seconds: number | null };
  type Props = {
    /** The combination that is looked at, and what it can be held against. */
    row: Way;
    ways: readonly Way[];
    against: string | undefined;
    perDay: number | undefined;
    currency: string;
    today: string;
    onagainst: (key: string) => void;
  };
  let { row, ways, against, perDay, currency, today, onagainst }: Props = $props();

  let hour = $state('');
  const hourReading = $derived(hour.trim() === '' ? null : readQuantity(hour, { unit: '', min: 0, max: 1e5 }));
  const other = $derived(ways.find((way) => way.key === against) ?? ways[0]);
  const result = $derived(
    other && other.cost !== null && row.cost !== null && other.seconds !== null && row.seconds !== null
      ? breakEven({
          extra: row.cost - other.cost,
          secondsSaved: other.seconds - row.seconds,
          perDay: perDay ?? 1,
          hourValue: hourReading?.ok ? hourReading.value : undefined,
          from: today
        })
      : null
  );
  const saved = $derived(other && other.seconds !== null && row.seconds !== null ? other.seconds - row.seconds : null);
</script>

<section class="against" aria-label="Compared with another way">
  <p><strong>{row.name}</strong></p>
  <div class="fields no-print">
    <Select
      size="sm"
      labelText="Compared with"
      selected={other?.key ?? ''}
      on:update={(e) => onagainst(String(e.detail))}
    >
      {#each ways as way (way.key)}<SelectItem value={way.key} text={way.name} />{/each}
    </Select>
    <TextInput
      size="sm"
      labelText="An hour is worth, {currency}"
      placeholder="not said"
      bind:value={hour}
      invalid={hourReading !== null && !hourReading.ok}
      invalidText={hourReading && !hourReading.ok ? hourReading.message : ''}
    />
  </div>
  {#if !other}
    <p class="quiet">There is nothing to compare it with: add a ready-made drive to the crate.</p>
  {:else if !result}
    <p class="quiet">A price or a rate of one of the two is not known.</p>
  {:else}
    <p>
      {result.extra > 0
        ? `Costs ${money(result.extra, currency)} more`
        : result.extra < 0
          ? `Costs ${money(-result.extra, currency)} less`
          : 'Costs the same'}, and the job takes
      {saved === null || Math.abs(saved) < 0.5
        ? 'as long'
        : `${duration(Math.abs(saved))} ${saved > 0 ? 'less' : 'longer'}`} each time.
      {#if result.hoursAYear > 0}
        With {often(perDay ?? 1)}{perDay === undefined ? ' (assumed)' : ''} that saves
        <strong>{figure(result.hoursAYear)} hours a year</strong>{result.perHour === null
          ? ''
          : `: ${money(result.perHour, currency)} for each of them in the first year`}.
      {:else if result.hoursAYear < 0}
        With {often(perDay ?? 1)}{perDay === undefined ? ' (assumed)' : ''} that costs {figure(-result.hoursAYear)} hours
        a year.
      {/if}
      {#if result.extra > 0 && result.date}It has paid for itself on <strong>{day(result.date)}</strong>, if used from
        today.
      {:else if result.extra <= 0 && result.hoursAYear >= 0}It is the better one from the first day.
      {:else if result.extra > 0 && hourReading?.ok}It does not pay for itself within ten years.{/if}
    </p>
  {/if}
</section>

<style>
  .against {
    padding: 10px 14px;
    background: var(--ash-sheet);
    --cds-field: var(--ash-paper);
    --cds-field-01: var(--ash-paper);
    border: 1px solid var(--ash-line);
  }
  .fields {
    display: grid;
    gap: 8px;
    margin: 6px 0;
  }
</style>
