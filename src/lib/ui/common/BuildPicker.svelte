<script lang="ts">
  import { ComboBox, Select, SelectItem } from 'carbon-components-svelte';
  import { countText } from '#core/quantities/format';

  type Build = { id: string; tag: string; name: string };
  type Props = {
    label: string;
    hideLabel?: boolean;
    /** Those that can be picked; in a large crate the first of them. */
    builds: readonly Build[];
    /** How many there are in all. */
    total: number;
    /** Looks for others by words; undefined where there was no answer. */
    find: (words: string) => Promise<readonly Build[] | undefined>;
    /** What stands where none is picked. */
    none: string;
    picked: string;
    onpick: (build: Build | undefined) => void;
  };
  /** Picks a build: from a list, or in a large crate by typing what it is called. */
  let { label, hideLabel = false, builds, total, find, none, picked, onpick }: Props = $props();
  let found = $state.raw<readonly Build[]>();
  let typed = $state('');
  const AFTER_MS = 150;
  const offered = $derived(found ?? builds);
  const textOf = ({ tag, name }: Build) => `${tag} ${name}`;

  $effect(() => {
    const words = typed.trim();
    if (total <= builds.length || words === '' || offered.some((build) => textOf(build) === words)) return;
    const timer = setTimeout(async () => (found = (await find(words)) ?? found), AFTER_MS);
    return () => clearTimeout(timer);
  });
</script>

{#if total <= builds.length}
  <Select
    size="sm"
    labelText={label}
    {hideLabel}
    selected={picked}
    on:update={(e) => onpick(builds.find(({ id }) => id === String(e.detail ?? '')))}
  >
    <SelectItem value="" text={none} />
    {#each builds as build (build.id)}<SelectItem value={build.id} text={textOf(build)} />{/each}
  </Select>
{:else}
  <ComboBox
    size="sm"
    labelText={label}
    {hideLabel}
    placeholder={none}
    items={offered.map((build) => ({ id: build.id, text: textOf(build) }))}
    selectedId={picked || undefined}
    bind:value={typed}
    shouldFilterItem={(item, words) =>
      words
        .toLowerCase()
        .split(/\s+/)
        .every((word) => item.text.toLowerCase().includes(word))}
    helperText="{countText(total)} builds: type a tag or a name"
    on:select={(e) => onpick(offered.find(({ id }) => id === e.detail.selectedId))}
    on:clear={() => onpick(undefined)}
  />
{/if}
