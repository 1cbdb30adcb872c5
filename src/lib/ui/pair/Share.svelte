<script lang="ts">
  import { Button, Modal } from 'carbon-components-svelte';
  import { flushSync } from 'svelte';
  import type { PlanAnswer } from '#core/answers/answers';
  import { planFile } from '#core/answers/plan-file';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import { dayHere } from '../common/day-here';
  import { notices } from '../frame/notices.svelte';
  import PlanPaper from './PlanPaper.svelte';
  import { saveAs } from '../common/save-as';
  import { standAlone } from './share';
  import OnceOpen from '../common/OnceOpen.svelte';

  type Props = {
    heading: string;
    tag?: string | undefined;
    input: PlanInput;
    report: PlanReport;
    answers: readonly PlanAnswer[];
  };
  /** Keeps a plan outside the program, or shows it to somebody: a link, a file, a page, paper. */
  let { heading, tag, input, report, answers }: Props = $props();
  let open = $state(false);
  let paper = $state<HTMLElement>();
  let address = $state<HTMLInputElement>();
  const title = $derived(`${tag ? `${tag} ` : ''}${heading}`);

  async function copyLink(): Promise<void> {
    try {
      await navigator.clipboard.writeText(location.href);
      notices.add('success', 'The link is copied. It opens this plan wherever this Ash Crate can be reached.');
    } catch {
      // Without a clipboard the link is shown, chosen whole, to be copied by hand.
      open = true;
      requestAnimationFrame(() => address?.select());
    }
  }
  function saveFile(): void {
    const file = planFile({ name: title, input, engine: report.engine, answers }, dayHere());
    saveAs(`${title}.plan.json`, 'application/json', `${JSON.stringify(file, null, 2)}\n`);
  }
  /** The paper is drawn only while it is needed: every change of a part would draw it anew. */
  let drawn = $state(false);
  const draw = (wanted: boolean) => flushSync(() => (drawn = wanted));
  function savePage(): void {
    draw(true);
    if (paper) saveAs(`${title}.html`, 'text/html', standAlone(paper, title));
    draw(false);
  }
</script>

<svelte:window onbeforeprint={() => draw(true)} onafterprint={() => draw(false)} />
<section class="share no-print" aria-label="Keep and share">
  <strong>Keep and share</strong>
  <Button kind="ghost" size="small" on:click={copyLink}>Copy the link</Button>
  <Button kind="ghost" size="small" on:click={saveFile}>Save as a plan file</Button>
  <Button kind="ghost" size="small" on:click={savePage}>Save as a page</Button>
  <Button kind="ghost" size="small" on:click={() => print()}>Print with workings</Button>
</section>
{#if drawn}<PlanPaper {heading} {tag} {input} {report} {answers} today={dayHere()} bind:element={paper} />{/if}

<OnceOpen {open}>
  <Modal bind:open size="sm" passiveModal modalHeading="The link to this plan">
    <p>It opens wherever this Ash Crate can be reached: on this computer, and where its address is known.</p>
    <input
      class="bx--text-input"
      readonly
      aria-label="Link to this plan"
      value={open ? location.href : ''}
      bind:this={address}
      onfocus={(e) => e.currentTarget.select()}
    />
  </Modal>
</OnceOpen>

<style>
  .share {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 8px;
    align-items: center;
    padding: 6px 0;
    border-top: 1px solid var(--ash-line);
  }
</style>
