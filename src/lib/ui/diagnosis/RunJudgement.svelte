<script lang="ts">
  import type { Diagnosis } from '#core/diagnosis/diagnose';
  import type { FoundLater } from '#core/diagnosis/found';
  import type { ProtocolId } from '#core/results/protocol-ids';
  import CauseActs from './CauseActs.svelte';
  import Causes from './Causes.svelte';
  import FoundOut from './FoundOut.svelte';
  import NextTestPanel from './NextTestPanel.svelte';
  import Suspects from './Suspects.svelte';

  type Item = { id: string; version: number; unit: { id: string; tag: string; notes?: string | undefined } };
  type Pair = { driveId: string; drive: string; bridge: string };
  type Judged = {
    sentence: { text: string };
    diagnosis: Diagnosis;
    names: Record<string, string>;
    tried: readonly { test: string; text: string }[];
    item: Item | undefined;
    answers: readonly { runId: string; protocol: ProtocolId; date: string; simulated: boolean; outcome: string }[];
  };
  type Props = {
    judged: Judged;
    /** What is kept of it, and how. */
    finding: {
      busy: boolean;
      found: FoundLater;
      keep: (found: FoundLater) => Promise<boolean>;
      answer: (test: string, outcome: string) => Promise<boolean>;
      notePair: (verdict: 'good' | 'bad', pair: Pair, said: string) => Promise<boolean>;
      noteItem: (item: Item, diagnosis: Diagnosis) => Promise<boolean>;
    };
    tag: string;
    /** Drive and bridge, where the bridge is known. */
    pair: Pair | undefined;
    simulated: boolean;
    runHref: (id: string) => string;
  };
  /** Why a run of a build is as it is: suspects, causes, what to do or to find out next, and what was tried. */
  let { judged, finding, tag, pair, simulated, runHref }: Props = $props();
  const { diagnosis, item } = $derived(judged);
  const isKnown = $derived(diagnosis.known.length > 0);
</script>

<Suspects suspects={diagnosis.suspects} names={judged.names} />
<CauseActs
  {diagnosis}
  {tag}
  pair={pair && `${pair.drive} with ${pair.bridge}`}
  item={item?.unit.tag}
  busy={finding.busy}
  onpair={(verdict) => pair && void finding.notePair(verdict, pair, judged.sentence.text)}
  onitem={() => item && void finding.noteItem(item, diagnosis)}
/>
{#if isKnown}
  <Causes {diagnosis} {simulated} />
  {#if diagnosis.next}
    {@const { test } = diagnosis.next}
    <NextTestPanel
      next={diagnosis.next}
      busy={finding.busy}
      answers={judged.answers}
      {runHref}
      onanswer={(outcome) => void finding.answer(test, outcome)}
      measureHref={(id) => `/b/${tag}/measure/plan?protocol=${id}`}
    />
  {/if}
{/if}
<FoundOut found={finding.found} tried={judged.tried} busy={finding.busy} onchange={(found) => finding.keep(found)} />
