<script lang="ts">
  import type { Unit } from '#core/parts/item';
  import { KIND_LABEL, type Kind } from '#core/parts/kinds';
  import { day, quantity } from '#core/quantities/format';

  /** What is known of an item: what it is, where, who has it, which build it is in. */
  let {
    unit,
    model,
    build,
    home,
    today
  }: {
    unit: Unit;
    model: { id: string; kind: Kind; name: string };
    build: { tag: string; name: string } | undefined;
    home: string;
    today: string;
  } = $props();
  const late = $derived(unit.dueBack !== undefined && unit.dueBack < today);
</script>

<dl>
  <dt>What</dt>
  <dd>{KIND_LABEL[model.kind].one}, <a href="{home}/crate/{model.kind}/{model.id}">{model.name}</a></dd>
  <dt>State</dt>
  <dd>{unit.state}</dd>
  <dt>Where</dt>
  <dd>{unit.location ?? 'not noted'}</dd>
  <dt>Who has it</dt>
  <dd>
    {unit.custodian ?? 'nobody; it is in the crate'}{#if unit.dueBack}, due back
      <strong class:late>{day(unit.dueBack)}{late ? ' – late' : ''}</strong>{/if}
  </dd>
  <dt>In build</dt>
  <dd>
    {#if build}<a href="/b/{build.tag}">{build.tag} {build.name}</a>{:else}none{/if}
  </dd>
  {#if unit.capacityBytes}<dt>Exact capacity</dt>
    <dd class="figure">{quantity(unit.capacityBytes, 'B')}</dd>{/if}
  {#if unit.serial}<dt>Serial number</dt>
    <dd class="figure">{unit.serial}</dd>{/if}
  {#if unit.caseSerial}<dt>As the case shows it</dt>
    <dd class="figure">{unit.caseSerial}</dd>{/if}
  {#if unit.firmware}<dt>Firmware</dt>
    <dd>{unit.firmware}</dd>{/if}
  {#if unit.notes}<dt>Notes</dt>
    <dd class="notes">{unit.notes}</dd>{/if}
</dl>

<style>
  dl {
    display: grid;
    grid-template-columns: 140px 1fr;
    gap: 6px 16px;
    align-content: start;
  }
  dt {
    color: var(--ash-soft);
  }
  .late {
    color: var(--ash-fail);
  }
  .notes {
    white-space: pre-wrap;
  }
</style>
