<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';
  import { figure, quantity, rate } from '#core/quantities/format';
  import { readQuantity, type Expectation } from '#core/quantities/read';
  import { solveFallOff, type FallOffFound } from '#core/results/stopwatch';

  /** A copy that became slow in the middle: two of rate before, rate after and size of the cache give the third. */
  let { GB, seconds, sizeText }: { GB: number; seconds: number; sizeText: string } = $props();
  let typed = $state({ fast: '', slow: '', cliffGB: '' });
  const RATE: Expectation = { unit: 'MB/s', min: 0.1, max: 1e5 };
  const read = (text: string, expect: Expectation) => (text.trim() === '' ? null : readQuantity(text, expect));
  const fast = $derived(read(typed.fast, RATE));
  const slow = $derived(read(typed.slow, RATE));
  const cliff = $derived(read(typed.cliffGB, { unit: 'GB', min: 0.01, max: 200_000 }));
  type Outcome = { found: FallOffFound } | { why: string } | undefined;
  const known = $derived({
    ...(fast?.ok ? { fast: fast.value } : {}),
    ...(slow?.ok ? { slow: slow.value } : {}),
    ...(cliff?.ok && !(fast?.ok && slow?.ok) ? { cliffGB: cliff.value } : {})
  });
  const outcome = $derived.by((): Outcome => {
    const count = Object.keys(known).length;
    if (count === 0) return undefined;
    if (count < 2) return { why: 'One more of the three, and the third follows.' };
    try {
      return { found: solveFallOff({ GB, seconds, ...known }) };
    } catch {
      return { why: 'These figures do not go together: no cache explains this size and time with these rates.' };
    }
  });
</script>

<details>
  <summary>It became slow in the middle</summary>
  <p class="small quiet">
    {sizeText} went partly into a fast cache, the rest behind it. Type two of the three as you saw them; the third follows
    from size and time.
  </p>
  <div class="fields">
    <TextInput
      size="sm"
      labelText="Rate before, MB/s"
      bind:value={typed.fast}
      invalid={fast?.ok === false}
      invalidText={fast?.ok === false ? fast.message : ''}
    />
    <TextInput
      size="sm"
      labelText="Rate after, MB/s"
      bind:value={typed.slow}
      invalid={slow?.ok === false}
      invalidText={slow?.ok === false ? slow.message : ''}
    />
    <TextInput
      size="sm"
      labelText="It became slow after, GB"
      bind:value={typed.cliffGB}
      invalid={cliff?.ok === false}
      invalidText={cliff?.ok === false ? cliff.message : ''}
    />
  </div>
  <p aria-live="polite">
    {#if outcome && 'found' in outcome}
      {@const { fast: before, slow: after, cliffGB } = outcome.found}
      {rate(before.value)} MB/s until {quantity(cliffGB.value, 'GB')} ({figure(cliffGB.low)} to {figure(cliffGB.high)} GB),
      then {rate(after.value)} MB/s ({rate(after.low)} to {rate(after.high)}).
    {:else if outcome}{outcome.why}{/if}
  </p>
</details>

<style>
  details {
    margin-top: 8px;
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 11rem), 1fr));
    gap: 8px 14px;
    margin: 6px 0;
  }
</style>
