<script lang="ts">
  import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { STAGE_LABEL, STAGES, type BuildStage } from '#core/build/stages';

  /** What can be done with a stored build: its stage; a change saved, laid beside or given up; else compared, printed, deleted. */
  let {
    stage,
    name = $bindable(),
    changed,
    outdated,
    savable,
    compare,
    onstage,
    onsave,
    ondiscard,
    ondelete
  }: {
    stage: BuildStage;
    name: string;
    /** Whether something is chosen that is not stored. */
    changed: boolean;
    /** Whether parts have changed since it was planned. */
    outdated: boolean;
    savable: boolean;
    /** Where it is laid beside others. */
    compare: string;
    onstage: (stage: BuildStage) => void;
    onsave: () => void;
    ondiscard: () => void;
    ondelete: () => void;
  } = $props();
</script>

<div class="stage no-print">
  <Select size="sm" labelText="Stage" selected={stage} on:update={(e) => onstage(e.detail as BuildStage)}>
    {#each STAGES as one (one)}<SelectItem value={one} text={STAGE_LABEL[one]} />{/each}
  </Select>
</div>
{#if changed || outdated}
  <div class="name">
    <TextInput
      size="sm"
      labelText="Name"
      bind:value={name}
      maxlength={120}
      invalid={name.trim() === ''}
      invalidText="A name is needed."
    />
  </div>
  <Button size="small" disabled={!savable || name.trim() === ''} on:click={onsave}
    >{changed ? 'Save the change' : 'Plan again'}</Button
  >
  {#if changed}
    <Button kind="ghost" size="small" href={compare}>Compare</Button>
    <Button kind="ghost" size="small" on:click={ondiscard}>Discard</Button>
  {/if}
{:else}
  <Button class="no-print" kind="ghost" size="small" href={compare}>Compare</Button>
  <Button class="no-print" kind="ghost" size="small" on:click={() => print()}>Print</Button>
  <Button class="no-print" kind="danger-ghost" size="small" on:click={() => ondelete()}>Delete</Button>
{/if}

<style>
  .stage {
    width: 132px;
  }
  .name {
    width: 160px;
  }
</style>
