<script lang="ts">
  import { Button, Checkbox, RadioButton, RadioButtonGroup, TextInput } from 'carbon-components-svelte';
  import { lossOf, type Copy, type OnIt } from '#core/format/record';
  import { day } from '#core/quantities/format';
  import DayField from '../common/DayField.svelte';
  import StateMark from '../common/StateMark.svelte';

  type Props = {
    last: { date: string; seen: OnIt } | undefined;
    today: string;
    busy: boolean;
    onkeep: (onIt: OnIt) => void;
  };
  /** What would be lost by erasing it: what is on it, since when, and where other copies are. */
  let { last, today, busy, onkeep }: Props = $props();
  // svelte-ignore state_referenced_locally
  let anything = $state<OnIt['anything']>(last?.seen.anything ?? 'unknown');
  // svelte-ignore state_referenced_locally
  let since = $state(last?.seen.since ?? '');
  // svelte-ignore state_referenced_locally
  let copies = $state<Copy[]>([...(last?.seen.copies ?? [])]);
  let what = $state('');
  let where = $state('');
  // svelte-ignore state_referenced_locally
  let at = $state(today);
  let verified = $state(false);
  const made = $derived<OnIt>({
    anything,
    copies: anything === 'something' ? copies : [],
    ...(since && anything === 'something' ? { since } : {})
  });
  const loss = $derived(lossOf(made));
  const MARK = ['pass', 'check', 'check', 'fail'] as const;
  const WORDS = [
    'Nothing is lost',
    'Something is lost',
    'Perhaps all is lost',
    'All is lost, or nobody knows'
  ] as const;
  const isKept = $derived(last !== undefined && JSON.stringify(last.seen) === JSON.stringify(made));

  function add(): void {
    if (what.trim() === '' || where.trim() === '') return;
    copies = [...copies, { what: what.trim(), where: where.trim(), at, verified }];
    what = '';
    where = '';
    verified = false;
  }
</script>

<section aria-label="What would be lost">
  <h2>What would be lost by erasing it</h2>
  <p class="meter level-{loss.level}" role="status">
    <span class="scale" aria-hidden="true"
      >{#each [0, 1, 2, 3] as n (n)}<i class:on={n <= loss.level}></i>{/each}</span
    >
    <StateMark mark={MARK[loss.level]} size={17} />
    <span><strong>{WORDS[loss.level]}.</strong> {loss.says} {loss.todo}</span>
  </p>
  <RadioButtonGroup
    legendText="Is anything on it?"
    selected={anything}
    on:change={({ detail }) => (anything = detail as OnIt['anything'])}
  >
    <RadioButton labelText="Nobody has looked" value="unknown" />
    <RadioButton labelText="Nothing that is needed" value="nothing" />
    <RadioButton labelText="Something" value="something" />
  </RadioButtonGroup>
  {#if anything === 'something'}
    <DayField
      label="Last changed"
      value={since}
      last={today}
      placeholder="27 Nov 2026"
      onpick={(value) => (since = value)}
    />
    <h3>Other copies of it</h3>
    {#if copies.length === 0}<p class="quiet small">None yet. Two volumes on one disk are one copy.</p>{/if}
    <ul>
      {#each copies as copy, i (i)}
        <li>
          {copy.what} at {copy.where}, {day(copy.at)}, {copy.verified ? 'opened and compared' : 'not opened yet'}
          <button
            type="button"
            class="link"
            onclick={() => (copies = copies.map((one, j) => (j === i ? { ...one, verified: !one.verified } : one)))}
            >{copy.verified ? 'not opened after all' : 'I opened it'}</button
          >
          <button type="button" class="link" onclick={() => (copies = copies.filter((_, j) => j !== i))}>remove</button>
        </li>
      {/each}
    </ul>
    <div class="add">
      <TextInput
        size="sm"
        labelText="What"
        placeholder="such as: scans of November"
        bind:value={what}
        maxlength={120}
      />
      <TextInput
        size="sm"
        labelText="Where"
        placeholder="such as: AC-0004, in the safe"
        bind:value={where}
        maxlength={120}
      />
      <DayField label="Made on" value={at} last={today} onpick={(value) => (at = value)} />
      <Checkbox labelText="Opened and compared" bind:checked={verified} />
      <Button size="small" kind="tertiary" disabled={what.trim() === '' || where.trim() === ''} on:click={add}
        >Add this copy</Button
      >
    </div>
  {/if}
  <p class="keep">
    <Button size="small" disabled={busy || isKept} on:click={() => onkeep(made)}>Keep it with the build</Button>
    {#if last}<span class="quiet small">Last answered {day(last.date)}.</span>{/if}
  </p>
</section>

<style>
  .meter {
    display: flex;
    gap: 10px;
    align-items: center;
    padding: 9px 12px;
    margin: 6px 0 10px;
    background: var(--ash-well);
    border-left: 3px solid var(--ash-caution);
  }
  .level-0 {
    border-color: var(--ash-pass);
  }
  .level-3 {
    border-color: var(--ash-fail);
  }
  .scale {
    display: flex;
    gap: 3px;
  }
  .scale i {
    width: 12px;
    height: 18px;
    border: 1px solid var(--ash-edge);
  }
  .scale i.on {
    background: var(--ash-ink);
  }
  h3 {
    margin: 12px 0 4px;
    font-size: var(--ash-text);
    font-weight: 650;
  }
  li {
    overflow-wrap: anywhere;
    padding: 3px 0;
  }
  .add {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 12rem), 1fr));
    gap: 10px 14px;
    align-items: end;
    margin: 8px 0;
  }
  .keep {
    display: flex;
    gap: 12px;
    align-items: center;
    margin-top: 10px;
  }
</style>
