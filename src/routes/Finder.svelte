<script lang="ts">
  import { goto } from '$app/navigation';
  import { GLOSSARY } from '#core/facts/glossary';
  import { HOUSE_RULE_IDS, HOUSE_RULES } from '#core/house-rules/house-rules';
  import { KINDS, KIND_LABEL } from '#core/parts/kinds';
  import Palette, { type Entry } from '$lib/ui/frame/Palette.svelte';

  type Props = { crate: { id: string; slug: string }; open: boolean; words: string };
  let { crate, open = $bindable(), words = $bindable() }: Props = $props();
  const home = $derived(`/c/${crate.slug}`);

  const commands = $derived<Entry[]>([
    { title: 'Today', detail: 'go to', href: home },
    { title: 'Paste a specification', detail: 'add a part', href: `${home}/crate/paste` },
    ...KINDS.map((kind) => ({ title: KIND_LABEL[kind].many, detail: 'crate', href: `${home}/crate/${kind}` })),
    ...KINDS.map((kind) => ({
      title: `Add: ${KIND_LABEL[kind].one}`,
      detail: 'add a part',
      href: `${home}/crate/${kind}/new`
    })),
    { title: 'Builds', detail: 'go to', href: `${home}/builds` },
    { title: 'New build', detail: 'Pair', href: `${home}/pair` },
    { title: 'Rank', detail: 'every combination', href: `${home}/rank` },
    { title: 'Several at once', detail: 'shared controllers and hubs', href: `${home}/together` },
    { title: 'Jobs', detail: 'what builds are for', href: `${home}/jobs` },
    { title: 'House rules', detail: 'where practice differs', href: `${home}/house-rules` },
    ...HOUSE_RULE_IDS.map((id) => ({
      title: HOUSE_RULES[id].name,
      detail: `house rule: ${HOUSE_RULES[id].question.toLowerCase()}`,
      href: `${home}/house-rules#${id}`
    })),
    { title: 'Items', detail: 'go to', href: `${home}/items` },
    { title: 'Find an item by its tag', detail: 'scan or type', href: `${home}/find` },
    { title: 'Labels', detail: 'print', href: `${home}/labels` },
    { title: 'Prices and rates', detail: 'go to', href: `${home}/prices` },
    { title: 'Results', detail: 'go to', href: `${home}/runs` },
    { title: 'Known combinations', detail: 'go to', href: `${home}/combinations` },
    { title: 'Import and export', detail: 'CSV, JSON, bundle', href: `${home}/tables` },
    { title: 'History', detail: 'who changed what', href: `${home}/history` },
    { title: 'Glossary', detail: 'terms', href: `${home}/glossary` },
    { title: 'Backup and restore', detail: 'everything', href: '/backup' },
    { title: 'Keys', detail: 'all of them', href: `${home}/keys` },
    ...GLOSSARY.map(({ term, also = [] }) => ({
      title: term,
      detail: ['glossary', ...also].join(', '),
      href: `${home}/glossary?term=${encodeURIComponent(term)}`
    }))
  ]);

  async function find(words: string): Promise<Entry[]> {
    try {
      const response = await fetch(`/api/crates/${crate.id}/search?q=${encodeURIComponent(words)}`);
      if (!response.ok) return [];
      const hits = (await response.json()) as { title: string; detail: string; path: string }[];
      return hits.map(({ title, detail, path }) => ({
        title,
        detail,
        href: path.startsWith('/b/') ? path : `${home}${path}`
      }));
    } catch {
      return [];
    }
  }
  function onpick(entry: Entry): void {
    if (entry.run) entry.run();
    else if (entry.href) void goto(entry.href);
  }
</script>

<Palette bind:open bind:words {commands} {find} {onpick} />
