<script lang="ts">
  import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { quantity } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import {
    ROOM_USES,
    roomNeeded,
    USUAL_GROWTH,
    USUAL_RESERVE,
    USUAL_YEARS,
    type RoomUse
  } from '#core/filesystem/room-needed';

  /** How much room is needed, from what there is now; what comes out can be taken into the field that asks for it. */
  let { ontake, takes = 'space needed' }: { ontake: (tb: number) => void; takes?: string } = $props();
  let use = $state<RoomUse>('work');
  let now = $state('');
  let growth = $state(String(USUAL_GROWTH));
  let years = $state(String(USUAL_YEARS));
  let reserve = $state(String(USUAL_RESERVE));

  const reading = $derived({
    now: readQuantity(now, { unit: 'TB', min: 0, max: 1000 }),
    growth: readQuantity(growth, { unit: '%', min: 0, max: 500 }),
    years: readQuantity(years, { unit: 'years', min: 0, max: 20 }),
    reserve: readQuantity(reserve, { unit: '%', min: 0, max: 95 })
  });
  const room = $derived.by(() => {
    const { now, growth, years, reserve } = reading;
    if (!now.ok || !growth.ok || !years.ok || !reserve.ok) return undefined;
    return roomNeeded({
      use,
      nowTB: now.value,
      growth: growth.value,
      years: years.value,
      reserve: reserve.value
    });
  });
  const wrong = (text: string, read: (typeof reading)[keyof typeof reading]) =>
    text.trim() !== '' && !read.ok ? read.message : '';
  /** Enter works it out, as every change does; it must not send the form around it. */
  function stay(event: KeyboardEvent): void {
    if (event.key === 'Enter') event.preventDefault();
  }
</script>

<details>
  <summary>How much room do I need?</summary>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div class="fields" onkeydown={stay}>
    <Select size="sm" labelText="For" bind:selected={use}>
      {#each Object.entries(ROOM_USES) as [id, { label }] (id)}<SelectItem value={id} text={label} />{/each}
    </Select>
    {#snippet field(
      label: string,
      text: string,
      read: (typeof reading)[keyof typeof reading],
      set: (text: string) => void
    )}
      <TextInput
        size="sm"
        labelText={label}
        value={text}
        invalid={wrong(text, read) !== ''}
        invalidText={wrong(text, read)}
        on:input={(e) => set(String(e.detail ?? ''))}
      />
    {/snippet}
    {@render field('There is now, TB', now, reading.now, (text) => (now = text))}
    {@render field('Grows each year by, %', growth, reading.growth, (text) => (growth = text))}
    {@render field('Kept for, years', years, reading.years, (text) => (years = text))}
    {@render field('Kept free, %', reserve, reading.reserve, (text) => (reserve = text))}
  </div>
  <div role="status">
    {#if room}
      <p>
        {room.steps.join('; ')}.
        <strong
          >{room.soldTB === null
            ? 'No single drive has that: plan several.'
            : `The next size that is sold: ${quantity(room.soldTB, 'TB')}.`}</strong
        >
      </p>
    {:else}<p class="quiet small">Growth, years and what stays free are assumed; change what you know better.</p>{/if}
  </div>
  {#if room}
    {@const need = room.needTB}
    <Button kind="tertiary" size="small" on:click={() => ontake(need)}>Take {quantity(need, 'TB')} as {takes}</Button>
  {/if}
</details>

<style>
  summary {
    padding: 6px 0;
    font-weight: 600;
    cursor: pointer;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 8px 12px;
    align-items: end;
    max-width: 900px;
  }
  p {
    margin: 8px 0;
    max-width: 75ch;
  }
</style>
