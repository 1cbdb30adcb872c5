<script lang="ts">
  import { FILESYSTEMS, type FilesystemId } from '#core/facts/filesystems';
  import { HOUSE_RULES, type HouseRuleId } from '#core/house-rules/house-rules';
  import type { PlanReport } from '#core/plan/report';
  import Explained from '../common/Explained.svelte';
  import StateMark from '../common/StateMark.svelte';

  type Props = {
    advice: PlanReport['filesystem'];
    /** What is going to be made, which may be another than the first. */
    chosen: FilesystemId;
    rulesHref: string;
    matrixHref: string;
    jobHref: string | undefined;
    onchoose: (filesystem: FilesystemId) => void;
  };
  /** Which filesystem suits everybody that has to write and to read, what is lost by each other one, and what is passed over. */
  let { advice, chosen, rulesHref, matrixHref, jobHref, onchoose }: Props = $props();
  const first = $derived(advice.first);
  const rule = $derived(
    first.rule && Object.hasOwn(HOUSE_RULES, first.rule) ? HOUSE_RULES[first.rule as HouseRuleId].name : undefined
  );
</script>

<section aria-label="Advice">
  <h2>Advice</h2>
  <p class="first">
    {FILESYSTEMS[first.filesystem].label}{first.variant ? ', case-sensitive' : ''}
    <span class="scheme"
      >in {first.scheme.toUpperCase()}{first.allocationUnit ? `, units of ${first.allocationUnit}` : ''}</span
    >
  </p>
  {#if advice.none}
    <div class="none" role="note">
      <p>
        <StateMark mark="check" size={16} /> <strong>No filesystem does all that this job asks for.</strong> This one comes
        nearest. The ways out, the better ones first:
      </p>
      <ol>
        {#each advice.ways ?? [] as way (way)}<li>{way}</li>{/each}
      </ol>
    </div>
  {/if}
  <ul class="reasons">
    {#each first.because as reason (reason)}<li>
        <Explained text={reason.charAt(0).toUpperCase() + reason.slice(1)} />.
      </li>{/each}
    {#if advice.slack}<li>{advice.slack.text}</li>{/if}
  </ul>
  <p class="small quiet">
    {#if rule}Decided by the <a href={rulesHref}>house rule “{rule}”</a>.{/if}
    {#if jobHref}From what <a href={jobHref}>the job</a> says of its systems and files.{:else}Without a job it is judged
      by the computer of the build alone: name the systems that write and read it in a job.{/if}
    <a href={matrixHref}>All filesystems and systems</a>
  </p>
  {#if chosen !== first.filesystem}
    <p>
      <button type="button" class="pick" onclick={() => onchoose(first.filesystem)}
        >Make it {FILESYSTEMS[first.filesystem].label} after all</button
      >
    </p>
  {/if}

  {#if advice.others.length > 0}
    <h3>What would do as well</h3>
    <ul class="others">
      {#each advice.others as other (other.filesystem)}
        <li>
          <strong>{FILESYSTEMS[other.filesystem].label}</strong>
          <span>{other.loses ?? other.because[0]}</span>
          {#if chosen === other.filesystem}<span class="chosen">chosen</span>{:else}<button
              type="button"
              class="pick"
              onclick={() => onchoose(other.filesystem)}
              aria-label="Make it {FILESYSTEMS[other.filesystem].label}">Make it this</button
            >{/if}
        </li>
      {/each}
    </ul>
  {/if}
  {#if advice.rejected.length > 0}
    <details>
      <summary>{advice.rejected.length} passed over</summary>
      <ul class="rejected">
        {#each advice.rejected as { filesystem, because } (filesystem)}
          <li><strong>{FILESYSTEMS[filesystem].label}</strong> {because}</li>
        {/each}
      </ul>
    </details>
  {/if}
</section>

<style>
  .first {
    margin: 4px 0 6px;
    font-size: var(--ash-text-large);
    font-weight: 700;
  }
  .scheme {
    font-size: var(--ash-text);
    font-weight: 500;
    color: var(--ash-soft);
  }
  .none {
    padding: 8px 12px;
    margin: 6px 0;
    border-left: 3px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .none :global(svg) {
    color: var(--ash-caution);
  }
  .none ol {
    margin: 6px 0 0;
    padding-left: 1.4em;
  }
  .none li {
    margin-top: 3px;
    list-style: decimal;
  }
  .reasons li {
    margin-left: 1.1em;
    list-style: disc;
  }
  h3 {
    margin: 14px 0 4px;
    font-size: var(--ash-text);
    font-weight: 650;
  }
  .others li {
    display: grid;
    grid-template-columns: 6.5rem minmax(0, 1fr) max-content;
    gap: 4px 12px;
    align-items: baseline;
    padding: 6px 0;
    border-top: 1px solid var(--ash-line);
  }
  .pick {
    min-height: 28px;
    padding: 2px 10px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .pick:hover {
    background: var(--ash-ember-wash);
  }
  .chosen {
    font-weight: 650;
    color: var(--ash-pass);
  }
  .rejected li {
    padding: 3px 0;
    color: var(--ash-soft);
  }
  .rejected strong {
    color: var(--ash-ink);
  }
  summary {
    padding: 8px 0;
    cursor: pointer;
  }
  @media (max-width: 672px) {
    .others li {
      grid-template-columns: minmax(0, 1fr);
    }
    .pick {
      min-height: 44px;
      justify-self: start;
    }
  }
</style>
