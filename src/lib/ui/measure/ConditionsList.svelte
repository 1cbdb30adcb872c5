<script lang="ts">
  import { CONDITION_FIELDS, type Conditions } from '#core/results/conditions';
  import { FILESYSTEMS } from '#core/facts/filesystems';
  import { figure } from '#core/quantities/format';

  /** Conditions as they were kept: what is known, and what somebody said not to know. */
  let { conditions }: { conditions: Conditions } = $props();
  const rows = $derived([
    ...(conditions.filesystem ? [{ label: 'Filesystem', text: FILESYSTEMS[conditions.filesystem].label }] : []),
    ...CONDITION_FIELDS.flatMap(({ id, label, as }) => {
      const value = conditions[id];
      if (value === undefined) return conditions.notKnown?.includes(id) ? [{ label, text: 'not known' }] : [];
      const text =
        as.kind === 'choice'
          ? (as.options.find((option) => option.value === value)?.text ?? String(value))
          : as.kind === 'yes'
            ? value
              ? as.yes
              : as.no
            : as.kind === 'number'
              ? `${figure(Number(value))}${as.unit ? `\u202f${as.unit}` : ''}`
              : String(value);
      return [{ label, text }];
    }),
    ...(conditions.testGB === undefined
      ? []
      : [{ label: 'Size of the test', text: `${figure(conditions.testGB)}\u202fGB` }]),
    ...(conditions.repeats === undefined ? [] : [{ label: 'Repeats', text: String(conditions.repeats) }])
  ]);
</script>

{#if rows.length === 0}<p class="quiet">None was written down: no other result can be held against this one.</p>
{:else}
  <dl>
    {#each rows as { label, text } (label)}<div>
        <dt>{label}</dt>
        <dd>{text}</dd>
      </div>{/each}
  </dl>
{/if}
{#if conditions.notes}<p class="notes">{conditions.notes}</p>{/if}

<style>
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 11rem), 1fr));
    gap: 6px 16px;
    margin: 6px 0 10px;
  }
  dt {
    color: var(--ash-soft);
    font-size: var(--ash-text-small);
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  .notes {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
</style>
